/** Bodies of one's own. */
import { defineStore } from 'pinia';
import { BODY_VERSION, type StoredPainting, type OwnBody } from '#core/settings';
import type { Layer } from '#core/paint';
import { snapshotOfPieces, piecesFrom, type Piece } from '#core/scene';
import { get, getBlob, putBlob } from '../api/client';
import { pendingBodies, type PackedPainting, type PackedSquare, type PendingBody } from '../api/outbox';
import { unpackedLayers } from '../workers/storedPainting';
import { useSending } from './sending';
import { usePreferences } from './preferences';

export interface BodyRow {
  id: string;
  name: string;
  triangles: number;
  report: OwnBody['report'];
  /** How many parts were set down on it. */
  pieces: number;
  painted: boolean;
  /** The mesh's blob; null while the body waits in the browser. */
  mesh: string | null;
}

/** Its squares are stored; one that is there already isn’t stored again. */
async function sentPainting({ size, layers }: PackedPainting): Promise<StoredPainting> {
  const put = async (squares: readonly PackedSquare[]): Promise<{ square: number; blob: string }[]> => {
    const out: { square: number; blob: string }[] = [];
    for (const { square, bytes } of squares) out.push({ square, blob: await putBlob(new Uint8Array(bytes)) });
    return out;
  };
  const stored: StoredPainting['layers'] = [];
  for (const { squares, mask, ...head } of layers)
    stored.push({
      ...head,
      opacity: Math.round(head.opacity * 100),
      squares: await put(squares),
      mask: mask && (await put(mask)),
    });
  return { size: size as StoredPainting['size'], layers: stored };
}

export const useBodies = defineStore('bodies', () => {
  const { author } = usePreferences();
  const sending = useSending<'bodies', PendingBody, BodyRow>({
    collection: 'bodies',
    box: pendingBodies,
    what: 'body',
    async documentOf({ id, mesh, triangles, report, pieces = [], painting = null }, name) {
      const stored = snapshotOfPieces(pieces);
      return {
        version: BODY_VERSION,
        id,
        card: { name, author: author(), tags: [], notes: '' },
        mesh: await putBlob(new Uint8Array(mesh)),
        triangles,
        report,
        pieces: stored.pieces,
        shapes: stored.shapes && (await putBlob(new Uint8Array(stored.shapes.buffer as ArrayBuffer))),
        painting: painting && (await sentPainting(painting)),
      };
    },
    rowOf: ({ id, name, triangles, report, pieces = [], painting }) => ({
      id,
      name,
      triangles,
      report,
      pieces: pieces.length,
      painted: Boolean(painting),
      mesh: null,
    }),
    rowOfStored: ({ id, card, triangles, report, pieces, painted, mesh }) => ({
      id,
      name: card.name,
      triangles,
      report,
      pieces,
      painted,
      mesh,
    }),
  });

  /** The mesh as core/formats packs it. Throws a sentence when it is nowhere. */
  async function meshOf(id: string): Promise<ArrayBuffer> {
    const waits = await pendingBodies.one(id).catch(() => null);
    if (waits) return waits.mesh;
    const row = sending.own.value.find((b) => b.id === id);
    if (!row?.mesh) throw new Error('This body is no longer kept. Open its file again.');
    return getBlob(row.mesh);
  }

  /** The pieces that it came with. */
  async function piecesOf(id: string): Promise<Piece[]> {
    const waits = await pendingBodies.one(id).catch(() => null);
    if (waits) return waits.pieces ?? [];
    if (!sending.own.value.find((b) => b.id === id)?.pieces) return [];
    const { doc } = await get('bodies', id);
    const shapes = doc.shapes ? new Float32Array(await getBlob(doc.shapes)) : null;
    return piecesFrom({ pieces: doc.pieces, shapes });
  }

  /** What is painted on it; null where nothing is. */
  async function paintingOf(id: string): Promise<{ size: number; layers: Layer[] } | null> {
    const waits = await pendingBodies.one(id).catch(() => null);
    const packed = waits ? (waits.painting ?? null) : await storedPainting(id);
    return packed && { size: packed.size, layers: await unpackedLayers(packed) };
  }

  async function storedPainting(id: string): Promise<PackedPainting | null> {
    if (!sending.own.value.find((b) => b.id === id)?.painted) return null;
    const { painting } = (await get('bodies', id)).doc;
    if (!painting) return null;
    const fetched = (squares: readonly { square: number; blob: string }[]): Promise<PackedSquare[]> =>
      Promise.all(squares.map(async ({ square, blob }) => ({ square, bytes: await getBlob(blob) })));
    const layers = painting.layers.map(async ({ squares, mask, ...head }) => ({
      ...head,
      opacity: head.opacity / 100,
      squares: await fetched(squares),
      mask: mask && (await fetched(mask)),
    }));
    return { size: painting.size, layers: await Promise.all(layers) };
  }

  return { ...sending, meshOf, piecesOf, paintingOf };
});
