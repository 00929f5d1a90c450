/** Things among the sources: renamed, copied, deleted, each a step; work that isn’t saved is never left behind. */
import { ALPHA_VERSION, AlphaSchema, newGrow, PatternSchema, SOURCE_VERSION, type Pattern } from '#core/settings';
import * as api from '../web/api/client';
import { sourceDrafts } from '../web/api/drafts';
import { useStoredThings } from '../web/stores/storedThings';
import { useLibrary } from '../web/stores/library';
import { useRackSteps } from '../web/stores/rackSteps';
import { world, type World } from './page';

let there: World;
beforeAll(async () => {
  there = await world();
});
afterAll(() => there.close());

const pattern = (name: string): Pattern =>
  PatternSchema.parse({
    version: SOURCE_VERSION,
    kind: 'pattern',
    id: crypto.randomUUID(),
    card: { name },
    grow: newGrow('cells'),
  });
async function kept(name: string): Promise<Pattern> {
  const doc = pattern(name);
  await api.save('sources', doc, null);
  return doc;
}
const names = async (): Promise<string[]> => (await api.list('sources')).items.map(({ card }) => card.name).sort();

test('renamed, copied and deleted; undone and done again in turn, however quickly it is asked', async () => {
  there.load();
  const doc = await kept('Weave');
  const [things, steps, library] = [useStoredThings(), useRackSteps(), useLibrary()];
  await library.ready();
  await things.rename('sources', doc, '  Creel weave ');
  await things.copy('sources', { id: doc.id, card: { name: 'Creel weave' } });
  await things.remove('sources', { id: doc.id, card: { name: 'Creel weave' } });
  expect(await names()).toEqual(['Creel weave copy']);
  await Promise.all([steps.undo(), steps.undo(), steps.undo(), steps.undo()]);
  expect(await names()).toEqual(['Weave']);
  expect(library.sources.map(({ card }) => card.name)).toEqual(['Weave']);
  await Promise.all([steps.redo(), steps.undo(), steps.redo(), steps.redo(), steps.redo()]);
  expect(await names()).toEqual(['Creel weave copy']);
});

test('what something else was made of is deleted only once that was said; what names nothing goes at once', async () => {
  there.load();
  const doc = await kept('Net');
  const bytes = new Uint8Array(8 * 8 * 2);
  const alpha = AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: crypto.randomUUID(),
    card: { name: 'Net, cast' },
    size: 8,
    relief: 0.1,
    ground: 0,
    blob: await api.putBlob(bytes),
    lineage: { sourceId: doc.id, sourceRevision: 1, floor: 0, crown: 0.1 },
    report: { marginPx: 0, ringLoss: 0, usedRange: 1 },
  });
  await api.save('alphas', alpha, null);
  const [things, library] = [useStoredThings(), useLibrary()];
  await library.load();
  const before = await names();
  await things.askRemove('sources', doc);
  expect(things.asked?.users).toMatchObject([{ collection: 'alphas', name: 'Net, cast', needed: false }]);
  await things.answer(false);
  expect([things.asked, await names()]).toEqual([null, before]);
  await things.askRemove('sources', doc);
  await things.answer(true);
  expect(await names()).toEqual(before.filter((name) => name !== 'Net'));
  await things.askRemove('alphas', alpha);
  expect(things.asked).toBe(null);
  expect(library.alphas.some(({ id }) => id === alpha.id)).toBe(false);
});

test('a name that is taken or none, and work that isn’t saved: a sentence, and nothing changed', async () => {
  there.load();
  const [doc, other] = [await kept('Shingle'), await kept('Mud')];
  const [things, steps] = [useStoredThings(), useRackSteps()];
  await expect(things.rename('sources', doc, 'MUD')).rejects.toThrow('already a source called');
  await expect(things.rename('sources', doc, '   ')).rejects.toThrow('A name is needed');
  await sourceDrafts.keep({ doc: other, revision: 1, keptAt: 1, pending: false });
  await expect(things.rename('sources', other, 'Clay')).rejects.toThrow('changes that aren’t saved');
  expect(steps.canUndo).toBe(false);
  expect(await names()).toEqual(expect.arrayContaining(['Shingle', 'Mud']));
  await sourceDrafts.drop(other.id);
  await things.rename('sources', other, 'Clay');
  expect(steps.canUndo).toBe(true);
});

test('what can’t be undone any more says why, and stays to be undone', async () => {
  there.load();
  const doc = await kept('Ripple');
  const [things, steps] = [useStoredThings(), useRackSteps()];
  await things.rename('sources', doc, 'Ripple sand');
  await kept('Ripple');
  await steps.undo();
  expect(steps.said).toMatchObject({
    failed: true,
    text: expect.stringContaining('already a source called') as string,
  });
  expect(steps.canUndo).toBe(true);
  expect(await names()).toEqual(expect.arrayContaining(['Ripple', 'Ripple sand']));
});

test('a deletion that was taken back by the trash is no step any more, and what came before it can be undone', async () => {
  there.load();
  const doc = await kept('Limpet');
  const [things, steps, library] = [useStoredThings(), useRackSteps(), useLibrary()];
  await library.ready();
  await things.rename('sources', doc, 'Limpet rings');
  await things.remove('sources', { id: doc.id, card: { name: 'Limpet rings' } });
  await library.restore('sources', doc.id);
  await steps.undo();
  expect(steps.said).toMatchObject({ failed: true });
  await steps.undo();
  expect(await names()).toContain('Limpet');
});
