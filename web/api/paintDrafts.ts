/**
 * Paintings that aren’t kept with a body yet, in the browser’s own store, tile by tile, so that they survive a reload
 * or a crash. Each window writes its own; whoever wrote last is what is found, whole and never mixed with another’s.
 *
 * One store holds a head for each body, naming the window’s own token, and under that token each tile. A draft goes in
 * in one transaction: all of it is there, or none.
 */
import { createStore, promisifyRequest, type UseStore } from 'idb-keyval';
import { MOST_SQUARE_BYTES, packSquare, readSquare } from '#core/formats';
import type { Layer, LayerHead } from '#core/paint';
import { committed } from './committed';
import { gunzip, gzip } from './gzip';

interface DraftTile {
  layer: string;
  mask: boolean;
  tile: number;
  words: Uint16Array | null;
}

export interface DraftOfPaint {
  size: number;
  layers: (LayerHead & { masked: boolean })[];
  tiles: DraftTile[];
  whole: boolean;
}

interface Head {
  token: string;
  size: number;
  layers: DraftOfPaint['layers'];
  keptAt: number;
}

const headKey = (body: string): string => `head:${body}`;
const tileKey = (token: string, { layer, mask, tile }: Omit<DraftTile, 'words'>): string =>
  `tile:${token}:${mask ? 'm' : 'c'}:${tile}:${layer}`;
const tilesUnder = (token: string): IDBKeyRange => IDBKeyRange.bound(`tile:${token}:`, `tile:${token};`);

export class PaintDrafts {
  constructor(private readonly store: UseStore = createStore('mold-stamp-paint', 'tiles')) {}

  /**
   * Keeps a draft under the token. Answers false, and keeps nothing, where another window has kept its own painting of
   * this body since: then all of it is to be sent, as a whole.
   */
  async keep(body: string, token: string, draft: DraftOfPaint): Promise<boolean> {
    const packed: [key: string, bytes: ArrayBuffer | null][] = [];
    const small = new Map<Uint16Array, ArrayBuffer>();
    for (const one of draft.tiles) {
      const bytes = one.words && (small.get(one.words) ?? (await gzip(packSquare(new Map([[0, one.words]])))));
      if (one.words && bytes) small.set(one.words, bytes);
      packed.push([tileKey(token, one), bytes]);
    }
    const head: Head = { token, size: draft.size, layers: draft.layers, keptAt: Date.now() };
    return this.store('readwrite', async (store) => {
      const before = (await promisifyRequest(store.get(headKey(body)))) as Head | undefined;
      if (!draft.whole && before?.token !== token) return false;
      if (before && draft.whole) store.delete(tilesUnder(before.token));
      for (const [key, bytes] of packed) {
        if (bytes) store.put(bytes, key);
        else store.delete(key);
      }
      store.put(head, headKey(body));
      await committed(store);
      return true;
    });
  }

  /** The painting of a body as it was kept last; null where there is none. Tiles that are broken are left out. */
  async read(body: string): Promise<{ size: number; layers: Layer[] } | null> {
    const found = await this.store('readonly', async (store) => {
      const head = (await promisifyRequest(store.get(headKey(body)))) as Head | undefined;
      if (!head) return null;
      const range = tilesUnder(head.token);
      const [keys, values] = await Promise.all([
        promisifyRequest(store.getAllKeys(range)),
        promisifyRequest(store.getAll(range)),
      ]);
      return { head, keys, values: values as ArrayBuffer[] };
    });
    if (!found) return null;
    const { head, keys, values } = found;
    const layers = head.layers.map(({ masked, ...own }): Layer => ({
      ...own,
      tiles: new Map(),
      mask: masked ? new Map() : null,
    }));
    for (const [i, key] of keys.entries()) {
      const [, , kind, tile, ...rest] = String(key).split(':');
      const layer = layers.find(({ id }) => id === rest.join(':'));
      const into = kind === 'm' ? layer?.mask : layer?.tiles;
      const words = await gunzip(values[i], MOST_SQUARE_BYTES)
        .then((bytes) => readSquare(bytes).get(0))
        .catch(() => undefined);
      if (into && words) into.set(Number(tile), words);
    }
    return { size: head.size, layers };
  }

  async drop(body: string): Promise<void> {
    await this.store('readwrite', async (store) => {
      const before = (await promisifyRequest(store.get(headKey(body)))) as Head | undefined;
      if (!before) return;
      store.delete(tilesUnder(before.token));
      store.delete(headKey(body));
      await committed(store);
    });
  }
}
