/** Bodies of one's own. */
import { defineStore } from 'pinia';
import { BODY_VERSION, type OwnBody } from '#core/settings';
import { keptPieces, piecesFrom, type Piece } from '#core/scene';
import { get, getBlob, putBlob } from '../api/client';
import { waitingBodies, type WaitingBody } from '../api/outbox';
import { useSending } from './sending';

export interface BodyRow {
  id: string;
  name: string;
  triangles: number;
  report: OwnBody['report'];
  /** How many parts were set down on it. */
  pieces: number;
  /** The mesh's blob; null while the body waits in the browser. */
  mesh: string | null;
}

export const useBodies = defineStore('bodies', () => {
  const sending = useSending<'bodies', WaitingBody, BodyRow>({
    collection: 'bodies',
    box: waitingBodies,
    what: 'body',
    async documentOf({ id, mesh, triangles, report, pieces = [] }, name) {
      const kept = keptPieces(pieces);
      return {
        version: BODY_VERSION,
        id,
        card: { name, author: '', tags: [], notes: '' },
        mesh: await putBlob(new Uint8Array(mesh)),
        triangles,
        report,
        pieces: kept.pieces,
        shapes: kept.shapes && (await putBlob(new Uint8Array(kept.shapes.buffer as ArrayBuffer))),
      };
    },
    rowOf: ({ id, name, triangles, report, pieces = [] }) => ({
      id,
      name,
      triangles,
      report,
      pieces: pieces.length,
      mesh: null,
    }),
    rowOfStored: ({ id, card, triangles, report, pieces, mesh }) => ({
      id,
      name: card.name,
      triangles,
      report,
      pieces,
      mesh,
    }),
  });

  /** The mesh as core/formats packs it. Throws a sentence when it is nowhere. */
  async function meshOf(id: string): Promise<ArrayBuffer> {
    const waits = await waitingBodies.one(id).catch(() => null);
    if (waits) return waits.mesh;
    const row = sending.own.value.find((b) => b.id === id);
    if (!row?.mesh) throw new Error('This body is no longer kept. Open its file again.');
    return getBlob(row.mesh);
  }

  /** The pieces that it came with. */
  async function piecesOf(id: string): Promise<Piece[]> {
    const waits = await waitingBodies.one(id).catch(() => null);
    if (waits) return waits.pieces ?? [];
    if (!sending.own.value.find((b) => b.id === id)?.pieces) return [];
    const { doc } = await get('bodies', id);
    const shapes = doc.shapes ? new Float32Array(await getBlob(doc.shapes)) : null;
    return piecesFrom({ pieces: doc.pieces, shapes });
  }

  return { ...sending, meshOf, piecesOf };
});
