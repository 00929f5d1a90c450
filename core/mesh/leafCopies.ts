/**
 * Copies of leaves as they stood at some moment, taken the first time each is touched.
 * One such set is the surface at the stroke's beginning (undo, Even, stamps not yet released), another the
 * what an undo step gives back. Costs what was touched, never what the mesh weighs.
 */
import { LEAF, LEAF_SHIFT } from './layout';
import type { Mesh } from './mesh';
import type { Hit } from './pick';

const WORDS = LEAF * 3;

export interface LeafCopies {
  /** Place of each leaf's copy, −1 where there is none. */
  slotOf: Int32Array;
  leaves: Uint32Array;
  count: number;
  positions: Float32Array;
  /** Each leaf's box when it was copied: min x, y, z, max x, y, z. */
  boxes: Float32Array;
}

export function leafCopies(mesh: Mesh): LeafCopies {
  return {
    slotOf: new Int32Array(mesh.leafCount).fill(-1), leaves: new Uint32Array(16), count: 0, positions: new Float32Array(16 * WORDS),
    boxes: new Float32Array(16 * 6),
  };
}

/** Copies the leaf unless it is already held; returns its slot. */
export function keepLeaf(copies: LeafCopies, mesh: Mesh, leaf: number): number {
  const known = copies.slotOf[leaf]!;
  if (known >= 0) return known;
  const slot = copies.count++;
  if (slot >= copies.leaves.length) grow(copies);
  copies.leaves[slot] = leaf;
  copies.slotOf[leaf] = slot;
  copies.positions.set(mesh.positions.subarray(leaf * WORDS, Math.min(leaf * WORDS + WORDS, mesh.vertexCount * 3)), slot * WORDS);
  const box = (mesh.leafBase + leaf) * 6;
  copies.boxes.set(mesh.boxes.subarray(box, box + 6), slot * 6);
  return slot;
}

/** Puts every held leaf back as it was. Normals and boxes are the caller's to renew. */
export function putBack(copies: LeafCopies, mesh: Mesh): void {
  for (let slot = 0; slot < copies.count; slot++) {
    const at = copies.leaves[slot]! * WORDS;
    const words = Math.min(WORDS, mesh.vertexCount * 3 - at);
    mesh.positions.set(copies.positions.subarray(slot * WORDS, slot * WORDS + words), at);
  }
}

export function forget(copies: LeafCopies): void {
  for (let slot = 0; slot < copies.count; slot++) copies.slotOf[copies.leaves[slot]!] = -1;
  copies.count = 0;
}

/** The held copies in arrays of their own, sized to what they hold. */
export function takeAway(copies: LeafCopies): { leaves: Uint32Array; positions: Float32Array } {
  return { leaves: copies.leaves.slice(0, copies.count), positions: copies.positions.slice(0, copies.count * WORDS) };
}

/** Where vertex v stood: which array and at which index its x lies. */
export function placeBefore(copies: LeafCopies, mesh: Mesh, vertex: number): { from: Float32Array; at: number } {
  const slot = copies.slotOf[vertex >> LEAF_SHIFT]!;
  return slot < 0
    ? { from: mesh.positions, at: vertex * 3 }
    : { from: copies.positions, at: (slot * LEAF + (vertex & (LEAF - 1))) * 3 };
}

/** The point of the surface as it stood that is now at the hit: the same place in the same triangle. */
export function pointBefore(copies: LeafCopies, mesh: Mesh, hit: Hit): readonly [number, number, number] {
  const { positions: p, triangles, faceNormals } = mesh;
  const t = hit.triangle * 3;
  const corners = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
  if (corners.every((v) => copies.slotOf[v >> LEAF_SHIFT]! < 0)) return [hit.x, hit.y, hit.z];
  const n = [faceNormals[t]!, faceNormals[t + 1]!, faceNormals[t + 2]!] as const;
  const area = n[0] * n[0] + n[1] * n[1] + n[2] * n[2];
  // Barycentric weight of each corner: the share of the area opposite it.
  const weights = corners.map((_, k) => {
    const b = corners[(k + 1) % 3]! * 3;
    const c = corners[(k + 2) % 3]! * 3;
    const ux = p[b]! - hit.x;
    const uy = p[b + 1]! - hit.y;
    const uz = p[b + 2]! - hit.z;
    const vx = p[c]! - hit.x;
    const vy = p[c + 1]! - hit.y;
    const vz = p[c + 2]! - hit.z;
    return area > 0 ? ((uy * vz - uz * vy) * n[0] + (uz * vx - ux * vz) * n[1] + (ux * vy - uy * vx) * n[2]) / area : 1 / 3;
  });
  const out: [number, number, number] = [0, 0, 0];
  corners.forEach((vertex, k) => {
    const { from, at } = placeBefore(copies, mesh, vertex);
    for (let c = 0; c < 3; c++) out[c] = out[c]! + weights[k]! * from[at + c]!;
  });
  return out;
}

function grow(copies: LeafCopies): void {
  const double = <T extends Uint32Array | Float32Array>(from: T, to: T): T => {
    to.set(from);
    return to;
  };
  copies.leaves = double(copies.leaves, new Uint32Array(copies.leaves.length * 2));
  copies.positions = double(copies.positions, new Float32Array(copies.positions.length * 2));
  copies.boxes = double(copies.boxes, new Float32Array(copies.boxes.length * 2));
}
