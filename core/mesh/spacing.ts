/** Mean distance from vertex to vertex, body units, from the surface's area. O(triangles). */
import { faceCross } from './faceCross';
import type { MeshArrays } from './mesh';

export function meanSpacing(mesh: MeshArrays): number {
  const { positions: p, triangles } = mesh;
  const n = new Float64Array(3);
  let area = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    faceCross(p, triangles[t], triangles[t + 1], triangles[t + 2], n);
    area += Math.sqrt(n[0] ** 2 + n[1] ** 2 + n[2] ** 2) / 2;
  }
  return Math.sqrt(area / mesh.vertexCount);
}
