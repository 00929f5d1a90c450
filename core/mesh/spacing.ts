/** Mean distance from vertex to vertex, body units, from the surface's area. O(triangles). */
import type { Mesh } from './mesh';

export function meanSpacing(mesh: Mesh): number {
  let area = 0;
  for (let t = 0; t < mesh.triangleCount * 3; t += 3) {
    area += Math.hypot(mesh.faceNormals[t]!, mesh.faceNormals[t + 1]!, mesh.faceNormals[t + 2]!) / 2;
  }
  return Math.sqrt(area / mesh.vertexCount);
}
