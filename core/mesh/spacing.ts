/** Mean distance from vertex to vertex, body units, from the surface's area. O(triangles). */
import type { MeshArrays } from './mesh';
import { faceNormal } from './normals';

export function meanSpacing(mesh: MeshArrays): number {
  let area = 0;
  for (let t = 0; t < mesh.triangleCount; t++) {
    const [x, y, z] = faceNormal(mesh, t);
    area += Math.sqrt(x * x + y * y + z * z) / 2;
  }
  return Math.sqrt(area / mesh.vertexCount);
}
