/**
 * A mesh with nothing but its places and triangles, and no vertex that no triangle names. Triangles that lie on each
 * other back to back, as collapsing leaves them, cancel out. O(triangles).
 */
import type { RawMesh } from '#core/mesh';

export function cleaned(mesh: RawMesh): RawMesh {
  const { positions } = mesh;
  const triangles = withoutFlaps(mesh.triangles);
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

function withoutFlaps(triangles: Uint32Array): Uint32Array {
  /** Of each three vertices, the triangles that lie there wound one way and no other. */
  const lying = new Map<string, { winding: number; at: number[] }>();
  const gone = new Uint8Array(triangles.length / 3);
  let count = 0;
  for (let t = 0; t < gone.length; t++) {
    const [a, b, c] = triangles.subarray(t * 3, t * 3 + 3);
    const winding = (a < b ? 1 : -1) * (b < c ? 1 : -1) * (c < a ? 1 : -1);
    const key = [a, b, c].sort((x, y) => x - y).join(' ');
    const there = lying.get(key);
    if (!there || there.at.length === 0) lying.set(key, { winding, at: [t] });
    else if (there.winding === winding) there.at.push(t);
    else {
      gone[t] = gone[there.at.pop()!] = 1;
      count += 2;
    }
  }
  return count === 0 ? triangles : triangles.filter((_, i) => gone[Math.floor(i / 3)] === 0);
}
