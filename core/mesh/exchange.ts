/** Positions in the maker's own order, in which they are stored: independent of how memory is laid out. */
import { fitLeaf, refitAll } from './boxes';
import type { Mesh } from './mesh';
import { allNormals } from './normals';

export function positionsOut(mesh: Mesh): Float32Array {
  const out = new Float32Array(mesh.vertexCount * 3);
  for (let i = 0; i < mesh.vertexCount; i++) {
    const to = mesh.order[i]! * 3;
    out[to] = mesh.positions[i * 3]!;
    out[to + 1] = mesh.positions[i * 3 + 1]!;
    out[to + 2] = mesh.positions[i * 3 + 2]!;
  }
  return out;
}

/** Takes over stored positions; throws when their count differs or one isn't finite, changing nothing. */
export function positionsIn(mesh: Mesh, stored: Float32Array): void {
  if (stored.length !== mesh.vertexCount * 3) {
    throw new Error(`Expected ${mesh.vertexCount} vertices, found ${stored.length / 3}.`);
  }
  for (let i = 0; i < stored.length; i++) {
    if (!Number.isFinite(stored[i]!)) throw new Error(`Vertex ${Math.floor(i / 3)} of ${mesh.vertexCount} is not a number.`);
  }
  for (let i = 0; i < mesh.vertexCount; i++) {
    const from = mesh.order[i]! * 3;
    mesh.positions[i * 3] = stored[from]!;
    mesh.positions[i * 3 + 1] = stored[from + 1]!;
    mesh.positions[i * 3 + 2] = stored[from + 2]!;
  }
  allNormals(mesh);
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) fitLeaf(mesh, leaf);
  refitAll(mesh);
}
