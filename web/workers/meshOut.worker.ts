/** Writes meshes as files: GLB, OBJ with groups, STL and PLY, with names and true sizes. */
import * as Comlink from 'comlink';
import { readMesh } from '#core/formats';
import { writeMeshes, type MeshEnding, type OutMesh } from './meshOut';

/** A mesh as core/formats packs it. */
export interface PackedOut extends Omit<OutMesh, 'mesh'> {
  mesh: ArrayBuffer;
}

const api = {
  async write(ending: MeshEnding, things: readonly PackedOut[]): Promise<Uint8Array<ArrayBuffer>> {
    const bytes = await writeMeshes(
      ending,
      things.map(({ mesh, ...thing }) => ({ ...thing, mesh: readMesh(mesh) })),
    );
    return Comlink.transfer(bytes, [bytes.buffer]);
  },
};

export type MeshOutWorker = typeof api;
Comlink.expose(api);
