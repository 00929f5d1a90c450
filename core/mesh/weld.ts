/**
 * Makes a body of a mesh that came from outside: corners that lie at one place become one vertex, triangles without
 * area go, so do vertices that nothing names, and the whole is moved and scaled to about the size of the plain ball.
 */
import { carriedBy } from './carried';
import { edgesOf } from './edges';
import type { RawMesh } from './mesh';

export interface Welded {
  mesh: RawMesh;
  /** What was done, for the person to know. */
  merged: number;
  dropped: number;
  /** Edges that only one triangle names: holes and open borders. */
  open: number;
  /** Pieces that hang together. */
  pieces: number;
}

/** Corners nearer than this share of the whole are one. */
const NEAR = 1e-6;

/** Throws a sentence when nothing is left that could be sculpted. */
export function weld({ positions, triangles, carried }: RawMesh): Welded {
  const { low, size } = boundsOf(positions, triangles);
  if (!(size > 0)) throw new Error('All points of the mesh lie at one place, so there is nothing to sculpt on.');
  const { place, count: merged } = mergedPlaces(positions, triangles, low, size * NEAR);
  const scale = 2 / size;
  const first = new Uint32Array(merged);
  for (let i = place.length - 1; i >= 0; i--) if (place[i] < merged) first[place[i]] = i;
  const middle = [0, 1, 2].map((k) => low[k] + extentOf(positions, triangles, k) / 2);
  // Vertices of triangles that vanish aren't kept either: numbers are given by those that stay.
  const number = new Int32Array(merged).fill(-1);
  const faces = new Uint32Array(triangles.length);
  const stayed = new Uint32Array(triangles.length / 3);
  let corners = 0;
  let count = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const face = [place[triangles[t]], place[triangles[t + 1]], place[triangles[t + 2]]];
    if (face[0] === face[1] || face[1] === face[2] || face[2] === face[0]) continue;
    stayed[corners / 3] = t / 3;
    for (const at of face) {
      if (number[at] < 0) number[at] = count++;
      faces[corners++] = number[at];
    }
  }
  if (corners === 0) throw new Error('Every triangle of the mesh is without area, so there is nothing to sculpt on.');
  const out = new Float32Array(count * 3);
  for (let v = 0; v < merged; v++) {
    if (number[v] < 0) continue;
    for (let k = 0; k < 3; k++) out[number[v] * 3 + k] = (positions[first[v] * 3 + k] - middle[k]) * scale;
  }
  const used = faces.slice(0, corners);
  return {
    mesh: { positions: out, triangles: used, carried: carriedBy(carried, stayed.subarray(0, corners / 3)) },
    merged: positions.length / 3 - merged,
    dropped: (triangles.length - used.length) / 3,
    ...openAndPieces(used, count),
  };
}

/**
 * Cells are so many times as large as what is near, so that few vertices lie at a border and have to ask next door too.
 */
const CELLS_NEAR = 16;

/** New number of each vertex, in the order in which triangles name them; unnamed ones are out of range. */
function mergedPlaces(
  p: Float32Array,
  triangles: Uint32Array,
  low: readonly number[],
  near: number,
): { place: Uint32Array; count: number } {
  const vertices = p.length / 3;
  const place = new Uint32Array(vertices).fill(0xffffffff);
  let buckets = 1;
  while (buckets < vertices) buckets *= 2;
  const heads = new Int32Array(buckets).fill(-1);
  const next = new Int32Array(vertices).fill(-1);
  const cell = near * CELLS_NEAR;
  const bucketOf = (x: number, y: number, z: number): number =>
    (Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791)) & (buckets - 1);
  const at = (v: number, k: number, by: number): number => Math.floor((p[v * 3 + k] - low[k] + by) / cell);
  const isNear = (a: number, b: number): boolean =>
    Math.abs(p[a * 3] - p[b * 3]) <= near &&
    Math.abs(p[a * 3 + 1] - p[b * 3 + 1]) <= near &&
    Math.abs(p[a * 3 + 2] - p[b * 3 + 2]) <= near;
  /** A vertex that was met before and is near, in its own cell or over the border of the next. */
  const twinOf = (v: number): number => {
    for (let x = at(v, 0, -near), x1 = at(v, 0, near); x <= x1; x++) {
      for (let y = at(v, 1, -near), y1 = at(v, 1, near); y <= y1; y++) {
        for (let z = at(v, 2, -near), z1 = at(v, 2, near); z <= z1; z++) {
          for (let other = heads[bucketOf(x, y, z)]; other >= 0; other = next[other])
            if (isNear(v, other)) return other;
        }
      }
    }
    return -1;
  };
  let count = 0;
  for (let i = 0; i < triangles.length; i++) {
    const v = triangles[i];
    if (place[v] !== 0xffffffff) continue;
    const twin = twinOf(v);
    if (twin >= 0) {
      place[v] = place[twin];
      continue;
    }
    const bucket = bucketOf(at(v, 0, 0), at(v, 1, 0), at(v, 2, 0));
    next[v] = heads[bucket];
    heads[bucket] = v;
    place[v] = count++;
  }
  return { place, count };
}

function boundsOf(p: Float32Array, triangles: Uint32Array): { low: number[]; size: number } {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (const v of triangles) {
    for (let k = 0; k < 3; k++) {
      low[k] = Math.min(low[k], p[v * 3 + k]);
      high[k] = Math.max(high[k], p[v * 3 + k]);
    }
  }
  return { low, size: Math.max(...high.map((h, k) => h - low[k])) };
}

function extentOf(p: Float32Array, triangles: Uint32Array, axis: number): number {
  let low = Infinity;
  let high = -Infinity;
  for (const v of triangles) {
    low = Math.min(low, p[v * 3 + axis]);
    high = Math.max(high, p[v * 3 + axis]);
  }
  return high - low;
}

function openAndPieces(triangles: Uint32Array, vertices: number): { open: number; pieces: number } {
  const parent = Uint32Array.from({ length: vertices }, (_, i) => i);
  const root = (v: number): number => {
    let at = v;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at]];
      at = parent[at];
    }
    return at;
  };
  for (let t = 0; t < triangles.length; t += 3) {
    const a = root(triangles[t]);
    parent[root(triangles[t + 1])] = a;
    parent[root(triangles[t + 2])] = a;
  }
  let pieces = 0;
  for (let v = 0; v < vertices; v++) if (parent[v] === v) pieces++;
  return { open: openEdges(triangles, vertices), pieces };
}

function openEdges(triangles: Uint32Array, vertices: number): number {
  const { uses } = edgesOf(triangles, vertices);
  let open = 0;
  for (const n of uses) if (n === 1) open++;
  return open;
}
