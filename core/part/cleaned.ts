/** A mesh with nothing but its places and triangles, and no vertex that no triangle names. O(triangles). */
import type { RawMesh } from '#core/mesh';

export function cleaned({ positions, triangles }: RawMesh): RawMesh {
  const number = new Int32Array(positions.length / 3).fill(-1);
  const faces = new Uint32Array(triangles.length);
  let vertices = 0;
  for (let i = 0; i < triangles.length; i++) {
    if (number[triangles[i]] < 0) number[triangles[i]] = vertices++;
    faces[i] = number[triangles[i]];
  }
  const places = new Float32Array(vertices * 3);
  for (let v = 0; v < number.length; v++)
    if (number[v] >= 0) for (let k = 0; k < 3; k++) places[number[v] * 3 + k] = positions[v * 3 + k];
  return { positions: places, triangles: faces };
}
