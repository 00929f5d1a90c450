/**
 * Finds the vertices that a dab touches and their place in it.
 *
 * (u, v, w) = ((p − c)·t, (p − c)·b, (p − c)·n)/r. Inside are √(u² + v²) ≤ 1 (round) or max(|u|, |v|) ≤ 1
 * (square), |w| ≤ reach, and normals not turned away.
 */
import type { DabFrame, ResolvedBrush } from '#core/brush';
import { keepLeaf, LEAF, leavesInSphere, reserveCopies } from '#core/mesh';
import { gatherReach } from '../loops';
import type { Surface } from '../surface';

export function gather(s: Surface, frame: DabFrame, brush: ResolvedBrush, fromStart: boolean): number {
  const { mesh, touched, u: us, v: vs } = s;
  const { normals } = mesh;
  const [cx, cy, cz] = frame.origin.map(r) as [number, number, number];
  const [nx, ny, nz] = frame.normal.map(r) as [number, number, number];
  const [tx, ty, tz] = frame.tangent.map(r) as [number, number, number];
  const [bx, by, bz] = frame.bitangent.map(r) as [number, number, number];
  const inverse = r(1 / frame.radius);
  const { square } = brush;
  const reach = r(brush.reach);
  const found = leavesInSphere(mesh, cx, cy, cz, gatherReach(frame, square, brush.reach), s.leaves);
  reserveCopies(s.start, mesh, found);

  let count = 0;
  for (let i = 0; i < found; i++) {
    const leaf = s.leaves[i];
    const first = leaf * LEAF;
    const end = Math.min(first + LEAF, mesh.vertexCount);
    const copy = fromStart ? s.start.copyAt[leaf] : 0;
    const source = copy !== 0 ? s.start.heap : mesh.positions;
    const shift = copy !== 0 ? (copy >> 2) - first * 3 : 0;
    const before = count;
    for (let vertex = first; vertex < end; vertex++) {
      const at = vertex * 3;
      const dx = r(r(source[at + shift] - cx) * inverse);
      const dy = r(r(source[at + shift + 1] - cy) * inverse);
      const dz = r(r(source[at + shift + 2] - cz) * inverse);
      const u = dot(dx, dy, dz, tx, ty, tz);
      const v = dot(dx, dy, dz, bx, by, bz);
      if (square ? Math.abs(u) > 1 || Math.abs(v) > 1 : r(r(u * u) + r(v * v)) > 1) continue;
      if (Math.abs(dot(dx, dy, dz, nx, ny, nz)) > reach) continue;
      if (dot(normals[at], normals[at + 1], normals[at + 2], nx, ny, nz) <= 0) continue;
      touched[count] = vertex;
      us[count] = u;
      vs[count] = v;
      count++;
    }
    if (count > before) keepLeaf(s.start, mesh, leaf);
  }
  s.touchedCount = count;
  return count;
}

/** Four vertices are worked on at a time in compiled loops, in float32; so they are here. */
const r = Math.fround;

function dot(ax: number, ay: number, az: number, bx: number, by: number, bz: number): number {
  return r(r(r(ax * bx) + r(ay * by)) + r(az * bz));
}
