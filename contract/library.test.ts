/** What the page knows of everything that is kept: heads of documents; a document when it is opened. */
import { ALPHA_VERSION, AlphaSchema, newBrush, type Brush } from '#core/settings';
import { putBlob } from '../web/api/client';
import { brushesFrom } from '../web/bench/brushFrom';
import { useBrushBench } from '../web/stores/brushBench';
import { useLibrary } from '../web/stores/library';
import { until, world, type World } from './page';

let there: World;
beforeAll(async () => {
  there = await world();
});
afterAll(() => there.close());
beforeEach(() => {
  there.away = false;
  there.load();
});

async function saved(name: string): Promise<Brush> {
  const doc = newBrush(crypto.randomUUID(), name);
  doc.card.notes = 'notes of it';
  expect((await there.ask(`/brushes/${doc.id}`, 'PUT', { doc, revision: null })).status).toBe(200);
  return doc;
}
const beltWith = async (id: string): Promise<unknown> =>
  there.ask('/belt', 'PUT', { ids: [...((await there.ask('/belt')).json as { ids: string[] }).ids, id] });

test('a list has no documents; an opened brush has all that it was saved with', async () => {
  const doc = await saved('Has notes');
  const library = useLibrary();
  await library.ready();
  const listed = library.brushes.find((b) => b.id === doc.id)!;
  expect(listed).toMatchObject({ card: { name: 'Has notes' }, revision: 1 });
  expect(JSON.stringify(library.brushes)).not.toContain('notes of it');
  const bench = useBrushBench();
  await bench.open(doc.id);
  expect(bench.doc).toEqual(doc);
  expect(bench.unsaved).toBe(false);
});

test('a brush that was changed in another window since the list came opens as it is now', async () => {
  const doc = await saved('Changed meanwhile');
  const library = useLibrary();
  await library.ready();
  const changed = { ...doc, touch: { ...doc.touch, strength: 12 } };
  await there.ask(`/brushes/${doc.id}`, 'PUT', { doc: changed, revision: 1 });
  const bench = useBrushBench();
  await bench.open(doc.id);
  expect([bench.doc!.touch.strength, bench.revision, bench.conflict]).toEqual([12, 2, false]);
  expect(library.brushes.find((b) => b.id === doc.id)!.revision).toBe(2);
});

test('a brush that was fetched opens at once, and is shown as another window saved it meanwhile, unless it is worked on', async () => {
  const doc = await saved('Known here');
  const library = useLibrary();
  await library.ready();
  const bench = useBrushBench();
  await bench.open(doc.id);
  const other = await saved('Another');
  for (const worked of [false, true]) {
    await bench.open(other.id);
    const { revision } = (await there.ask(`/brushes/${doc.id}`)).json as { revision: number };
    await there.ask(`/brushes/${doc.id}`, 'PUT', {
      doc: { ...doc, touch: { ...doc.touch, strength: 20 + revision } },
      revision,
    });
    await bench.open(doc.id);
    // As it was fetched: nobody waited for the server.
    expect([bench.doc!.id, bench.revision]).toEqual([doc.id, revision]);
    if (worked) await bench.edit((brush) => void (brush.stroke.spacing = 61));
    else await until(() => bench.revision === revision + 1);
    await new Promise((done) => setTimeout(done, 60));
    expect(bench.doc!.touch.strength).toBe(worked ? 19 + revision : 20 + revision);
    if (worked) expect([await bench.save(), bench.conflict]).toEqual([false, true]);
  }
});

test('without the server what is at hand opens, and what was never fetched says why it can’t', async () => {
  const [near, far] = [await saved('At hand'), await saved('In the rack')];
  await beltWith(near.id);
  const library = useLibrary();
  await library.ready();
  // The belt’s brushes are fetched together, a moment later.
  await until(async () => {
    there.away = true;
    const brush = await library.brush(near.id);
    there.away = false;
    return brush !== null;
  });
  there.away = true;
  const bench = useBrushBench();
  await bench.open(near.id);
  expect(bench.doc).toEqual(near);
  await bench.open(far.id);
  expect(bench.doc).toBeNull();
  expect(bench.problem).toContain('can’t be reached, so this brush can’t be opened yet');
  expect(await library.brush(far.id)).toBeNull();
});

test('an answer that comes after a newer one changes nothing', async () => {
  const doc = await saved('Late');
  const library = useLibrary();
  await library.ready();
  const kept = (revision: number) => ({
    doc: { ...doc, card: { ...doc.card, name: `Late ${revision}` } },
    revision,
    base: false,
    updatedAt: '',
  });
  // Every order in which four answers can come.
  const orders = [1, 2, 3, 4].reduce<number[][]>(
    (all, n) => all.flatMap((o) => Array.from({ length: o.length + 1 }, (_, at) => o.toSpliced(at, 0, n))),
    [[]],
  );
  for (const [round, order] of orders.entries()) {
    for (const n of order) library.putBrush(kept(round * 4 + n + 1));
    expect(library.brushHead(doc.id)!.card.name).toBe(`Late ${round * 4 + 5}`);
    there.away = true;
    expect((await library.brush(doc.id))!.card.name).toBe(`Late ${round * 4 + 5}`);
    there.away = false;
  }
});

test('deleted it leaves the list and what was fetched; restored it is there again', async () => {
  const doc = await saved('Goes and comes');
  const library = useLibrary();
  await library.ready();
  expect(await library.brush(doc.id)).toEqual(doc);
  await library.remove('brushes', doc.id);
  there.away = true;
  expect([library.brushHead(doc.id), await library.brush(doc.id)]).toEqual([null, null]);
  there.away = false;
  await library.restore('brushes', doc.id);
  expect(library.brushHead(doc.id)).toMatchObject({ card: { name: 'Goes and comes' }, revision: 1 });
});

describe('brushes of many alphas at once', () => {
  async function alphasNamed(...names: string[]): Promise<void> {
    const blob = await putBlob(Uint8Array.from({ length: 64 * 64 * 2 }, (_, i) => i % 251));
    for (const name of names) {
      const id = crypto.randomUUID();
      const doc = AlphaSchema.parse({
        version: ALPHA_VERSION,
        id,
        card: { name },
        size: 64,
        relief: 0.1,
        format: 'grey16',
        blob,
        recipe: null,
        ground: 0.25,
        lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: 0.1 },
        report: { marginPx: 4, ringLoss: 0, usedRange: 1, undercut: 0 },
      });
      expect(await there.ask(`/alphas/${id}`, 'PUT', { doc, revision: null })).toMatchObject({ status: 200 });
    }
  }
  const wish = { pattern: newBrush(crypto.randomUUID(), 'Pattern'), stem: '', author: 'Pier', tags: ['print'] };
  wish.pattern.stroke.spacing = 77;
  const hand = (stopAfter = Infinity) => {
    let told = 0;
    return {
      report: () => void told++,
      get cancelled() {
        return told >= stopAfter;
      },
    };
  };

  test('each works like the pattern, with an alpha and its ground; names that are taken are counted on', async () => {
    await alphasNamed('Kelp 1', 'Kelp 2');
    await saved('Kelp 2');
    const library = useLibrary();
    await library.ready();
    const alphas = library.alphas.filter(({ card }) => card.name.startsWith('Kelp'));
    const made = await brushesFrom(alphas, wish, hand());
    expect(made.map(({ card }) => card.name)).toEqual(['Kelp 1', 'Kelp 2 2']);
    made.forEach((brush, i) => {
      expect(brush.form).toEqual({ ...wish.pattern.form, alphaId: alphas[i].id, ground: 0.25 });
      expect([brush.stroke, brush.touch]).toEqual([wish.pattern.stroke, wish.pattern.touch]);
      expect(brush.card).toMatchObject({ author: 'Pier', tags: ['print'] });
      expect(library.has('brushes', brush.id)).toBe(true);
    });
    const counted = await brushesFrom(alphas, { ...wish, stem: 'Wrack' }, hand());
    expect(counted.map(({ card }) => card.name)).toEqual(['Wrack 1', 'Wrack 2']);
  });

  test('cancelled, or with the server away in the middle, those that are made stay and are known', async () => {
    await alphasNamed('Weed 1', 'Weed 2', 'Weed 3');
    const library = useLibrary();
    await library.ready();
    const alphas = library.alphas.filter(({ card }) => card.name.startsWith('Weed'));
    expect(await brushesFrom(alphas, wish, hand(2))).toHaveLength(2);
    const made: Brush[] = [];
    let told = 0;
    const report = (): void => {
      if (++told === 3) there.away = true;
    };
    await expect(brushesFrom(alphas, { ...wish, stem: 'Away' }, { report, cancelled: false }, made)).rejects.toThrow();
    expect(made.map(({ card }) => card.name)).toEqual(['Away 1', 'Away 2']);
    there.away = false;
    for (const { id } of made) expect((await there.ask(`/brushes/${id}`)).status).toBe(200);
  });
});
