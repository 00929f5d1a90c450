/** What is asked of the sculpting worker about parts that are set down and still separate. */
import * as Comlink from 'comlink';
import { packMesh } from '#core/formats';
import type { RawMesh } from '#core/mesh';
import type { PieceChange } from '#core/scene';
import type { SculptOrders } from './sculptOrders';

export class PieceOrders {
  /** Meshes of pieces that the worker has. */
  private readonly sentMeshes = new Set<string>();

  constructor(private readonly o: SculptOrders) {}

  /** Pieces become others; one step of history. */
  change(changes: readonly PieceChange[]): Promise<void> {
    const sent = changes.map(([id, piece]): PieceChange => [id, piece && { ...piece }]);
    return this.o.changing(() => this.o.worker.changePieces(sent));
  }

  /** Makes the meshes of pieces known to the worker, so that strokes can go on them. */
  know(hashes: Iterable<string>, meshOf: (hash: string) => Promise<RawMesh>): Promise<void> {
    const wanted = [...new Set(hashes)];
    return this.o.give(async () => {
      for (const hash of wanted.filter((one) => !this.sentMeshes.has(one))) {
        const bytes = packMesh(await meshOf(hash));
        await this.o.worker.sendPieceMesh(hash, Comlink.transfer(bytes, [bytes]));
        this.sentMeshes.add(hash);
      }
    });
  }

  /** The body as it is sculpted, as kept bytes, for pieces to be merged into it. */
  handOut(): Promise<ArrayBuffer> {
    return this.o.give(() => this.o.worker.handOut());
  }

  /** These pieces became part of the body that was handed out. Fails with a sentence when it was worked on since. */
  merge(ids: readonly string[], mesh: ArrayBuffer): Promise<void> {
    const sent = [...ids];
    return this.o.changing(() => this.o.worker.mergePieces(sent, Comlink.transfer(mesh, [mesh])));
  }
}
