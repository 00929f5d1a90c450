import 'fake-indexeddb/auto';
import { createStore } from 'idb-keyval';
import { edited, Painting, TILE_WORDS, type Layer } from '#core/paint';
import { seeded } from '#core/random';
import { PaintDrafts } from '../api/paintDrafts';
import { packedPainting, unpackedLayers } from './storedPainting';
import { PaintKeeper } from './paintKeeper';
import { DraftedTiles } from './sculpt/paintDraft';
import { breath } from './testKit';

const tile = (value: number): Uint16Array => new Uint16Array(TILE_WORDS).fill(value);
/** What layers hold, as text. */
const told = (layers: readonly Layer[]): string =>
  JSON.stringify(
    layers.map(({ tiles, mask, ...head }) => [
      head,
      [...tiles].map(([i, words]) => [i, words[7]]).sort(),
      mask && [...mask].map(([i, words]) => [i, words[7]]).sort(),
    ]),
  );

/** A window with a painting of its own, whose keeping takes its time and sometimes fails. */
function opened(drafts: PaintDrafts, token: string, seed: number) {
  const random = seeded(seed);
  const pause = breath(seed);
  const painting = new Painting(512);
  const drafted = new DraftedTiles();
  const keeper = new PaintKeeper(
    {
      async draft() {
        await pause();
        const draft = drafted.draft(painting);
        return draft && { body: 'buoy', draft };
      },
      async forget() {
        await pause();
        drafted.forget();
      },
      async keep(body, draft) {
        await pause();
        if (random() < 0.15) throw new Error('No room.');
        return drafts.keep(body, token, draft);
      },
      problem: () => undefined,
    },
    2,
  );
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  let ids = 0;
  function change(): void {
    const layer = pick(painting.layers);
    const step = random();
    if (step < 0.6)
      painting.put(
        { layer: layer.id, mask: random() < 0.2 && layer.mask !== null },
        new Map([[Math.floor(random() * 64), random() < 0.2 ? null : tile(Math.floor(random() * 60_000))]]),
      );
    else if (step < 0.7)
      painting.arrange(edited(painting.layers, { kind: 'add', id: `${token} ${ids++}`, name: 'New', above: null }));
    else if (step < 0.8) painting.arrange(edited(painting.layers, { kind: 'mask', id: layer.id, on: random() < 0.6 }));
    else if (step < 0.9 && painting.layers.length > 1)
      painting.arrange(edited(painting.layers, { kind: 'remove', id: layer.id }));
    else painting.arrange(edited(painting.layers, { kind: 'set', id: layer.id, to: { opacity: random() } }));
    keeper.changed();
  }
  /** Until keeping comes through. */
  async function settle(): Promise<void> {
    for (let n = 0; n < 60; n++) {
      await keeper.flush();
      if (told((await drafts.read('buoy'))?.layers ?? []) === told(painting.layers)) return;
    }
  }
  return { painting, keeper, change, settle, pause, random };
}

test('whatever is painted while drafts are written, failed ones among them, the store holds it in the end', async () => {
  for (let seed = 1; seed <= 12; seed++) {
    const drafts = new PaintDrafts(createStore(`one ${seed}`, 'tiles'));
    const own = opened(drafts, 'a', seed);
    own.change();
    own.painting.put({ layer: 'first', mask: false }, new Map([[3, tile(9)]]));
    for (let n = 0; n < 40; n++) {
      if (own.random() < 0.7) own.change();
      else if (own.random() < 0.5) void own.keeper.flush();
      else await own.pause();
    }
    await own.settle();
    expect([seed, told((await drafts.read('buoy'))!.layers)]).toEqual([seed, told(own.painting.layers)]);
  }
});

test('of two windows on one body the one that wrote last is found, whole, and nothing of the other', async () => {
  for (let seed = 1; seed <= 8; seed++) {
    const drafts = new PaintDrafts(createStore(`two ${seed}`, 'tiles'));
    const [a, b] = [opened(drafts, 'a', seed), opened(drafts, 'b', seed + 50)];
    for (const one of [a, b]) one.painting.put({ layer: 'first', mask: false }, new Map([[3, tile(9)]]));
    for (let n = 0; n < 40; n++) {
      const one = a.random() < 0.5 ? a : b;
      one.change();
      if (a.random() < 0.4) void one.keeper.flush();
      if (a.random() < 0.3) await one.pause();
      const found = await drafts.read('buoy');
      if (!found) continue;
      // Names of layers tell whose they are.
      const owners = new Set(found.layers.flatMap(({ id }) => (id === 'first' ? [] : [id[0]])));
      expect(owners.size).toBeLessThanOrEqual(1);
    }
    await Promise.all([a.keeper.flush(), b.keeper.flush()]);
    const last = seed % 2 ? a : b;
    last.painting.put({ layer: last.painting.layers[0]!.id, mask: false }, new Map([[4, tile(60_001)]]));
    await last.settle();
    expect([seed, told((await drafts.read('buoy'))!.layers)]).toEqual([seed, told(last.painting.layers)]);
  }
});

test('with a body a painting is kept in squares and comes back to the word', async () => {
  const { painting, change } = opened(new PaintDrafts(createStore('kept', 'tiles')), 'a', 5);
  for (let n = 0; n < 60; n++) change();
  const packed = await packedPainting(512, painting.snapshot());
  expect(told(await unpackedLayers(packed))).toBe(told(painting.layers));
  expect(packed.layers.every(({ squares }) => squares.length <= 1)).toBe(true);
});
