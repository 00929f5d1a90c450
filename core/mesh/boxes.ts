/**
 * A box tree over the leaves, kept as a complete binary heap: node n has children 2n and 2n + 1.
 * A leaf's box holds its vertices and its triangles, so both picking and gathering read the same boxes.
 */
import { LEAF } from './layout';
import type { MeshArrays } from './mesh';

export function fitLeaf(mesh: MeshArrays, leaf: number): void {
  const { positions: p, strays, strayStarts } = mesh;
  let x0 = Infinity;
  let y0 = Infinity;
  let z0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  let z1 = -Infinity;
  const first = leaf * LEAF;
  const own = Math.min(first + LEAF, mesh.vertexCount) - first;
  const stray = strayStarts[leaf];
  const all = own + strayStarts[leaf + 1] - stray;
  for (let k = 0; k < all; k++) {
    const i = (k < own ? first + k : strays[stray + k - own]) * 3;
    const x = p[i];
    const y = p[i + 1];
    const z = p[i + 2];
    x0 = x < x0 ? x : x0;
    x1 = x > x1 ? x : x1;
    y0 = y < y0 ? y : y0;
    y1 = y > y1 ? y : y1;
    z0 = z < z0 ? z : z0;
    z1 = z > z1 ? z : z1;
  }
  const b = (mesh.leafBase + leaf) * 6;
  mesh.boxes[b] = x0;
  mesh.boxes[b + 1] = y0;
  mesh.boxes[b + 2] = z0;
  mesh.boxes[b + 3] = x1;
  mesh.boxes[b + 4] = y1;
  mesh.boxes[b + 5] = z1;
}

export function refitAll(mesh: MeshArrays): void {
  for (let node = mesh.leafBase - 1; node >= 1; node--) joinChildren(mesh.boxes, node);
}

export function joinChildren(boxes: Float32Array, node: number): void {
  const a = node * 12;
  const b = a + 6;
  const to = node * 6;
  for (let k = 0; k < 3; k++) {
    boxes[to + k] = Math.min(boxes[a + k], boxes[b + k]);
    boxes[to + 3 + k] = Math.max(boxes[a + 3 + k], boxes[b + 3 + k]);
  }
}

/** Writes the leaves whose box meets the sphere into `out`, in ascending order; returns how many. */
export function leavesInSphere(
  mesh: MeshArrays,
  x: number,
  y: number,
  z: number,
  radius: number,
  out: Uint32Array,
): number {
  const { boxes, leafBase } = mesh;
  const stack = QUERY_STACK;
  const r2 = radius * radius;
  let depth = 0;
  let count = 0;
  stack[depth++] = 1;
  while (depth > 0) {
    const node = stack[--depth];
    const b = node * 6;
    const dx = Math.max(boxes[b] - x, 0, x - boxes[b + 3]);
    const dy = Math.max(boxes[b + 1] - y, 0, y - boxes[b + 4]);
    const dz = Math.max(boxes[b + 2] - z, 0, z - boxes[b + 5]);
    // An empty node's box is inside out, its distance infinite.
    if (!(dx * dx + dy * dy + dz * dz <= r2)) continue;
    if (node >= leafBase) out[count++] = node - leafBase;
    else {
      stack[depth++] = node * 2 + 1;
      stack[depth++] = node * 2;
    }
  }
  return count;
}

const QUERY_STACK = new Uint32Array(128);
