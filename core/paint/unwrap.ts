/**
 * Texture coordinates for a mesh, by a packaged unwrapper (xatlas, as watlas has it). It takes minutes for a dense
 * mesh: such a one is unwrapped by a light copy of it, and each of its triangles takes the coordinates of the copy’s
 * chart that it lies on.
 */
import { buildMesh, nearestOn, type RawMesh } from '#core/mesh';
import { reduced } from '#core/part';

/** What of the unwrapper is used. */
export interface UnwrapKit {
  Atlas: new () => {
    addMesh(mesh: {
      vertexPositionData: Float32Array;
      vertexCount: number;
      vertexPositionStride: number;
      indexData: Uint32Array;
      indexCount: number;
    }): void;
    generate(charts: object, pack: object): void;
    getMesh(index: number): {
      indexCount: number;
      getIndexArray(into: Uint32Array): boolean;
      getVertex(index: number): { uv: ArrayLike<number>; xref: number; chartIndex: number; atlasIndex: number };
    };
    readonly width: number;
    readonly height: number;
    readonly chartCount: number;
    delete(): void;
  };
}

/** Meshes of more faces are unwrapped by a copy of so many. */
export const DIRECT_FACES = 8_000;
export const COPY_FACES = 5_000;
/** Texels between charts, of a texture of RESOLUTION a side. */
const PADDING_TEXELS = 6;
const RESOLUTION = 1024;
/** Faces from step to step. */
const STEP_FACES = 20_000;

export interface Unwrapped {
  /** u, v of each corner of each triangle, six numbers a triangle. */
  coordinates: Float32Array;
  charts: number;
}

/** What is being done, and how far all of it is, 0–1. */
export type UnwrapStep = (what: string, share: number) => void;

/** Fails with a sentence where the mesh can’t be unwrapped. */
export async function unwrap(kit: UnwrapKit, mesh: RawMesh, step: UnwrapStep = () => undefined): Promise<Unwrapped> {
  const dense = mesh.triangles.length / 3 > DIRECT_FACES;
  if (dense) step('making a light copy', 0.05);
  const copy = dense ? await reduced(mesh, { way: 'shape', faces: COPY_FACES }) : mesh;
  step('unwrapping', 0.15);
  const flat = flattened(kit, copy);
  const carry = (share: number): void => step('carrying over', 0.6 + 0.4 * share);
  return { coordinates: dense ? carriedOver(mesh, copy, flat, carry) : flat.coordinates, charts: flat.count };
}

interface Flat {
  coordinates: Float32Array;
  /** Of each triangle. */
  chartOf: Uint32Array;
  count: number;
}

function flattened(kit: UnwrapKit, { positions, triangles }: RawMesh): Flat {
  const atlas = new kit.Atlas();
  try {
    atlas.addMesh({
      vertexPositionData: positions,
      vertexCount: positions.length / 3,
      vertexPositionStride: 12,
      indexData: triangles,
      indexCount: triangles.length,
    });
    // Larger charts than its own defaults give: seams cost a painter more than a little stretch.
    const charts = { maxCost: 6, maxIterations: 3 };
    atlas.generate(charts, { padding: PADDING_TEXELS, resolution: RESOLUTION, bilinear: true });
    const made = atlas.getMesh(0);
    const indices = new Uint32Array(made.indexCount);
    made.getIndexArray(indices);
    if (indices.length !== triangles.length)
      throw new Error('The unwrapper gave other triangles than it was given; this mesh can’t be unwrapped.');
    const side = Math.max(atlas.width, atlas.height);
    const coordinates = new Float32Array(triangles.length * 2);
    const chartOf = new Uint32Array(triangles.length / 3);
    for (let i = 0; i < indices.length; i++) {
      const { uv, chartIndex } = made.getVertex(indices[i]);
      coordinates[i * 2] = clamped(uv[0] / side);
      coordinates[i * 2 + 1] = clamped(uv[1] / side);
      chartOf[Math.floor(i / 3)] = chartIndex;
    }
    return { coordinates, chartOf, count: atlas.chartCount };
  } finally {
    atlas.delete();
  }
}

const clamped = (x: number): number => (x >= 0 ? Math.min(1, x) : 0);

function carriedOver(
  mesh: RawMesh,
  copy: RawMesh,
  { coordinates, chartOf }: Flat,
  step: (share: number) => void,
): Float32Array {
  // Its triangles are ordered anew: where each was, by its own number as a coordinate.
  const numbers = Float32Array.from({ length: chartOf.length * 6 }, (_, i) => Math.floor(i / 6));
  const ordered = buildMesh(
    { positions: copy.positions, triangles: copy.triangles, carried: { coordinates: numbers, groups: null } },
    { ringless: true },
  );
  const was = (t: number): number => ordered.carried!.coordinates![t * 6];
  const find = nearestOn(ordered);
  const { positions: p, triangles } = mesh;
  const vertices = p.length / 3;
  const nearest = new Int32Array(vertices).fill(-1);
  const out = new Float32Array(triangles.length * 2);
  const at = (v: number): readonly [number, number, number] => [p[v * 3], p[v * 3 + 1], p[v * 3 + 2]];
  for (let v = 0; v < vertices; v++) nearest[v] = find(...at(v))?.triangle ?? -1;
  const count = triangles.length / 3;
  for (let t = 0; t < count; t++) {
    if (t % STEP_FACES === 0) step(t / count);
    const corners = [0, 1, 2].map((k) => triangles[t * 3 + k]);
    const [a, b, c] = corners.map(at);
    const middle = [0, 1, 2].map((k) => (a[k] + b[k] + c[k]) / 3) as [number, number, number];
    const own = find(...middle)?.triangle ?? 0;
    const chart = chartOf[was(own)];
    corners.forEach((v, k) => {
      // What lies nearest may be another chart: then its own goes on beyond its border.
      const on = nearest[v] >= 0 && chartOf[was(nearest[v])] === chart ? nearest[v] : own;
      const shares = sharesIn(ordered, on, at(v));
      for (let j = 0; j < 2; j++)
        out[t * 6 + k * 2 + j] = clamped(
          shares.reduce((sum, share, i) => sum + share * coordinates[was(on) * 6 + i * 2 + j], 0),
        );
    });
  }
  return out;
}

/** Shares of a triangle’s corners at a place in its plane; over 1 and under 0 beyond its sides. */
function sharesIn(
  { positions: p, triangles }: Pick<RawMesh, 'positions' | 'triangles'>,
  t: number,
  at: readonly [number, number, number],
): readonly [number, number, number] {
  const [a, b, c] = [0, 1, 2].map((k) => triangles[t * 3 + k] * 3);
  const e = [0, 1, 2].map((k) => p[b + k] - p[a + k]);
  const f = [0, 1, 2].map((k) => p[c + k] - p[a + k]);
  const g = [0, 1, 2].map((k) => at[k] - p[a + k]);
  const dot = (x: readonly number[], y: readonly number[]): number => x[0] * y[0] + x[1] * y[1] + x[2] * y[2];
  const [ee, ef, ff, ge, gf] = [dot(e, e), dot(e, f), dot(f, f), dot(g, e), dot(g, f)];
  const whole = ee * ff - ef * ef;
  if (whole <= 0) return [1, 0, 0];
  const v = (ff * ge - ef * gf) / whole;
  const w = (ee * gf - ef * ge) / whole;
  return [1 - v - w, v, w];
}
