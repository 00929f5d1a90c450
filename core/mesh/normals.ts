/**
 * Normals: a triangle's is twice its area times its direction, a vertex's the unit sum of its triangles'.
 * Both are pure functions of the positions, so undo gives them back to the byte.
 */
import type { Mesh } from './mesh';

export function faceNormal(mesh: Mesh, triangle: number): void {
  const { positions: p, triangles, faceNormals } = mesh;
  const t = triangle * 3;
  const a = triangles[t]! * 3;
  const b = triangles[t + 1]! * 3;
  const c = triangles[t + 2]! * 3;
  const ax = p[a]!;
  const ay = p[a + 1]!;
  const az = p[a + 2]!;
  const ux = p[b]! - ax;
  const uy = p[b + 1]! - ay;
  const uz = p[b + 2]! - az;
  const vx = p[c]! - ax;
  const vy = p[c + 1]! - ay;
  const vz = p[c + 2]! - az;
  faceNormals[t] = uy * vz - uz * vy;
  faceNormals[t + 1] = uz * vx - ux * vz;
  faceNormals[t + 2] = ux * vy - uy * vx;
}

export function vertexNormal(mesh: Mesh, vertex: number): void {
  const { fanStarts, fans, faceNormals, normals } = mesh;
  let x = 0;
  let y = 0;
  let z = 0;
  for (let k = fanStarts[vertex]!, end = fanStarts[vertex + 1]!; k < end; k++) {
    const t = fans[k]! * 3;
    x += faceNormals[t]!;
    y += faceNormals[t + 1]!;
    z += faceNormals[t + 2]!;
  }
  const length = Math.sqrt(x * x + y * y + z * z);
  const scale = length > 0 ? 1 / length : 0;
  normals[vertex * 3] = x * scale;
  normals[vertex * 3 + 1] = y * scale;
  normals[vertex * 3 + 2] = z * scale;
}

export function allNormals(mesh: Mesh): void {
  for (let t = 0; t < mesh.triangleCount; t++) faceNormal(mesh, t);
  for (let v = 0; v < mesh.vertexCount; v++) vertexNormal(mesh, v);
}
