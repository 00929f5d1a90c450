/**
 * Normals of the vertices: the unit sum of twice the area times the direction of the triangles round each, walked as
 * the ring is. A pure function of the positions, so undo gives them back to the byte.
 */
import { faceCross } from './faceCross';
import { RING_BREAK, RING_VERTEX, type MeshArrays } from './mesh';

export function vertexNormal(mesh: MeshArrays, vertex: number): void {
  const { positions: p, ringStarts, rings, normals } = mesh;
  const at = vertex * 3;
  const px = p[at];
  const py = p[at + 1];
  const pz = p[at + 2];
  let x = 0;
  let y = 0;
  let z = 0;
  let ax = 0;
  let ay = 0;
  let az = 0;
  const first = ringStarts[vertex];
  for (let k = first, end = ringStarts[vertex + 1]; k < end; k++) {
    const word = rings[k];
    const b = (word & RING_VERTEX) * 3;
    const bx = r(p[b] - px);
    const by = r(p[b + 1] - py);
    const bz = r(p[b + 2] - pz);
    if (k > first && word < RING_BREAK) {
      x = r(x + r(r(ay * bz) - r(az * by)));
      y = r(y + r(r(az * bx) - r(ax * bz)));
      z = r(z + r(r(ax * by) - r(ay * bx)));
    }
    ax = bx;
    ay = by;
    az = bz;
  }
  const length = r(Math.sqrt(r(r(r(x * x) + r(y * y)) + r(z * z))));
  const scale = length > 0 ? r(1 / length) : 0;
  normals[at] = x * scale;
  normals[at + 1] = y * scale;
  normals[at + 2] = z * scale;
}

/** Float32 throughout, as the compiled loop works. */
const r = Math.fround;

export function allNormals(mesh: MeshArrays): void {
  for (let v = 0; v < mesh.vertexCount; v++) vertexNormal(mesh, v);
}

/** The same without rings: every triangle adds to its three vertices. O(triangles). */
export function normalsOfFaces({
  positions: p,
  triangles,
  normals,
  vertexCount,
}: Pick<MeshArrays, 'positions' | 'triangles' | 'normals' | 'vertexCount'>): void {
  normals.fill(0);
  for (let i = 0; i < triangles.length; i += 3) {
    const a = triangles[i] * 3;
    const b = triangles[i + 1] * 3;
    const c = triangles[i + 2] * 3;
    const ux = p[b] - p[a];
    const uy = p[b + 1] - p[a + 1];
    const uz = p[b + 2] - p[a + 2];
    const vx = p[c] - p[a];
    const vy = p[c + 1] - p[a + 1];
    const vz = p[c + 2] - p[a + 2];
    const x = uy * vz - uz * vy;
    const y = uz * vx - ux * vz;
    const z = ux * vy - uy * vx;
    normals[a] += x;
    normals[a + 1] += y;
    normals[a + 2] += z;
    normals[b] += x;
    normals[b + 1] += y;
    normals[b + 2] += z;
    normals[c] += x;
    normals[c + 1] += y;
    normals[c + 2] += z;
  }
  for (let i = 0; i < vertexCount * 3; i += 3) {
    const length = Math.sqrt(normals[i] ** 2 + normals[i + 1] ** 2 + normals[i + 2] ** 2);
    const scale = length > 0 ? 1 / length : 0;
    normals[i] *= scale;
    normals[i + 1] *= scale;
    normals[i + 2] *= scale;
  }
}

const FACE = new Float64Array(3);

/** Twice the area times the unit normal of a triangle. */
export function faceNormal(
  mesh: Pick<MeshArrays, 'positions' | 'triangles'>,
  triangle: number,
): readonly [number, number, number] {
  const { positions: p, triangles } = mesh;
  faceCross(p, triangles[triangle * 3], triangles[triangle * 3 + 1], triangles[triangle * 3 + 2], FACE);
  return [FACE[0], FACE[1], FACE[2]];
}
