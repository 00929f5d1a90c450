/** Merges pieces into a body, or joins them to it, away from the hand that goes on meanwhile. */
import * as Comlink from 'comlink';
import Module from 'manifold-3d';
import wasm from 'manifold-3d/manifold.wasm?url';
import { packMesh, readMesh } from '#core/formats';
import { joinedTo, merged } from '#core/scene';

/** A mesh as core/formats packs it. */
export interface PackedNamed {
  name: string;
  mesh: ArrayBuffer;
}

const unpacked = ({ name, mesh }: PackedNamed) => ({ name, mesh: readMesh(mesh) });

const api = {
  /** Fails with a sentence. `step` is told the share that is done. */
  async merge(body: PackedNamed, pieces: PackedNamed[], step: (share: number) => void): Promise<ArrayBuffer> {
    const kit = await Module({ locateFile: () => wasm });
    kit.setup();
    const out = packMesh(merged(kit, unpacked(body), pieces.map(unpacked), step));
    return Comlink.transfer(out, [out]);
  },
  /** As they are, nothing cut. Fails with a sentence. */
  join(body: PackedNamed, pieces: PackedNamed[]): ArrayBuffer {
    const out = packMesh(joinedTo(unpacked(body), pieces.map(unpacked)));
    return Comlink.transfer(out, [out]);
  },
};

export type MergeWorker = typeof api;
Comlink.expose(api);
