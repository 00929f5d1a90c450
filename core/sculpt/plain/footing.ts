import type { Vec3 } from '#core/brush';
import { faceBefore, leavesInSphere, wordBefore } from '#core/mesh';
import type { Surface } from '../surface';

export function footing(s: Surface, triangle: number, at: Vec3, reach: number): Vec3 {
  const { mesh, start } = s;
  const struck = faceBefore(mesh, triangle, start);
  const count = leavesInSphere(mesh, at[0], at[1], at[2], reach, s.leaves);
  let x = 0;
  let y = 0;
  let z = 0;
  for (let i = 0; i < count; i++) {
    const leaf = s.leaves[i];
    for (let t = mesh.leafTriangles[leaf], end = mesh.leafTriangles[leaf + 1]; t < end; t++) {
      const [dx, dy, dz] = [0, 1, 2].map((c) => centroid(s, t, c) - at[c]) as [number, number, number];
      if (dx * dx + dy * dy + dz * dz > reach * reach) continue;
      const n = faceBefore(mesh, t, start);
      if (n[0] * struck[0] + n[1] * struck[1] + n[2] * struck[2] <= 0) continue;
      x += n[0];
      y += n[1];
      z += n[2];
    }
  }
  return [x, y, z];
}

function centroid(s: Surface, triangle: number, axis: number): number {
  const [a, b, c] = [0, 1, 2].map((k) => {
    const vertex = s.mesh.triangles[triangle * 3 + k];
    const word = wordBefore(s.start, vertex);
    return word < 0 ? s.mesh.positions[vertex * 3 + axis] : s.start.heap[word + axis];
  }) as [number, number, number];
  return a + (b - a + (c - a)) / 3;
}
