/** Positions in the maker's own order, in which they are stored: independent of how memory is laid out. */
import { fitLeaf, refitAll } from './boxes';
import { checkPlaces } from './build';
import type { MeshArrays } from './mesh';
import { allNormals } from './normals';

export function positionsOut(mesh: MeshArrays): Float32Array {
  const out = new Float32Array(mesh.vertexCount * 3);
  for (let i = 0; i < mesh.vertexCount; i++) {
    const to = mesh.order[i] * 3;
    out[to] = mesh.positions[i * 3];
    out[to + 1] = mesh.positions[i * 3 + 1];
    out[to + 2] = mesh.positions[i * 3 + 2];
  }
  return out;
}

/** Masks in the maker's own order. */
export function maskOut(mesh: MeshArrays): Float32Array {
  const out = new Float32Array(mesh.vertexCount);
  for (let i = 0; i < mesh.vertexCount; i++) out[mesh.order[i]] = mesh.mask[i];
  return out;
}

/** Takes over stored masks; throws when their count differs. Values outside 0–1 are clamped. */
export function maskIn(mesh: MeshArrays, stored: Float32Array): void {
  if (stored.length !== mesh.vertexCount)
    throw new Error(`Expected masks of ${mesh.vertexCount} vertices, found ${stored.length}.`);
  for (let i = 0; i < mesh.vertexCount; i++) {
    const m = stored[mesh.order[i]];
    mesh.mask[i] = m > 0 ? Math.min(1, m) : 0;
  }
}

/** Takes over stored positions; throws when their count differs or one isn't finite, changing nothing. */
export function positionsIn(mesh: MeshArrays, stored: Float32Array): void {
  checkPlaces(stored, mesh.vertexCount);
  for (let i = 0; i < mesh.vertexCount; i++) {
    const from = mesh.order[i] * 3;
    mesh.positions[i * 3] = stored[from];
    mesh.positions[i * 3 + 1] = stored[from + 1];
    mesh.positions[i * 3 + 2] = stored[from + 2];
  }
  allNormals(mesh);
  for (let leaf = 0; leaf < mesh.leafCount; leaf++) fitLeaf(mesh, leaf);
  refitAll(mesh);
}
