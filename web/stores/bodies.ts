/** Bodies of one's own. */
import { defineStore } from 'pinia';
import { BODY_VERSION, type OwnBody } from '#core/settings';
import { getBlob, putBlob } from '../api/client';
import { waitingBodies, type WaitingBody } from '../api/outbox';
import { useSending } from './sending';

export interface BodyRow {
  id: string;
  name: string;
  triangles: number;
  report: OwnBody['report'];
  /** The mesh's blob; null while the body waits in the browser. */
  mesh: string | null;
}

export const useBodies = defineStore('bodies', () => {
  const sending = useSending<'bodies', WaitingBody, BodyRow>({
    collection: 'bodies',
    box: waitingBodies,
    what: 'body',
    async documentOf({ id, mesh, triangles, report }, name) {
      return {
        version: BODY_VERSION,
        id,
        card: { name, author: '', tags: [], notes: '' },
        mesh: await putBlob(new Uint8Array(mesh)),
        triangles,
        report,
      };
    },
    rowOf: ({ id, name, triangles, report }) => ({ id, name, triangles, report, mesh: null }),
    rowOfStored: ({ id, card, triangles, report, mesh }) => ({ id, name: card.name, triangles, report, mesh }),
  });

  /** The mesh as core/formats packs it. Throws a sentence when it is nowhere. */
  async function meshOf(id: string): Promise<ArrayBuffer> {
    const waits = await waitingBodies.one(id).catch(() => null);
    if (waits) return waits.mesh;
    const row = sending.own.value.find((b) => b.id === id);
    if (!row?.mesh) throw new Error('This body is no longer kept. Open its file again.');
    return getBlob(row.mesh);
  }

  return { ...sending, meshOf };
});
