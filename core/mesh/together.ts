/** Several meshes as one: the vertices of each behind those of the one before it. What they carry is left behind. */
import type { RawMesh } from './mesh';

export function together(meshes: readonly RawMesh[]): RawMesh {
  const sum = (of: (mesh: RawMesh) => number): number => meshes.reduce((all, mesh) => all + of(mesh), 0);
  const positions = new Float32Array(sum((mesh) => mesh.positions.length));
  const triangles = new Uint32Array(sum((mesh) => mesh.triangles.length));
  let [first, at] = [0, 0];
  for (const mesh of meshes) {
    positions.set(mesh.positions, first * 3);
    for (const v of mesh.triangles) triangles[at++] = v + first;
    first += mesh.positions.length / 3;
  }
  return { positions, triangles };
}
