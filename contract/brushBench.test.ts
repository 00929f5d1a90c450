/**
 * Nothing that was done to a brush is lost: not by a reload, an absent server, a second window or a name that is taken.
 */
import { newBrush, type Brush } from '#core/settings';
import { brushDrafts } from '../web/api/drafts';
import { useBrushBench } from '../web/stores/brushBench';
import { useCompare } from '../web/stores/compare';
import { useConnection } from '../web/stores/connection';
import { useLibrary } from '../web/stores/library';
import { until, world, type World } from './page';

let there: World;
beforeAll(async () => {
  there = await world();
});
afterAll(() => there.close());
beforeEach(async () => {
  there.away = false;
  await there.forget();
  there.load();
});

let made = 0;
/** A brush that is saved, open on the bench of a page of its own. */
async function onBench(name = `Brush ${++made}`): Promise<ReturnType<typeof useBrushBench>> {
  const doc = newBrush(crypto.randomUUID(), name);
  expect((await there.ask(`/brushes/${doc.id}`, 'PUT', { doc, revision: null })).status).toBe(200);
  there.load();
  const bench = useBrushBench();
  await bench.open(doc.id);
  return bench;
}
const strength =
  (to: number) =>
  (brush: Brush): void =>
    void (brush.touch.strength = to);
const stored = async (id: string): Promise<{ doc: Brush; revision: number }> =>
  (await there.ask(`/brushes/${id}`)).json as { doc: Brush; revision: number };

test('a change is a draft at once and survives a reload; saved, it is the next revision and no draft', async () => {
  const bench = await onBench();
  const { id } = bench.doc!;
  expect(bench.unsaved).toBe(false);
  await bench.edit(strength(40));
  expect(bench.unsaved).toBe(true);
  await bench.flush();
  there.load();
  const again = useBrushBench();
  await again.open(id);
  expect(again.doc!.touch.strength).toBe(40);
  expect(again.unsaved).toBe(true);
  expect(again.conflict).toBe(false);
  expect((await stored(id)).doc.touch.strength).not.toBe(40);
  expect(await again.save()).toBe(true);
  await again.keepDraft();
  expect(again.unsaved).toBe(false);
  expect(await brushDrafts.read(id)).toBeUndefined();
  expect(await stored(id)).toMatchObject({ revision: 2, doc: { touch: { strength: 40 } } });
  expect(useLibrary().beltIds).toContain(id);
});

test('a base brush is never changed: its first change, and those that come meanwhile, go to one copy', async () => {
  const library = useLibrary();
  await library.ready();
  const base = library.brushes.find((b) => b.base)!;
  const before = JSON.stringify((await stored(base.id)).doc);
  const bench = useBrushBench();
  await bench.open(base.id);
  expect(bench.base).toBe(true);
  const ids = await Promise.all([bench.edit(strength(30)), bench.edit((b) => void (b.stroke.spacing = 77))]);
  expect(new Set(ids).size).toBe(1);
  expect(ids[0]).not.toBe(base.id);
  expect(bench.doc).toMatchObject({ id: ids[0], touch: { strength: 30 }, stroke: { spacing: 77 } });
  expect(bench.doc!.card.name).toBe(`${base.card.name} copy`);
  expect(bench.doc!.card.tags).not.toContain('base');
  expect(JSON.stringify((await stored(base.id)).doc)).toBe(before);
  expect(await bench.save()).toBe(true);
  expect((await stored(ids[0])).revision).toBe(1);
  expect((await there.ask(`/brushes/${base.id}`, 'DELETE')).status).toBe(403);
});

test('undo and redo go through the settings; changes of one setting in a row are one step, and each says what it was', async () => {
  const bench = await onBench();
  const before = bench.doc!.touch.strength;
  for (const to of [50, 45, 40]) await bench.edit(strength(to));
  await bench.edit((b) => void (b.stroke.spacing = 60));
  expect(bench.steps.map((s) => s.path)).toEqual(['touch.strength', 'stroke.spacing']);
  bench.undo();
  expect(bench.doc).toMatchObject({ touch: { strength: 40 } });
  bench.undo();
  expect(bench.doc!.touch.strength).toBe(before);
  expect(bench.unsaved).toBe(false);
  bench.redo();
  bench.redo();
  expect(bench.doc).toMatchObject({ touch: { strength: 40 }, stroke: { spacing: 60 } });
  bench.goBack(0);
  expect(bench.unsaved).toBe(false);
  expect(bench.future).toHaveLength(2);
});

test('what is typed while a save is on its way stays, as an unsaved change', async () => {
  const bench = await onBench();
  await bench.edit(strength(40));
  const saving = bench.save();
  await bench.edit(strength(55));
  expect(await saving).toBe(true);
  expect(bench.doc!.touch.strength).toBe(55);
  expect(bench.unsaved).toBe(true);
  expect((await stored(bench.doc!.id)).doc.touch.strength).toBe(40);
  expect(await bench.save()).toBe(true);
  expect(await stored(bench.doc!.id)).toMatchObject({ revision: 3, doc: { touch: { strength: 55 } } });
});

test('saved again while a save is on its way, what was typed in between is saved too; nothing is saved twice', async () => {
  const bench = await onBench();
  await bench.edit(strength(40));
  const saves = [bench.save(), bench.save()];
  await bench.edit(strength(55));
  saves.push(bench.save());
  expect(await Promise.all(saves)).toEqual([true, true, true]);
  expect(bench.unsaved).toBe(false);
  expect(await stored(bench.doc!.id)).toMatchObject({ revision: 3, doc: { touch: { strength: 55 } } });
});

test('a name that is taken, or none, is said at the name; the work stays', async () => {
  await onBench('Taken');
  const bench = await onBench();
  await bench.edit((b) => void (b.card.name = 'taken'));
  expect(await bench.save()).toBe(false);
  expect(bench.nameProblem).toContain('already a brush called “taken”');
  expect(bench.doc!.card.name).toBe('taken');
  await bench.edit((b) => void (b.card.name = '  '));
  expect(bench.nameProblem).toBeNull();
  expect(await bench.save()).toBe(false);
  expect(bench.nameProblem).toContain('A name is needed');
  await bench.edit((b) => void (b.card.name = ' Free again '));
  expect(await bench.save()).toBe(true);
  expect(bench.doc!.card.name).toBe('Free again');
  expect(bench.unsaved).toBe(false);
});

test('two windows on one brush: the second to save is told, and may keep its own beside the other, or load the other', async () => {
  const one = await onBench();
  const { id, card } = one.doc!;
  there.load();
  const two = useBrushBench();
  await two.open(id);
  await two.edit(strength(20));
  await one.edit(strength(70));
  expect(await one.save()).toBe(true);
  expect(await two.save()).toBe(false);
  expect(two.conflict).toBe(true);
  expect(two.doc!.touch.strength).toBe(20);
  expect((await stored(id)).doc.touch.strength).toBe(70);
  const copy = await two.keepAsCopy();
  expect(two.doc).toMatchObject({ id: copy, card: { name: `${card.name} copy` }, touch: { strength: 20 } });
  expect(two.conflict).toBe(false);
  expect(await two.save()).toBe(true);
  await two.open(id);
  expect(two.doc!.touch.strength).toBe(70);
});

test('a draft begun before another window saved says so when it is opened; loading the other drops it', async () => {
  const one = await onBench();
  const { id } = one.doc!;
  await one.edit(strength(25));
  await one.flush();
  const { doc, revision } = await stored(id);
  await there.ask(`/brushes/${id}`, 'PUT', { doc: { ...doc, touch: { ...doc.touch, strength: 90 } }, revision });
  there.load();
  const again = useBrushBench();
  await again.open(id);
  expect(again.conflict).toBe(true);
  expect(again.doc!.touch.strength).toBe(25);
  await again.revert();
  expect(again.doc!.touch.strength).toBe(90);
  expect(again.conflict).toBe(false);
  expect(await brushDrafts.read(id)).toBeUndefined();
});

test('saved while the server is away: it waits, outlives a reload, and is sent when the server is back', async () => {
  const bench = await onBench();
  const { id } = bench.doc!;
  await bench.edit(strength(35));
  there.away = true;
  expect(await bench.save()).toBe(false);
  expect(bench.pending).toBe(true);
  expect(useConnection().away).toBe(true);
  there.load();
  const again = useBrushBench();
  await again.open(id);
  expect(again.doc!.touch.strength).toBe(35);
  expect(again.pending).toBe(true);
  await there.later(2);
  expect(again.pending).toBe(true);
  there.away = false;
  await there.later(2);
  await until(() => !bench.pending && !again.pending);
  // Both windows knocked and sent: one was first, and neither minds.
  expect(useConnection().away).toBe(false);
  expect([bench.pending, bench.problem, bench.unsaved, bench.conflict]).toEqual([false, null, false, false]);
  expect([again.pending, again.problem, again.conflict]).toEqual([false, null, false]);
  expect(again.unsaved).toBe(false);
  expect(await stored(id)).toMatchObject({ revision: 2, doc: { touch: { strength: 35 } } });
  expect(await brushDrafts.read(id)).toBeUndefined();
});

test('what waited and is then refused stays a draft, and the bench says why', async () => {
  const bench = await onBench();
  const { id } = bench.doc!;
  await bench.edit((b) => void (b.card.name = 'Wanted'));
  there.away = true;
  await bench.save();
  there.away = false;
  const other = newBrush(crypto.randomUUID(), 'Wanted');
  await there.ask(`/brushes/${other.id}`, 'PUT', { doc: other, revision: null });
  await there.later();
  await until(() => !bench.pending);
  expect(bench.problem).toContain('already a brush called “Wanted”');
  expect(bench.doc!.card.name).toBe('Wanted');
  expect((await brushDrafts.read(id))?.doc.card.name).toBe('Wanted');
});

test('a brush that was deleted meanwhile is a conflict, not a loss', async () => {
  const bench = await onBench();
  const { id } = bench.doc!;
  await bench.edit(strength(15));
  await there.ask(`/brushes/${id}`, 'DELETE');
  expect(await bench.save()).toBe(false);
  expect(bench.conflict).toBe(true);
  expect(await bench.keepAsCopy()).not.toBe(id);
  expect(bench.doc!.touch.strength).toBe(15);
  expect(await bench.save()).toBe(true);
});

test('a brush that isn’t there says so', async () => {
  const bench = useBrushBench();
  await bench.open(crypto.randomUUID());
  expect(bench.doc).toBeNull();
  expect(bench.problem).toContain('isn’t in the rack');
  await expect(bench.edit(strength(1))).rejects.toThrow('No brush is open.');
});

test('compare shows the saved brush, or the version that was pinned, and takes its settings back', async () => {
  const bench = await onBench();
  const compare = useCompare();
  const before = bench.doc!.touch.strength;
  expect(compare.differs).toBe(false);
  compare.toggle();
  expect(compare.showing).toBe(false);
  await bench.edit(strength(33));
  compare.toggle();
  expect(compare.shown!.touch.strength).toBe(before);
  compare.pin();
  expect(compare.showing).toBe(false);
  expect(compare.isPinned).toBe(true);
  await bench.edit(strength(66));
  compare.toggle();
  expect(compare.shown!.touch.strength).toBe(33);
  await compare.takeOther();
  expect(bench.doc!.touch.strength).toBe(33);
  expect(compare.shown!.touch.strength).toBe(33);
  bench.undo();
  expect(bench.doc!.touch.strength).toBe(66);
  compare.unpin();
  expect(compare.other!.touch.strength).toBe(before);
  compare.pin();
  await bench.open(useLibrary().brushes.find((b) => b.base)!.id);
  expect(compare.isPinned).toBe(false);
  expect(compare.other).toEqual(bench.doc);
});
