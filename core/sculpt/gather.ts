/**
 * Finds the vertices that a dab touches and their place in it.
 *
 * (u, v, w) = ((p − c)·t, (p − c)·b, (p − c)·n)/r. Inside are √(u² + v²) ≤ 1 (round) or max(|u|, |v|) ≤ 1
 * (square), |w| ≤ reach, and normals not turned away. With `fromStart`, places are those at the stroke's beginning.
 */
import type { DabFrame, ResolvedBrush } from '#core/brush';
import { keepLeaf, LEAF, leavesInSphere } from '#core/mesh';
import { reserve, type Surface } from './surface';

export function gather(s: Surface, frame: DabFrame, brush: ResolvedBrush, fromStart: boolean): void {
  const { mesh } = s;
  const { normals } = mesh;
  const [cx, cy, cz] = frame.origin;
  const [nx, ny, nz] = frame.normal;
  const [tx, ty, tz] = frame.tangent;
  const [bx, by, bz] = frame.bitangent;
  const inverse = 1 / frame.radius;
  const { reach, square } = brush;
  const rim = square ? Math.SQRT2 : 1;
  const found = leavesInSphere(mesh, cx, cy, cz, frame.radius * Math.sqrt(rim * rim + reach * reach), s.leaves);

  let count = 0;
  for (let i = 0; i < found; i++) {
    const leaf = s.leaves[i]!;
    const first = leaf * LEAF;
    const end = Math.min(first + LEAF, mesh.vertexCount);
    const slot = fromStart ? s.start.slotOf[leaf]! : -1;
    const source = slot >= 0 ? s.start.positions : mesh.positions;
    const shift = slot >= 0 ? (slot * LEAF - first) * 3 : 0;
    reserve(s, count + LEAF);
    const { touched, u: us, v: vs, w: ws } = s;
    const before = count;
    for (let vertex = first; vertex < end; vertex++) {
      const at = vertex * 3;
      const dx = (source[at + shift]! - cx) * inverse;
      const dy = (source[at + shift + 1]! - cy) * inverse;
      const dz = (source[at + shift + 2]! - cz) * inverse;
      const w = dx * nx + dy * ny + dz * nz;
      if (w > reach || w < -reach) continue;
      const u = dx * tx + dy * ty + dz * tz;
      const v = dx * bx + dy * by + dz * bz;
      if (square ? u > 1 || u < -1 || v > 1 || v < -1 : u * u + v * v > 1) continue;
      if (normals[at]! * nx + normals[at + 1]! * ny + normals[at + 2]! * nz <= 0) continue;
      touched[count] = vertex;
      us[count] = u;
      vs[count] = v;
      ws[count] = w;
      count++;
    }
    if (count > before) keepLeaf(s.start, mesh, leaf);
  }
  s.touchedCount = count;
}
