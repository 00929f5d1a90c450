/** The span of one stroke on a surface: begin, put back, end with what undo needs. */
import { forget, LEAF, putBack, refitLeaves, takeAway } from '#core/mesh';
import { renewLeaves } from './renew';
import type { Surface } from './surface';

/** Leaves as they stood before a stroke. */
export interface Before {
  leaves: Uint32Array;
  positions: Float32Array;
}

export function beginSpan(s: Surface): void {
  forget(s.start);
  s.strongest.fill(0);
}

/** Puts the surface back to the stroke's beginning; the stroke goes on. */
export function rewindSpan(s: Surface): void {
  putBack(s.start, s.mesh);
  const { leaves, count } = s.start;
  forget(s.start);
  renewLeaves(s, leaves, count);
  s.strongest.fill(0);
}

export function endSpan(s: Surface): Before {
  const before = takeAway(s.start);
  forget(s.start);
  // Boxes held both surfaces while the stroke ran; now they are drawn in. Ascending, as the refit climbs in order.
  refitLeaves(s.mesh, before.leaves.slice().sort(), before.leaves.length, s.nodes, s.start);
  return before;
}

/** Puts leaves back as they were, to the byte. */
export function restore(s: Surface, before: Before): void {
  const words = LEAF * 3;
  const { positions, vertexCount } = s.mesh;
  for (let i = 0; i < before.leaves.length; i++) {
    const at = before.leaves[i]! * words;
    positions.set(before.positions.subarray(i * words, i * words + Math.min(words, vertexCount * 3 - at)), at);
  }
  renewLeaves(s, before.leaves, before.leaves.length);
}

export function bytesOf(before: Before): number {
  return before.leaves.byteLength + before.positions.byteLength;
}
