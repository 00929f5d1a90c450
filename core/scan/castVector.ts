/**
 * A patch as offsets, so that what overhangs survives: for each pixel the way from where its point of the surface would
 * rest on the flat frame to where it is, in frame sides and the frame's axes.
 *
 * Where nothing overhangs, a point rests straight under itself. Round an overhang points are spread out: each is moved
 * to the mean of its neighbours again and again while those outside stay (Tutte, "How to draw a graph", 1963), so that
 * no two points rest at one place. The overall shape is taken out as for heights.
 */
import { castHeights, CastCancelled } from '#core/cast';
import type { MeshArrays } from '#core/mesh';
import type { Picture } from '#core/picture';
import type { Patch } from '#core/settings';
import { patchFrame } from './axes';
import { EmptyPatchError } from './castPatch';
import { detrend } from './detrend';
import { fillSmoothly } from './fill';
import { patchSurface, type PatchSurface } from './surface';

export interface PatchVector {
  size: number;
  /** x, y, z of each pixel in frame sides, row by row from the top. */
  offsets: Float32Array;
  /** Largest out less smallest, in frame sides. */
  relief: number;
}

/** Vertices this many edges from an overhang are spread out with it. */
const RINGS = 6;
const ROUNDS = 400;

/** Throws EmptyPatchError and CastCancelled. */
export function castPatchVector(
  mesh: MeshArrays,
  patch: Patch,
  onProgress: (share: number) => boolean = () => true,
): PatchVector {
  const { size } = patch.cast;
  const { side } = patch.cast.frame;
  const surface = patchSurface(mesh, patchFrame(patch), { turnedAway: true });
  if (!surface) throw new EmptyPatchError();
  const rest = restPlaces(surface, (share) => onProgress(share * 0.5));
  const flat = (values: (v: number) => number): Picture => {
    const positions = rest.slice();
    for (let v = 0; v < positions.length / 3; v++) positions[v * 3 + 2] = values(v);
    return castHeights(
      { positions, triangles: surface.triangles },
      { frame: { x: 0, y: 0, turn: 0, side }, size, samples: 1 },
    );
  };
  const { positions: p } = surface;
  const x = fillSmoothly(flat((v) => p[v * 3] - rest[v * 3]));
  if (!onProgress(0.7)) throw new CastCancelled();
  const y = fillSmoothly(flat((v) => p[v * 3 + 1] - rest[v * 3 + 1]));
  const z = fillSmoothly(
    detrend(
      flat((v) => p[v * 3 + 2]),
      patch.detrend,
    ).heights,
  );
  if (!onProgress(0.95)) throw new CastCancelled();
  // The ground, the median of the border, is where nothing is moved.
  const ground = borderMedian(z);
  const offsets = new Float32Array(size * size * 3);
  let low = Infinity;
  let high = -Infinity;
  for (let i = 0; i < size * size; i++) {
    offsets[i * 3] = x.data[i] / side;
    offsets[i * 3 + 1] = y.data[i] / side;
    const out = (z.data[i] - ground) / side;
    offsets[i * 3 + 2] = out;
    low = Math.min(low, out);
    high = Math.max(high, out);
  }
  return { size, offsets, relief: high - low };
}

/** x and y of each vertex on the flat frame; z is nought. */
function restPlaces({ positions: p, triangles }: PatchSurface, going: (share: number) => boolean): Float32Array {
  const vertices = p.length / 3;
  const rest = new Float32Array(p.length);
  for (let v = 0; v < vertices; v++) {
    rest[v * 3] = p[v * 3];
    rest[v * 3 + 1] = p[v * 3 + 1];
  }
  const free = nearOverhangs(p, triangles);
  const round = neighboursOf(triangles, free);
  for (let n = 0; n < ROUNDS && round.length > 0; n++) {
    if (n % 20 === 0 && !going(n / ROUNDS)) throw new CastCancelled();
    for (const { v, beside } of round) {
      let x = 0;
      let y = 0;
      for (const w of beside) {
        x += rest[w * 3];
        y += rest[w * 3 + 1];
      }
      rest[v * 3] = x / beside.length;
      rest[v * 3 + 1] = y / beside.length;
    }
  }
  return rest;
}

/** 1 for vertices of faces that are turned away, and those a few edges from them; rims stay where they are. */
function nearOverhangs(p: Float32Array, triangles: Uint32Array): Uint8Array {
  const near = new Uint8Array(p.length / 3);
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i] * 3, triangles[i + 1] * 3, triangles[i + 2] * 3];
    const up = (p[b] - p[a]) * (p[c + 1] - p[a + 1]) - (p[b + 1] - p[a + 1]) * (p[c] - p[a]);
    if (up <= 0) for (let k = 0; k < 3; k++) near[triangles[i + k]] = 1;
  }
  for (let ring = 1; ring <= RINGS; ring++) {
    for (let i = 0; i < triangles.length; i += 3) {
      const touched = [0, 1, 2].some((k) => near[triangles[i + k]] === ring);
      if (touched) for (let k = 0; k < 3; k++) near[triangles[i + k]] ||= ring + 1;
    }
  }
  return near;
}

function neighboursOf(triangles: Uint32Array, free: Uint8Array): { v: number; beside: number[] }[] {
  const sets = new Map<number, Set<number>>();
  const uses = new Map<number, number>();
  for (let i = 0; i < triangles.length; i += 3) {
    for (let k = 0; k < 3; k++) {
      const v = triangles[i + k];
      if (!free[v]) continue;
      const set = sets.get(v) ?? new Set();
      sets.set(v, set.add(triangles[i + ((k + 1) % 3)]).add(triangles[i + ((k + 2) % 3)]));
      uses.set(v, (uses.get(v) ?? 0) + 1);
    }
  }
  // At a rim there are more neighbours than faces.
  return [...sets].filter(([v, set]) => set.size === uses.get(v)).map(([v, set]) => ({ v, beside: [...set] }));
}

function borderMedian({ width, height, data }: Picture): number {
  const border: number[] = [];
  for (let i = 0; i < width; i++) border.push(data[i], data[(height - 1) * width + i]);
  for (let j = 0; j < height; j++) border.push(data[j * width], data[j * width + width - 1]);
  return Float32Array.from(border).sort()[border.length >> 1];
}
