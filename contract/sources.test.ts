/** Sources on their benches: drafts, saves, a second window, and benches that are left before they have opened. */
import {
  newBrush,
  newGrow,
  PatternSchema,
  SetFormSchema,
  SlabSchema,
  SOURCE_VERSION,
  type Pattern,
  type Slab,
} from '#core/settings';
import { NO_SYMMETRY } from '#core/stroke';
import { slabDrafts, sourceDrafts } from '../web/api/drafts';
import { useLibrary } from '../web/stores/library';
import { useSlabBench } from '../web/stores/slabBench';
import { useSourceDoc } from '../web/stores/sourceDoc';
import { asWorkers, same } from '../web/workers/testKit';
import { until, world, type World } from './page';

let there: World;
let restore: () => void;
beforeAll(async () => {
  there = await world();
  ({ restore } = await asWorkers({
    'sculpt.worker.ts': () => import('../web/workers/sculpt.worker'),
    'paintDraft.worker.ts': () => import('../web/api/paintDraft.worker'),
    'draft.worker.ts': () => import('../web/api/draft.worker'),
  }));
});
afterAll(async () => {
  restore();
  await there.close();
});
beforeEach(async () => {
  there.away = false;
  await there.forget();
  there.load();
});

let made = 0;
const put = async <T extends Pattern | Slab>(doc: T): Promise<T> => {
  expect((await there.ask(`/sources/${doc.id}`, 'PUT', { doc, revision: null })).status).toBe(200);
  return doc;
};
const stored = async <T>(id: string): Promise<{ doc: T; revision: number }> =>
  (await there.ask(`/sources/${id}`)).json as { doc: T; revision: number };

describe('a pattern', () => {
  const pattern = (): Promise<Pattern> =>
    put(
      PatternSchema.parse({
        version: SOURCE_VERSION,
        kind: 'pattern',
        id: crypto.randomUUID(),
        card: { name: `Pattern ${++made}` },
        grow: newGrow('ripple'),
      }),
    );
  const bench = () => useSourceDoc<Pattern>({ togetherMs: 0 });
  const opened = async (id: string) => {
    const own = bench();
    await own.open(id, 'pattern', () => undefined);
    return own;
  };
  const note =
    (to: string) =>
    (doc: Pattern): void =>
      void (doc.card.notes = to);

  test('a change is a draft, survives a reload and is saved as the next revision', async () => {
    const { id } = await pattern();
    const own = await opened(id);
    own.history.edit('note', note('wet sand'));
    await own.keepDraft();
    there.load();
    const again = await opened(id);
    expect(again.doc.value!.card.notes).toBe('wet sand');
    expect([again.unsaved.value, again.conflict.value]).toEqual([true, false]);
    expect(await again.save()).toBe(true);
    expect(await stored<Pattern>(id)).toMatchObject({ revision: 2, doc: { card: { notes: 'wet sand' } } });
    expect(await sourceDrafts.read(id)).toBeUndefined();
  });

  test('left in the middle of a save and opened again, it is the saved one, without a draft or a conflict', async () => {
    const { id } = await pattern();
    const own = await opened(id);
    own.history.edit('note', note('wet sand'));
    const saving = own.save();
    own.close();
    expect(await saving).toBe(true);
    there.load();
    const again = await opened(id);
    expect([again.doc.value!.card.notes, again.revision.value, again.unsaved.value, again.conflict.value]).toEqual([
      'wet sand',
      2,
      false,
      false,
    ]);
  });

  test('two saves at once are no conflict', async () => {
    const { id } = await pattern();
    const own = await opened(id);
    own.history.edit('note', note('wet sand'));
    const saves = [own.save(), own.save(), own.save()];
    own.history.edit('note', note('dry sand'));
    expect(await Promise.all(saves)).toEqual([true, true, true]);
    expect(own.conflict.value).toBe(false);
    expect((await stored<Pattern>(id)).doc.card.notes).toBe('dry sand');
  });

  test('deleted in another window: a save says so, the draft opens all the same and is kept as a copy', async () => {
    const { id } = await pattern();
    const own = await opened(id);
    own.history.edit('note', note('mine'));
    await there.ask(`/sources/${id}`, 'DELETE');
    expect(await own.save()).toBe(false);
    expect([own.conflict.value, own.deleted.value]).toEqual([true, true]);
    there.load();
    const again = await opened(id);
    expect([again.doc.value!.card.notes, again.conflict.value, again.deleted.value]).toEqual(['mine', true, true]);
    expect((await stored<Pattern>((await again.keepAsCopy())!)).doc.card.notes).toBe('mine');
  });

  test('left at once, what was just changed is kept', async () => {
    const { id } = await pattern();
    const own = await opened(id);
    own.history.edit('note', note('in haste'));
    own.close();
    await until(async () => (await sourceDrafts.read(id))?.doc.card.notes === 'in haste');
    expect(own.doc.value).toBeNull();
  });

  test('a draft begun before another window saved is shown, not dropped: a copy beside it, or the other', async () => {
    const { id, card } = await pattern();
    const own = await opened(id);
    own.history.edit('note', note('mine'));
    await own.keepDraft();
    const { doc, revision } = await stored<Pattern>(id);
    await there.ask(`/sources/${id}`, 'PUT', { doc: { ...doc, card: { ...doc.card, notes: 'theirs' } }, revision });
    there.load();
    const again = await opened(id);
    expect([again.doc.value!.card.notes, again.conflict.value]).toEqual(['mine', true]);
    expect(await again.save()).toBe(false);
    expect((await stored<Pattern>(id)).doc.card.notes).toBe('theirs');
    const copy = (await again.keepAsCopy())!;
    expect((await stored<Pattern>(copy)).doc.card).toMatchObject({ name: `${card.name} copy`, notes: 'mine' });
    const third = await opened(id);
    expect([third.doc.value!.card.notes, third.conflict.value, third.unsaved.value]).toEqual(['theirs', false, false]);
    third.history.edit('note', note('other thoughts'));
    await third.revert((same) => third.open(same, 'pattern', () => undefined));
    expect(third.doc.value!.card.notes).toBe('theirs');
  });

  test('the second of two windows to save is told, and its work stays', async () => {
    const { id } = await pattern();
    const [one, two] = [await opened(id), await opened(id)];
    one.history.edit('note', note('one'));
    two.history.edit('note', note('two'));
    expect(await one.save()).toBe(true);
    expect(await two.save()).toBe(false);
    expect([two.conflict.value, two.problem.value, two.doc.value!.card.notes]).toEqual([true, null, 'two']);
    expect((await sourceDrafts.read(id))?.doc.card.notes).toBe('two');
  });

  test('a draft of an older version that waited for the server still does', async () => {
    const { id } = await pattern();
    const { doc } = await stored<Pattern>(id);
    const older = { doc: { ...doc, card: { ...doc.card, notes: 'older' } }, revision: 1, keptAt: 1, waiting: true };
    await sourceDrafts.keep(older as unknown as Parameters<typeof sourceDrafts.keep>[0]);
    expect((await sourceDrafts.read(id))?.pending).toBe(true);
    const own = await opened(id);
    await until(() => !own.unsaved.value);
    expect((await stored<Pattern>(id)).doc.card.notes).toBe('older');
  });

  test('without a server a save waits as a draft, and is sent when it is back; a copy can’t be kept meanwhile', async () => {
    const { id } = await pattern();
    const own = await opened(id);
    own.history.edit('note', note('waits'));
    there.away = true;
    expect(await own.save()).toBe(false);
    expect([own.pending.value, own.problem.value]).toEqual([true, null]);
    expect(await own.keepAsCopy()).toBeNull();
    expect(own.problem.value).toContain('The copy wasn’t kept');
    expect(await sourceDrafts.read(id)).toMatchObject({ doc: { card: { notes: 'waits' } }, pending: true });
    there.away = false;
    await there.later();
    await until(() => !own.unsaved.value);
    expect([own.pending.value, await sourceDrafts.read(id)]).toEqual([false, undefined]);
    expect((await stored<Pattern>(id)).doc.card.notes).toBe('waits');
  });

  test('a save that waits is sent when it is opened again, unless another window saved meanwhile', async () => {
    for (const other of [false, true]) {
      const { id, ...rest } = await pattern();
      const own = await opened(id);
      own.history.edit('note', note('waits'));
      there.away = true;
      await own.save();
      there.load();
      there.away = false;
      if (other)
        await there.ask(`/sources/${id}`, 'PUT', {
          doc: { ...rest, id, card: { ...rest.card, notes: 'theirs' } },
          revision: 1,
        });
      const again = await opened(id);
      if (!other) await until(() => !again.unsaved.value);
      expect([again.conflict.value, again.pending.value]).toEqual([other, false]);
      expect((await stored<Pattern>(id)).doc.card.notes).toBe(other ? 'theirs' : 'waits');
      expect(again.doc.value!.card.notes).toBe('waits');
    }
  });

  test('a change after a save that waits is no longer sent by itself', async () => {
    const { id } = await pattern();
    const own = await opened(id);
    own.history.edit('note', note('saved away'));
    there.away = true;
    await own.save();
    own.history.edit('note', note('typed later'));
    expect(own.pending.value).toBe(false);
    there.away = false;
    await there.later();
    await own.flush();
    expect([own.unsaved.value, (await stored<Pattern>(id)).revision]).toEqual([true, 1]);
  });

  test('of two that are opened one after the other the last one counts, whichever answers first', async () => {
    const [slow, fast] = [await pattern(), await pattern()];
    const own = bench();
    const { fetch: direct } = globalThis;
    let letGo: () => void = () => undefined;
    const held = new Promise<void>((done) => (letGo = done));
    globalThis.fetch = (async (path: string, init?: RequestInit) => {
      if (path.includes(slow.id)) await held;
      return direct(path, init);
    }) as typeof fetch;
    try {
      const first = own.open(slow.id, 'pattern', () => undefined);
      await own.open(fast.id, 'pattern', () => undefined);
      expect(own.doc.value!.id).toBe(fast.id);
      letGo();
      await first;
      expect(own.doc.value!.id).toBe(fast.id);
      expect(own.opening.value).toBe(false);
      // Left before it opened: nothing comes after.
      const last = own.open(slow.id, 'pattern', () => undefined);
      own.close();
      await last;
      expect([own.doc.value, own.opening.value, own.problem.value]).toEqual([null, false, null]);
    } finally {
      globalThis.fetch = direct;
    }
  });

  test('what isn’t a pattern, or isn’t there, is said', async () => {
    const slab = await put(
      SlabSchema.parse({
        version: SOURCE_VERSION,
        kind: 'slab',
        id: crypto.randomUUID(),
        card: { name: `Slab ${++made}` },
        cells: 32,
        blob: null,
      }),
    );
    expect((await opened(slab.id)).problem.value).toContain('isn’t a pattern');
    expect((await opened(crypto.randomUUID())).problem.value).toMatch(
      /^The source isn’t here; it may have been deleted\.$/,
    );
  });
});

describe('a slab', () => {
  const slab = (): Promise<Slab> =>
    put(
      SlabSchema.parse({
        version: SOURCE_VERSION,
        kind: 'slab',
        id: crypto.randomUUID(),
        card: { name: `Slab ${++made}` },
        cells: 64,
        blob: null,
      }),
    );
  const brush = newBrush('5f0c1d9e-3b41-4c8a-9f5e-0d3a1b2c4d5e', 'Test');
  async function opened(id: string): Promise<ReturnType<typeof useSlabBench>> {
    const bench = useSlabBench();
    await bench.open(id);
    await bench.sculptor?.use(brush, { form: null, tooth: null, parts: [] });
    return bench;
  }
  async function stamp(bench: ReturnType<typeof useSlabBench>, x: number): Promise<void> {
    bench.sculptor!.begin(
      {
        brushId: brush.id,
        seed: 1,
        dig: false,
        symmetry: NO_SYMMETRY,
        view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
      },
      [{ origin: [x, 0, 5], direction: [0, 0, -1] }],
    );
    await bench.sculptor!.end();
    bench.touched();
  }
  const clay = (bench: ReturnType<typeof useSlabBench>): Float32Array => bench.sculptor!.mesh!.positions.slice();

  test('strokes are a draft when the bench is left, and there again, undo and all; saved, they are the slab', async () => {
    const { id } = await slab();
    const bench = await opened(id);
    const bare = clay(bench);
    await stamp(bench, 0);
    await stamp(bench, 0.4);
    const drawn = clay(bench);
    await bench.close();
    expect(bench.doc).toBeNull();
    there.load();
    const again = await opened(id);
    expect(same(clay(again), drawn)).toBe(true);
    expect([again.unsaved, again.conflict]).toEqual([true, false]);
    expect(await again.save()).toBe(true);
    expect(await slabDrafts().read(id)).toBeUndefined();
    expect((await stored<Slab>(id)).revision).toBe(2);
    await again.close();
    there.load();
    const third = await opened(id);
    expect(same(clay(third), drawn)).toBe(true);
    await third.undo();
    await third.undo();
    expect(same(clay(third), bare)).toBe(true);
    await third.close();
  });

  test('clay that was drafted before another window saved is shown, and kept as a slab of its own or left', async () => {
    const { id, card } = await slab();
    const bench = await opened(id);
    await stamp(bench, 0);
    const mine = clay(bench);
    await bench.close();
    const { doc, revision } = await stored<Slab>(id);
    await there.ask(`/sources/${id}`, 'PUT', { doc: { ...doc, card: { ...doc.card, notes: 'theirs' } }, revision });
    there.load();
    const again = await opened(id);
    expect(again.conflict).toBe(true);
    expect(same(clay(again), mine)).toBe(true);
    expect(await again.save()).toBe(false);
    const copy = (await again.keepAsCopy())!;
    await again.open(copy);
    expect(again.doc!.card.name).toBe(`${card.name} copy`);
    expect(same(clay(again), mine)).toBe(true);
    expect([again.conflict, again.unsaved]).toEqual([false, false]);
    await again.open(id);
    expect(again.doc!.card.notes).toBe('theirs');
    expect(same(clay(again), mine)).toBe(false);
    expect(useLibrary().sources.some((s) => s.id === copy)).toBe(true);
    await again.close();
  });

  test('loading the other leaves mine', async () => {
    const { id } = await slab();
    const bench = await opened(id);
    const bare = clay(bench);
    await stamp(bench, 0);
    const { doc, revision } = await stored<Slab>(id);
    await there.ask(`/sources/${id}`, 'PUT', { doc, revision });
    expect(await bench.save()).toBe(false);
    expect(bench.conflict).toBe(true);
    await bench.revert();
    expect([bench.conflict, bench.unsaved]).toEqual([false, false]);
    expect(same(clay(bench), bare)).toBe(true);
    expect(await slabDrafts().read(id)).toBeUndefined();
    await bench.close();
  });

  test('of two that are opened one after the other the last one counts; one that is left while it opens stays closed', async () => {
    const [one, two] = [await slab(), await slab()];
    const bench = useSlabBench();
    await Promise.all([bench.open(one.id), bench.open(two.id)]);
    expect(bench.doc!.id).toBe(two.id);
    await Promise.all([bench.open(one.id), bench.close()]);
    expect([bench.doc, bench.sculptor, bench.opening]).toEqual([null, null, false]);
  });

  test('saved without a server, the clay waits as a draft, and is sent when it is opened again', async () => {
    const { id } = await slab();
    const bench = await opened(id);
    await stamp(bench, 0);
    const drawn = clay(bench);
    there.away = true;
    expect(await bench.save()).toBe(false);
    expect([bench.pending, bench.problem]).toEqual([true, null]);
    await bench.close();
    there.load();
    there.away = false;
    const again = await opened(id);
    expect(same(clay(again), drawn)).toBe(true);
    // It waited to be sent: now it is.
    await until(() => !again.unsaved);
    expect((await stored<Slab>(id)).revision).toBe(2);
    await again.close();
  });

  const setForm = (x: number, more = {}) =>
    SetFormSchema.parse({ id: crypto.randomUUID(), form: 'dome', x, size: 0.3, height: 0.1, ...more });
  const highest = (bench: ReturnType<typeof useSlabBench>): number =>
    clay(bench).reduce((most, z, i) => (i % 3 === 2 ? Math.max(most, z) : most), -1);

  test('moved set forms, symmetry and the frame are undone in their place among the strokes', async () => {
    const { id } = await slab();
    const bench = await opened(id);
    await stamp(bench, -0.5);
    const drawn = clay(bench);
    await bench.editSetForms((own) => own.setForms.push(setForm(0.3)));
    for (let n = 1; n <= 5; n++) await bench.editSetForms((own) => (own.setForms[0].x = 0.3 + n / 50));
    bench.edit((own) => (own.symmetry.mirrorX = true));
    bench.edit((own) => (own.cast.frame.side = 1.25));
    await bench.undo();
    expect([bench.doc!.cast.frame.side, bench.doc!.symmetry.mirrorX]).toEqual([1.8, true]);
    await bench.undo();
    expect(bench.doc!.symmetry.mirrorX).toBe(false);
    expect(bench.doc!.setForms[0].x).toBeCloseTo(0.4, 9);
    await bench.undo();
    expect(bench.doc!.setForms[0].x).toBeCloseTo(0.3, 9);
    await bench.undo();
    expect(bench.doc!.setForms).toEqual([]);
    await until(() => !bench.sculptor!.state.busy);
    expect(same(clay(bench), drawn)).toBe(true);
    await bench.undo();
    expect(highest(bench)).toBe(0);
    for (let n = 0; n < 5; n++) await bench.redo();
    await until(() => !bench.sculptor!.state.busy);
    expect(bench.doc).toMatchObject({ symmetry: { mirrorX: true }, cast: { frame: { side: 1.25 } } });
    expect(bench.doc!.setForms[0].x).toBeCloseTo(0.4, 9);
    expect(highest(bench)).toBeGreaterThan(0.09);
    await bench.close();
  });

  test('set forms that were baked lie on the clay again when it is undone', async () => {
    const { id } = await slab();
    const bench = await opened(id);
    await bench.editSetForms((own) => own.setForms.push(setForm(0.3)));
    await bench.bakeSetForms();
    expect(bench.doc!.setForms).toEqual([]);
    expect(highest(bench)).toBeGreaterThan(0.09);
    await bench.undo();
    expect(bench.doc!.setForms).toHaveLength(1);
    await bench.editSetForms((own) => (own.setForms = []));
    expect(highest(bench)).toBe(0);
    await bench.close();
  });

  test('a slab whose part is gone opens without it, says so, and keeps the setForm', async () => {
    const missing = 'f'.repeat(64);
    const own = await slab();
    const bench = await opened(own.id);
    await bench.editSetForms((doc) =>
      doc.setForms.push(
        setForm(0),
        setForm(0.5, { form: 'part', part: { name: 'Cleat', mesh: missing, heights: missing, up: '+z' } }),
      ),
    );
    expect(bench.problem).toContain('part is gone');
    await bench.close();
    there.load();
    const again = await opened(own.id);
    expect(again.problem).toContain('part is gone');
    expect(again.doc!.setForms).toHaveLength(2);
    expect(highest(again)).toBeGreaterThan(0.09);
    await stamp(again, -0.7);
    expect(again.sculptor!.state.strokes).toBeGreaterThan(0);
    await again.bakeSetForms();
    expect(again.doc!.setForms.map((p) => p.form)).toEqual(['part']);
    await again.close();
  });

  test('left in the middle of a save and opened again, it is the saved one, without a draft or a conflict', async () => {
    const { id } = await slab();
    const bench = await opened(id);
    await stamp(bench, 0);
    const drawn = clay(bench);
    const saving = bench.save();
    await bench.close();
    expect(await saving).toBe(true);
    there.load();
    const again = await opened(id);
    expect([again.conflict, again.unsaved, again.revision]).toEqual([false, false, 2]);
    expect(same(clay(again), drawn)).toBe(true);
    await again.close();
  });

  test('strokes that are drawn while drafts and saves are taken are all there', async () => {
    const { id } = await slab();
    const bench = await opened(id);
    await bench.editSetForms((own) => own.setForms.push(setForm(0)));
    const saves: Promise<unknown>[] = [];
    for (let n = 0; n < 12; n++) {
      bench.sculptor!.begin(
        {
          brushId: brush.id,
          seed: n,
          dig: false,
          symmetry: NO_SYMMETRY,
          view: { right: [1, 0, 0], up: [0, 1, 0], toward: [0, 0, 1] },
        },
        [{ origin: [-0.9 + n * 0.15, 0.6, 5], direction: [0, 0, -1] }],
      );
      if (n % 3 === 0) saves.push(bench.flush());
      if (n % 4 === 1) saves.push(bench.save());
      void bench.sculptor!.end();
      bench.touched();
    }
    await Promise.all(saves);
    await until(() => !bench.sculptor!.state.busy);
    expect(bench.sculptor!.state.strokes).toBe(12);
    await bench.close();
  });

  test('deleted in another window: a save says so, the draft opens all the same and is kept as a copy', async () => {
    const { id } = await slab();
    const bench = await opened(id);
    await stamp(bench, 0);
    const mine = clay(bench);
    await there.ask(`/sources/${id}`, 'DELETE');
    expect(await bench.save()).toBe(false);
    expect([bench.conflict, bench.deleted]).toEqual([true, true]);
    await bench.close();
    there.load();
    const again = await opened(id);
    expect([again.conflict, again.deleted]).toEqual([true, true]);
    expect(same(clay(again), mine)).toBe(true);
    const copy = (await again.keepAsCopy())!;
    await again.open(copy);
    expect([again.conflict, again.deleted]).toEqual([false, false]);
    expect(same(clay(again), mine)).toBe(true);
    await again.close();
  });
});
