/**
 * Copies of leaves as they stood at some moment, taken the first time each is touched: the surface at the stroke's
 * beginning, for undo, Even, and stamps not yet released. Costs what was touched, never what the mesh weighs.
 *
 * Records lie in the mesh's room, so that compiled loops read and write them:
 * 256 × 3 places, 256 strongest displacements, 256 masks, 256 × 3 normals, 6 of the box, 2 unused; float32.
 */
import { allocate, allocateWords } from '#core/memory';
import { LEAF, LEAF_SHIFT } from './layout';
import type { Mesh } from './mesh';
import { faceNormal } from './normals';
import type { Hit } from './pick';

export const COPY_PLACES = 0;
export const COPY_STRONGEST = LEAF * 3;
export const COPY_MASK = LEAF * 4;
export const COPY_NORMALS = LEAF * 5;
export const COPY_BOX = LEAF * 8;
export const COPY_WORDS = LEAF * 8 + 8;

export interface LeafCopies {
  /** Address of each leaf's record, 0 where there is none. */
  copyAt: Uint32Array;
  /** Leaves copied, in the order in which they came. */
  leaves: Uint32Array;
  /** Addresses of records that may be used; the first `count` are. */
  records: Uint32Array;
  count: number;
  reserved: number;
  /** The whole room as float32; made anew when it grows. */
  heap: Float32Array;
}

const RECORDS_AT_ONCE = 32;

export function leafCopies(mesh: Mesh): LeafCopies {
  const words = (): Uint32Array => allocateWords(mesh.room, mesh.leafCount);
  return {
    copyAt: words(),
    leaves: words(),
    records: words(),
    count: 0,
    reserved: 0,
    heap: new Float32Array(mesh.room.memory.buffer),
  };
}

/** Makes sure that `more` leaves can be kept without taking memory. */
export function reserveCopies(copies: LeafCopies, mesh: Mesh, more: number): void {
  const wanted = Math.min(mesh.leafCount, copies.count + more);
  while (copies.reserved < wanted) {
    const count = Math.min(RECORDS_AT_ONCE, mesh.leafCount - copies.reserved);
    const { at } = allocate(mesh.room, count * COPY_WORDS * 4);
    for (let i = 0; i < count; i++) copies.records[copies.reserved++] = at + i * COPY_WORDS * 4;
  }
  const { buffer } = mesh.room.memory;
  if (copies.heap.buffer !== buffer) copies.heap = new Float32Array(buffer);
}

/** Copies the leaf unless it is already copied. A record must be reserved. */
export function keepLeaf(copies: LeafCopies, mesh: Mesh, leaf: number): void {
  if (copies.copyAt[leaf] !== 0) return;
  const at = copies.records[copies.count];
  copies.leaves[copies.count++] = leaf;
  copies.copyAt[leaf] = at;
  const { heap } = copies;
  const word = at >> 2;
  const first = leaf * LEAF;
  const end = Math.min(first + LEAF, mesh.vertexCount);
  heap.set(mesh.positions.subarray(first * 3, end * 3), word + COPY_PLACES);
  heap.fill(0, word + COPY_STRONGEST, word + COPY_STRONGEST + LEAF);
  heap.set(mesh.mask.subarray(first, end), word + COPY_MASK);
  heap.set(mesh.normals.subarray(first * 3, end * 3), word + COPY_NORMALS);
  const box = (mesh.leafBase + leaf) * 6;
  heap.set(mesh.boxes.subarray(box, box + 6), word + COPY_BOX);
}

export function forget(copies: LeafCopies): void {
  for (let i = 0; i < copies.count; i++) copies.copyAt[copies.leaves[i]] = 0;
  copies.count = 0;
}

/** Leaves as they stood, in arrays of their own. */
export interface Before {
  leaves: Uint32Array;
  /** 768 words a leaf. */
  positions: Float32Array;
  /** 256 words a leaf; null when no mask changed. */
  mask: Float32Array | null;
}

export function leavesBefore(copies: LeafCopies, withMask: boolean): Before {
  const { count, heap } = copies;
  const out: Before = {
    leaves: copies.leaves.slice(0, count),
    positions: new Float32Array(count * LEAF * 3),
    mask: withMask ? new Float32Array(count * LEAF) : null,
  };
  for (let i = 0; i < count; i++) {
    const word = copies.copyAt[copies.leaves[i]] >> 2;
    out.positions.set(heap.subarray(word + COPY_PLACES, word + COPY_PLACES + LEAF * 3), i * LEAF * 3);
    out.mask?.set(heap.subarray(word + COPY_MASK, word + COPY_MASK + LEAF), i * LEAF);
  }
  return out;
}

/** Where vertex v stood: index into `copies.heap`, or −1 where it hasn't been copied. */
export function wordBefore(copies: LeafCopies, vertex: number): number {
  const at = copies.copyAt[vertex >> LEAF_SHIFT];
  return at === 0 ? -1 : (at >> 2) + COPY_PLACES + (vertex & (LEAF - 1)) * 3;
}

/** The point of the surface as it stood that is now at the hit: the same place in the same triangle. */
export function pointBefore(copies: LeafCopies, mesh: Mesh, hit: Hit): readonly [number, number, number] {
  const { positions: p, triangles } = mesh;
  const t = hit.triangle * 3;
  const corners = [triangles[t], triangles[t + 1], triangles[t + 2]];
  if (copies.count === 0 || corners.every((v) => copies.copyAt[v >> LEAF_SHIFT] === 0)) return [hit.x, hit.y, hit.z];
  const n = faceNormal(mesh, hit.triangle);
  const area = n[0] * n[0] + n[1] * n[1] + n[2] * n[2];
  // Barycentric weight of each corner: the share of the area opposite it.
  const weights = corners.map((_, k) => {
    const b = corners[(k + 1) % 3] * 3;
    const c = corners[(k + 2) % 3] * 3;
    const ux = p[b] - hit.x;
    const uy = p[b + 1] - hit.y;
    const uz = p[b + 2] - hit.z;
    const vx = p[c] - hit.x;
    const vy = p[c + 1] - hit.y;
    const vz = p[c + 2] - hit.z;
    return area > 0
      ? ((uy * vz - uz * vy) * n[0] + (uz * vx - ux * vz) * n[1] + (ux * vy - uy * vx) * n[2]) / area
      : 1 / 3;
  });
  const out: [number, number, number] = [0, 0, 0];
  corners.forEach((vertex, k) => {
    const word = wordBefore(copies, vertex);
    for (let c = 0; c < 3; c++) out[c] = out[c] + weights[k] * (word < 0 ? p[vertex * 3 + c] : copies.heap[word + c]);
  });
  return out;
}

/** Twice the area times the unit normal of a triangle as it stood. */
export function faceBefore(mesh: Mesh, triangle: number, copies: LeafCopies): readonly [number, number, number] {
  const t = triangle * 3;
  const corner = (k: number): readonly [number, number, number] => {
    const vertex = mesh.triangles[t + k];
    const word = wordBefore(copies, vertex);
    const [from, at] = word < 0 ? [mesh.positions, vertex * 3] : [copies.heap, word];
    return [from[at], from[at + 1], from[at + 2]];
  };
  const a = corner(0);
  const b = corner(1);
  const c = corner(2);
  const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
  const v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]] as const;
  return [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
}
