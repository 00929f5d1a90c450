/** The span of one change of a surface: begin, put back, end with what undo needs. */
import { forget, LEAF, putBack, takeAway, type Before } from '#core/mesh';
import type { Surface } from './surface';

export type { Before };

export function beginSpan(s: Surface, changesMask: boolean): void {
  forget(s.start);
  s.changesMask = changesMask;
}

/** Puts the surface back to the span's beginning; the span goes on. */
export function rewindSpan(s: Surface): void {
  putBack(s.start, s.mesh, s.changesMask);
  const leaves = s.start.leaves.slice(0, s.start.count);
  forget(s.start);
  renewLeaves(s, leaves);
}

export function endSpan(s: Surface): Before {
  const before = takeAway(s.start, s.changesMask);
  forget(s.start);
  // Boxes held both surfaces while the stroke ran; now they are drawn in. Ascending, so that the climb meets each node once.
  s.leaves.set(before.leaves.slice().sort());
  s.loops.refit(s, before.leaves.length);
  return before;
}

/** Puts leaves back as they were, to the byte. */
export function restore(s: Surface, before: Before): void {
  const { positions, mask, vertexCount } = s.mesh;
  for (let i = 0; i < before.leaves.length; i++) {
    const first = before.leaves[i]! * LEAF;
    const own = Math.min(LEAF, vertexCount - first);
    positions.set(before.positions.subarray(i * LEAF * 3, (i * LEAF + own) * 3), first * 3);
    if (before.mask) mask.set(before.mask.subarray(i * LEAF, i * LEAF + own), first);
  }
  renewLeaves(s, before.leaves);
}

/** The same leaves as they stand now. */
export function takeLeaves(s: Surface, like: Before): Before {
  const { positions, mask, vertexCount } = s.mesh;
  const out: Before = { leaves: like.leaves, positions: new Float32Array(like.positions.length), mask: like.mask && new Float32Array(like.mask.length) };
  like.leaves.forEach((leaf, i) => {
    const first = leaf * LEAF;
    const own = Math.min(LEAF, vertexCount - first);
    out.positions.set(positions.subarray(first * 3, (first + own) * 3), i * LEAF * 3);
    out.mask?.set(mask.subarray(first, first + own), i * LEAF);
  });
  return out;
}

export function bytesOf(before: Before): number {
  return before.leaves.byteLength + before.positions.byteLength + (before.mask?.byteLength ?? 0);
}

/** Renews round every vertex of the leaves listed. */
export function renewLeaves(s: Surface, leaves: Uint32Array): void {
  const { touched, mesh } = s;
  let n = 0;
  for (const leaf of leaves) {
    const first = leaf * LEAF;
    const end = Math.min(first + LEAF, mesh.vertexCount);
    for (let v = first; v < end; v++) touched[n++] = v;
  }
  s.loops.renew(s, touched, n);
}
