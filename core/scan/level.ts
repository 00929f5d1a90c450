/** How the surface round a place lies: the mean of its faces, weighted by their area. */
import { faceNormal, type MeshArrays } from '#core/mesh';
import { unit, type Vec3 } from '#core/vector';

/**
 * Unit normal of the faces within `radius` of a place that are turned like the surface there. `toward` is the normal of
 * the face that was pointed at. O(triangles of the leaves near it).
 */
export function levelNormal(mesh: MeshArrays, at: Vec3, toward: Vec3, radius: number): Vec3 {
  const { positions: p, triangles, boxes, leafBase } = mesh;
  const sum = [0, 0, 0];
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) {
    const box = (leafBase + leaf) * 6;
    let apart = 0;
    for (let k = 0; k < 3; k++) apart += Math.max(boxes[box + k] - at[k], 0, at[k] - boxes[box + 3 + k]) ** 2;
    if (apart > radius * radius) continue;
    for (let t = mesh.leafTriangles[leaf]; t < mesh.leafTriangles[leaf + 1]; t++) {
      let far = 0;
      for (let k = 0; k < 3; k++) {
        const middle =
          (p[triangles[t * 3] * 3 + k] + p[triangles[t * 3 + 1] * 3 + k] + p[triangles[t * 3 + 2] * 3 + k]) / 3;
        far += (middle - at[k]) ** 2;
      }
      if (far > radius * radius) continue;
      const n = faceNormal(mesh, t);
      if (n[0] * toward[0] + n[1] * toward[1] + n[2] * toward[2] <= 0) continue;
      for (let k = 0; k < 3; k++) sum[k] += n[k];
    }
  }
  return Math.hypot(...sum) > 0 ? unit([sum[0], sum[1], sum[2]]) : toward;
}
