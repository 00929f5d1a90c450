/** How an edit changes places or masks: leaf by leaf, keeping a copy of each leaf that really changes. */
import { keepLeaf, LEAF, reserveCopies } from '#core/mesh';
import { noteChanged, type Surface } from '#core/sculpt';

/**
 * `place` writes the new x, y, z of a vertex to `out`, which holds its place as it is; it reads the surface as it was
 * before the edit only through what it was given. Normals and boxes are renewed where something moved.
 */
export function changePlaces(s: Surface, place: (vertex: number, out: Float64Array) => void): void {
  const { mesh, touched } = s;
  const { positions: p, vertexCount } = mesh;
  const next = new Float32Array(LEAF * 3);
  const out = new Float64Array(3);
  let moved = 0;
  reserveCopies(s.start, mesh, mesh.leafCount);
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) {
    const first = leaf * LEAF;
    const own = Math.min(LEAF, vertexCount - first);
    const before = moved;
    for (let i = 0; i < own; i++) {
      const at = (first + i) * 3;
      for (let c = 0; c < 3; c++) out[c] = p[at + c];
      place(first + i, out);
      next.set(out, i * 3);
      if (next[i * 3] !== p[at] || next[i * 3 + 1] !== p[at + 1] || next[i * 3 + 2] !== p[at + 2])
        touched[moved++] = first + i;
    }
    if (moved === before) continue;
    keepLeaf(s.start, mesh, leaf);
    p.set(next.subarray(0, own * 3), first * 3);
  }
  if (moved > 0) s.loops.renew(s, touched, moved);
}

/** `mask` answers the new mask of a vertex, clamped to 0–1 here. */
export function changeMask(s: Surface, mask: (vertex: number, now: number) => number): void {
  const { mesh } = s;
  const { mask: m, vertexCount } = mesh;
  const next = new Float32Array(LEAF);
  reserveCopies(s.start, mesh, mesh.leafCount);
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) {
    const first = leaf * LEAF;
    const own = Math.min(LEAF, vertexCount - first);
    let differs = false;
    for (let i = 0; i < own; i++) {
      const now = m[first + i];
      next[i] = Math.max(0, Math.min(1, mask(first + i, now)));
      differs ||= next[i] !== now;
    }
    if (!differs) continue;
    keepLeaf(s.start, mesh, leaf);
    m.set(next.subarray(0, own), first);
    noteChanged(s, leaf);
  }
}
