/**
 * Subdivides a mesh: every triangle becomes four, smoothly, with borders and sharp edges kept as they run.
 *
 * Source: C. Loop, "Smooth subdivision surfaces based on triangles", 1987, with Warren's weights for vertices; borders
 * and creases after H. Hoppe et al., "Piecewise smooth surface reconstruction", 1994.
 */
import { carriedBySplit, type Carried, type SplitCorner } from './carried';
import { edgesOf, type Edges } from './edges';
import { sharpEdges } from './sharpEdges';
import type { RawMesh } from './mesh';

export interface SubdivideOptions {
  /** Edges whose faces turn by more than this stay sharp, radians. */
  sharpRad: number;
}

const DEFAULTS: SubdivideOptions = { sharpRad: (40 * Math.PI) / 180 };

export function subdivide(
  { positions: p, triangles, carried }: RawMesh,
  { sharpRad }: SubdivideOptions = DEFAULTS,
): RawMesh {
  const vertexCount = p.length / 3;
  const edges = edgesOf(triangles, vertexCount);
  const sharp = sharpEdges(p, triangles, edges, Math.cos(sharpRad));
  const out = new Float32Array((vertexCount + edges.count) * 3);
  placeVertices(out, p, vertexCount, edges, sharp);
  for (let e = 0; e < edges.count; e++) {
    const a = edges.ends[e * 2] * 3;
    const b = edges.ends[e * 2 + 1] * 3;
    const to = (vertexCount + e) * 3;
    const c = edges.across[e * 2] * 3;
    const d = edges.across[e * 2 + 1] * 3;
    for (let k = 0; k < 3; k++) {
      out[to + k] = sharp[e] ? (p[a + k] + p[b + k]) / 2 : (3 * (p[a + k] + p[b + k]) + p[c + k] + p[d + k]) / 8;
    }
  }
  return {
    positions: out,
    triangles: quartered(triangles, edges.ofTriangle, vertexCount),
    carried: carried && quarteredCarried(carried, triangles.length / 3),
  };
}

/** Corners of the four triangles that one becomes, as `quartered` lays them. */
const QUARTERS: readonly SplitCorner[] = [0, 3, 5, 3, 1, 4, 5, 4, 2, 3, 4, 5];

function quarteredCarried(carried: Carried, triangles: number): Carried | undefined {
  const parents = new Uint32Array(triangles * 4);
  const corners = new Uint8Array(triangles * 12);
  for (let t = 0; t < triangles; t++) {
    parents.fill(t, t * 4, t * 4 + 4);
    corners.set(QUARTERS, t * 12);
  }
  return carriedBySplit(carried, parents, corners);
}

function quartered(triangles: Uint32Array, ofTriangle: Uint32Array, vertexCount: number): Uint32Array {
  const out = new Uint32Array(triangles.length * 4);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [triangles[t], triangles[t + 1], triangles[t + 2]];
    const ab = vertexCount + ofTriangle[t];
    const bc = vertexCount + ofTriangle[t + 1];
    const ca = vertexCount + ofTriangle[t + 2];
    out.set([a, ab, ca, ab, b, bc, ca, bc, c, ab, bc, ca], t * 4);
  }
  return out;
}

/** Borders, edges of more than two triangles, and those whose faces turn too far. */
function placeVertices(out: Float32Array, p: Float32Array, vertexCount: number, edges: Edges, sharp: Uint8Array): void {
  const around = new Float64Array(vertexCount * 3);
  const along = new Float64Array(vertexCount * 3);
  const degree = new Uint32Array(vertexCount);
  const creases = new Uint32Array(vertexCount);
  for (let e = 0; e < edges.count; e++) {
    for (const [from, to] of [
      [edges.ends[e * 2], edges.ends[e * 2 + 1]],
      [edges.ends[e * 2 + 1], edges.ends[e * 2]],
    ] as const) {
      degree[from]++;
      if (sharp[e]) creases[from]++;
      for (let k = 0; k < 3; k++) {
        around[from * 3 + k] += p[to * 3 + k];
        if (sharp[e]) along[from * 3 + k] += p[to * 3 + k];
      }
    }
  }
  for (let v = 0; v < vertexCount; v++) {
    const n = degree[v];
    const beta = n === 3 ? 3 / 16 : 3 / (8 * n);
    for (let k = 0; k < 3; k++) {
      const at = v * 3 + k;
      // A dart, where one crease ends, is smooth; corners where several meet stay where they are.
      if (n === 0 || creases[v] > 2) out[at] = p[at];
      else if (creases[v] === 2) out[at] = p[at] * 0.75 + along[at] / 8;
      else out[at] = p[at] * (1 - n * beta) + around[at] * beta;
    }
  }
}

/** Triangles after so many subdivisions. */
export function trianglesAfter(triangles: number, levels: number): number {
  return triangles * 4 ** levels;
}
