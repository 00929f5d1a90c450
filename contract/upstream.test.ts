/** Which casts are behind their sources, whatever is saved while that is looked at; and earlier saves taken back. */
import fc from 'fast-check';
import {
  ALPHA_VERSION,
  AlphaSchema,
  newGrow,
  PatternSchema,
  SOURCE_VERSION,
  type Alpha,
  type Pattern,
} from '#core/settings';
import * as api from '../web/api/client';
import { useStoredThings } from '../web/stores/storedThings';
import { useLibrary } from '../web/stores/library';
import { useRackSteps } from '../web/stores/rackSteps';
import { useUpstream } from '../web/stores/upstream';
import { until, world, type World } from './page';

let there: World;
let blob: string;
beforeAll(async () => {
  there = await world();
  there.load();
  blob = await api.putBlob(new Uint8Array(8 * 8 * 2));
});
afterAll(() => there.close());

/** A pattern, and an alpha cast from it. */
async function cast(): Promise<{ source: Pattern; alpha: Alpha }> {
  const source = PatternSchema.parse({
    version: SOURCE_VERSION,
    kind: 'pattern',
    id: crypto.randomUUID(),
    card: { name: `Weave ${crypto.randomUUID()}` },
    grow: newGrow('cells'),
  });
  await api.save('sources', source, null);
  const alpha = AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: crypto.randomUUID(),
    card: { name: source.card.name },
    size: 8,
    relief: 0.1,
    ground: 0,
    blob,
    lineage: { sourceId: source.id, sourceRevision: 1, floor: 0, crown: 0.1 },
    report: { marginPx: 0, ringLoss: 0, usedRange: 1 },
  });
  await api.save('alphas', alpha, null);
  return { source, alpha };
}
/** Saved by another page, and heard of. */
async function saved(source: Pattern, seed: number, note: string): Promise<void> {
  const { revision } = await api.get('sources', source.id);
  const doc = { ...source, grow: { ...source.grow, seed }, card: { ...source.card, notes: note } };
  useLibrary().putSource(await api.save('sources', doc, revision));
}

test('property: a cast is behind when its source reads otherwise than it did, and not for a note or a way back', async () => {
  const saves = fc.array(fc.tuple(fc.constantFrom(1, 1, 2), fc.string({ maxLength: 3 }), fc.boolean()), {
    minLength: 1,
    maxLength: 4,
  });
  await fc.assert(
    fc.asyncProperty(saves, async (all) => {
      there.load();
      const { source, alpha } = await cast();
      const [library, upstream] = [useLibrary(), useUpstream()];
      await library.ready();
      const looks: Promise<void>[] = [];
      for (const [seed, note, looked] of all) {
        if (looked) looks.push(upstream.look());
        await saved(source, source.grow.seed + seed - 1, note);
      }
      await Promise.all([...looks, upstream.look()]);
      expect(upstream.ids.has(alpha.id)).toBe(all.at(-1)![0] !== 1);
    }),
    { numRuns: 20 },
  );
});

test('without the server nothing is claimed; it is looked at again once that is back', async () => {
  there.load();
  const { source, alpha } = await cast();
  const [library, upstream] = [useLibrary(), useUpstream()];
  await library.ready();
  await saved(source, 77, '');
  there.away = true;
  await upstream.look();
  expect(upstream.ids.has(alpha.id)).toBe(false);
  there.away = false;
  await there.later();
  await until(() => upstream.ids.has(alpha.id));
});

test('an earlier save is taken back as a step; what another page saved since is not undone', async () => {
  there.load();
  const { source } = await cast();
  const [library, kept, steps] = [useLibrary(), useStoredThings(), useRackSteps()];
  await library.ready();
  const seed = async (): Promise<number> => ((await api.get('sources', source.id)).doc as Pattern).grow.seed;
  await saved(source, 5, 'five');
  await kept.takeBack('sources', source, await api.revision('sources', source.id, 1));
  expect(await seed()).toBe(source.grow.seed);
  await Promise.all([steps.undo(), steps.redo(), steps.undo()]);
  expect(await seed()).toBe(5);
  await saved(source, 9, 'nine');
  await steps.redo();
  expect(steps.said).toMatchObject({ failed: true, text: expect.stringContaining('was changed since') as string });
  expect(await seed()).toBe(9);
});
