/** Mean distance from vertex to vertex, body units, from the surface's area. O(triangles). */
import type { MeshArrays } from './mesh';

export function meanSpacing(mesh: MeshArrays): number {
  const { positions: p, triangles } = mesh;
  let area = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const a = triangles[t]! * 3;
    const b = triangles[t + 1]! * 3;
    const c = triangles[t + 2]! * 3;
    const ux = p[b]! - p[a]!;
    const uy = p[b + 1]! - p[a + 1]!;
    const uz = p[b + 2]! - p[a + 2]!;
    const vx = p[c]! - p[a]!;
    const vy = p[c + 1]! - p[a + 1]!;
    const vz = p[c + 2]! - p[a + 2]!;
    const x = uy * vz - uz * vy;
    const y = uz * vx - ux * vz;
    const z = ux * vy - uy * vx;
    area += Math.sqrt(x * x + y * y + z * z) / 2;
  }
  return Math.sqrt(area / mesh.vertexCount);
}
