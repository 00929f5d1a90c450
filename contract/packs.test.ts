/** Packs on the rack: kept at once, sent a moment later, undone step by step, and nothing lost between windows. */
import { seeded } from '#core/random';
import { brushesOf, newBrush } from '#core/settings';
import { usePacks } from '../web/stores/packs';
import { useRackSteps } from '../web/stores/rackSteps';
import { useLibrary } from '../web/stores/library';
import { useManyBrushes } from '../web/stores/manyBrushes';
import * as api from '../web/api/client';
import { until, world, type World } from './page';

let there: World;
const made: string[] = [];
beforeAll(async () => {
  there = await world();
  there.load();
  for (let n = 1; n <= 6; n++) {
    const brush = newBrush(crypto.randomUUID(), `Brush ${n}`);
    await api.save('brushes', brush, null);
    made.push(brush.id);
  }
});
afterAll(() => there.close());

type Packs = ReturnType<typeof usePacks>;
function page(): { packs: Packs; steps: ReturnType<typeof useRackSteps> } {
  there.load();
  return { packs: usePacks(), steps: useRackSteps() };
}
const served = async (): Promise<{ id: string; card: { name: string }; groups: { brushes: string[] }[] }[]> =>
  ((await there.ask('/packs')).json as { items: [] }).items;

test('made, filled, ordered and shared between two; all of it undone and done again, whole', async () => {
  const { packs, steps } = page();
  const a = packs.create('Crusts', made.slice(0, 3)).id;
  const b = packs.create('Fittings', []).id;
  await packs.send();
  packs.place([made[2]!, made[3]!], a, { group: 0, before: made[0]! });
  packs.place([made[0]!], b, { group: 0, before: null }, [a]);
  packs.place([made[1]!], b, { group: 0, before: null });
  await packs.send();
  const now = async (): Promise<string[][]> => [brushesOf(packs.docOf(a)!), brushesOf(packs.docOf(b)!)];
  const last = [
    [made[2], made[3], made[1]],
    [made[0], made[1]],
  ];
  expect(await now()).toEqual(last);
  expect((await served()).map(brushesOf).map((own) => own.length)).toEqual([3, 2]);
  expect(packs.packsOf.get(made[1]!)!.map(({ card }) => card.name)).toEqual(['Crusts', 'Fittings']);
  await steps.undo();
  await steps.undo();
  expect(await now()).toEqual([[made[2], made[3], made[0], made[1]], []]);
  void steps.redo();
  await steps.redo();
  expect(await now()).toEqual(last);
  // A deleted pack comes back as another; steps before it go on with that.
  await packs.remove(a);
  expect(await served()).toHaveLength(1);
  await steps.undo();
  await steps.undo();
  await steps.undo();
  await packs.send();
  const crusts = (await served()).find(({ card }) => card.name === 'Crusts')!;
  expect(brushesOf(crusts)).toEqual([made[2], made[3], made[0], made[1]]);
});

test('without a server changes wait; another window’s are kept beside', async () => {
  const first = page();
  await until(() => first.packs.all.length === 2);
  const second = page();
  await until(() => second.packs.all.length === 2);
  const { id } = first.packs.all.find(({ card }) => card.name === 'Fittings')!;
  there.away = true;
  first.packs.place([made[4]!], id, { group: 0, before: null });
  await first.packs.send();
  there.away = false;
  second.packs.place([made[5]!], id, { group: 0, before: null });
  await second.packs.send();
  await first.packs.send();
  await first.packs.send();
  const all = (await served()).filter(({ card }) => card.name.startsWith('Fittings'));
  expect(all.some((pack) => brushesOf(pack).includes(made[4]!))).toBe(true);
  expect(all.some((pack) => brushesOf(pack).includes(made[5]!))).toBe(true);
});

test('taken by the server while its answer is lost, it is no other window’s: one pack, with what changed since', async () => {
  const { packs } = page();
  await until(() => packs.loaded);
  const before = (await served()).length;
  const real = globalThis.fetch;
  globalThis.fetch = async (...args) => {
    const answer = await real(...args);
    if (args[1]?.method === 'PUT') throw new TypeError('The answer is lost.');
    return answer;
  };
  const { id } = packs.create('Lost answer', [made[0]!]);
  await packs.send();
  packs.place([made[1]!], id, { group: 0, before: null });
  await packs.send();
  globalThis.fetch = real;
  await packs.send();
  packs.place([made[2]!], id, { group: 0, before: null });
  await packs.send();
  const now = await served();
  expect(now).toHaveLength(before + 1);
  expect(brushesOf(now.find((pack) => pack.id === id)!)).toEqual(made.slice(0, 3));
  await packs.remove(id);
});

test('in whatever order brushes are moved, undone, done again and sent, the server ends with what is seen', async () => {
  const { packs, steps } = page();
  await until(() => packs.all.length > 1);
  const [a, b] = [packs.create('One', made.slice(0, 3)).id, packs.create('Two', made.slice(3)).id];
  await packs.send();
  const state = (): string[][] => [a, b].map((id) => brushesOf(packs.docOf(id)!));
  const seen = [state()];
  let at = 0;
  const random = seeded(11);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const going: Promise<unknown>[] = [];
  for (let n = 0; n < 80; n++) {
    const act = random();
    if (act < 0.45) {
      const [to, from] = pick([
        [a, b],
        [b, a],
      ] as const);
      const ids = made.filter(() => random() < 0.3);
      // Steps that are asked for go first: what is seen is what the next is made on.
      await Promise.all(going.splice(0));
      const before = JSON.stringify(state());
      packs.place(ids, to, { group: 0, before: pick([...made, null]) }, random() < 0.5 ? [from] : []);
      if (JSON.stringify(state()) === before) continue;
      seen.splice(++at, Infinity, state());
    } else if (act < 0.65) {
      // The two that made the packs stay done.
      if (at === 0) continue;
      at--;
      going.push(steps.undo());
    } else if (act < 0.8) {
      if (at === seen.length - 1) continue;
      at++;
      going.push(steps.redo());
    } else if (act < 0.9) going.push(packs.send());
    else there.away = !there.away;
    if (random() < 0.3) await new Promise((next) => setTimeout(next, random() * 8));
    if (going.length === 0) expect(state()).toEqual(seen[at]);
  }
  await Promise.all(going);
  expect(state()).toEqual(seen[at]);
  there.away = false;
  for (let n = 0; n < 3; n++) await packs.send();
  const kept = await served();
  expect([a, b].map((id) => brushesOf(kept.find((one) => one.id === id)!))).toEqual(seen[at]);
  // As many packs as there were: nothing was taken for another window's.
  expect(kept.filter(({ card }) => /^(One|Two)/.test(card.name)).length).toBe(2);
});

test('what can’t be a pack any more changes nothing; a deleted brush leaves its place for when it comes back', async () => {
  const { packs } = page();
  await until(() => packs.all.length > 1);
  const pack = packs.all[0]!;
  const groups = Array.from({ length: 70 }, () => ({ name: '', brushes: [] }));
  expect(() => packs.change('Too much.', [pack.id], (own) => ({ ...own, groups }))).toThrow('64 groups');
  expect(packs.docOf(pack.id)).toEqual(pack);
  const one = brushesOf(pack)[0]!;
  await api.remove('brushes', one);
  packs.about(pack.id, (own) => (own.site = 'tidewrack.example'));
  await packs.send();
  expect(packs.problem).toBeNull();
  await api.restore('brushes', one);
  expect(brushesOf((await served()).find(({ id }) => id === pack.id)!)).toContain(one);
});

test('many at once: tagged, renamed, copied and deleted, each one step; up to the first that can’t be done', async () => {
  page();
  const library = useLibrary();
  const [many, steps] = [useManyBrushes(), useRackSteps()];
  await library.ready();
  const three = made.slice(0, 3);
  const cards = async () => Promise.all(three.map(async (id) => (await api.get('brushes', id)).doc.card));
  await many.editCards(
    three,
    (count) => `${count} tagged.`,
    (card) => card.tags.push('tide'),
  );
  await many.editCards(
    three,
    (count) => `${count} renamed.`,
    (card, i) => (card.name = `Crust ${i + 1}`),
  );
  expect(await cards()).toMatchObject([1, 2, 3].map((n) => ({ name: `Crust ${n}`, tags: ['tide'] })));
  await steps.undo();
  await steps.undo();
  expect(await cards()).toMatchObject([1, 2, 3].map((n) => ({ name: `Brush ${n}`, tags: [] })));
  // The second has a name that is taken: the first is done, and a step; the others are as before.
  const failing = many.editCards(
    three,
    (count) => `${count} renamed.`,
    (card, i) => (card.name = i === 1 ? 'Brush 6' : `Shell ${i}`),
  );
  await expect(failing).rejects.toThrow('2 brushes of 3 left as before.');
  expect((await cards()).map(({ name }) => name)).toEqual(['Shell 0', 'Brush 2', 'Brush 3']);
  await steps.undo();
  await many.remove(three);
  expect(three.some((id) => library.has('brushes', id))).toBe(false);
  await steps.undo();
  expect((await cards()).map(({ name }) => name)).toEqual(['Brush 1', 'Brush 2', 'Brush 3']);
  const before = library.drafts.length;
  await many.copy(three);
  expect(library.drafts.length).toBe(before + 3);
  await steps.undo();
  expect(library.drafts.length).toBe(before);
});
