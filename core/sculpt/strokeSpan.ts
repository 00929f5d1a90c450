/** The span of one change of a surface: begin, put back, end with what undo needs. */
import { forget, LEAF, leavesBefore, type Before } from '#core/mesh';
import { noteChanged, type Surface } from './surface';

export type { Before };

/** `keepsNormals` where dabs look at the normals that the surface began with. */
export function beginSpan(s: Surface, changesMask: boolean, keepsNormals = false): void {
  forget(s.start);
  s.changesMask = changesMask;
  s.keepsNormals = keepsNormals;
}

/** Puts the surface back to the span's beginning; the span goes on. */
export function rewindSpan(s: Surface): void {
  restore(s, endSpan(s));
}

export function endSpan(s: Surface): Before {
  const before = leavesBefore(s.start, s.changesMask);
  forget(s.start);
  // Boxes held both surfaces while the stroke ran; now they are drawn in. Ascending, so that the climb meets each node
  // once.
  s.leaves.set(before.leaves.slice().sort());
  s.loops.refit(s, before.leaves.length);
  return before;
}

/** Puts leaves back as they were, to the byte. Costs most where places really differ. */
export function restore(s: Surface, before: Before): void {
  const { touched, mesh } = s;
  const { positions: p, mask, vertexCount } = mesh;
  const { leaves, positions: stood } = before;
  let moved = 0;
  for (let i = 0; i < leaves.length; i++) {
    const first = leaves[i] * LEAF;
    const own = Math.min(LEAF, vertexCount - first);
    const from = i * LEAF * 3;
    for (let k = 0, at = first * 3, was = from; k < own; k++, at += 3, was += 3) {
      if (p[at] !== stood[was] || p[at + 1] !== stood[was + 1] || p[at + 2] !== stood[was + 2])
        touched[moved++] = first + k;
    }
    p.set(stood.subarray(from, from + own * 3), first * 3);
    if (!before.mask) continue;
    mask.set(before.mask.subarray(i * LEAF, i * LEAF + own), first);
    noteChanged(s, leaves[i]);
  }
  if (moved > 0) s.loops.renew(s, touched, moved);
}

/** The same leaves as they stand now. */
export function copyLeaves(s: Surface, like: Before): Before {
  const { positions, mask, vertexCount } = s.mesh;
  const out: Before = {
    leaves: like.leaves,
    positions: new Float32Array(like.positions.length),
    mask: like.mask && new Float32Array(like.mask.length),
  };
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
