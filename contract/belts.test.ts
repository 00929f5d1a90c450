/** Belts: at once in the page however quickly they change, kept by the server, gone along, found by another page. */
import fc from 'fast-check';
import { FAVOURITES_ID, newBrush, type Belt } from '#core/settings';
import { FIRST, useBelts } from '../web/stores/belts';
import { useLibrary } from '../web/stores/library';
import { until, world, type World } from './page';

let there: World;
const brushes: string[] = [];
beforeAll(async () => {
  there = await world();
  for (let n = 0; n < 6; n++) {
    const doc = newBrush(crypto.randomUUID(), `Brush ${n}`);
    await there.ask(`/brushes/${doc.id}`, 'PUT', { doc, revision: null });
    brushes.push(doc.id);
  }
});
afterAll(() => there.close());

async function page(): Promise<ReturnType<typeof useBelts>> {
  there.load();
  const belts = useBelts();
  await useLibrary().ready();
  return belts;
}
const first = async (): Promise<string[]> => ((await there.ask('/belt')).json as { ids: string[] }).ids;
const served = async (): Promise<Belt[]> => ((await there.ask('/belts')).json as { items: Belt[] }).items;

test('property: whatever is put on, taken off and ordered in a hurry, the belt and the server have the last of it', async () => {
  const belts = await page();
  const orders = fc.array(fc.tuple(fc.constantFrom('toggle', 'last', 'none'), fc.nat(5)), {
    minLength: 1,
    maxLength: 7,
  });
  const mine = belts.create('Hurried');
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(FIRST, mine), orders, async (belt, all) => {
      await belts.set(belt, []);
      let model: string[] = [];
      const waits: Promise<void>[] = [];
      for (const [what, n] of all) {
        const id = brushes[n];
        if (what === 'none') await Promise.resolve();
        else if (what === 'toggle') {
          model = model.includes(id) ? model.filter((one) => one !== id) : [...model, id];
          waits.push(belts.toggle(belt, id));
        } else if (model.includes(id)) {
          model = [...model.filter((one) => one !== id), id];
          waits.push(belts.place(belt, [id], []));
        }
        expect(belts.all.find(({ id: one }) => one === belt)!.ids).toEqual(model);
      }
      await Promise.all(waits);
      await belts.send();
      const kept = belt === FIRST ? await first() : (await served()).find(({ id }) => id === belt)!.brushes;
      expect(kept).toEqual(model);
    }),
    { numRuns: 25 },
  );
});

test('the first belt goes back to what the server has where a change can’t be kept', async () => {
  const belts = await page();
  await belts.set(FIRST, brushes.slice(0, 2));
  there.away = true;
  await expect(belts.toggle(FIRST, brushes[3])).rejects.toThrow('can’t be reached');
  expect(belts.open.ids).toEqual(brushes.slice(0, 2));
  there.away = false;
});

test('what is saved goes onto the open belt; favourites are one too, found by another page', async () => {
  const belts = await page();
  const mine = belts.create('Stone', [brushes[0]]);
  expect(belts.open.name).toBe('Stone');
  await belts.add(brushes[1]);
  await belts.add(brushes[1]);
  expect(belts.open.ids).toEqual(brushes.slice(0, 2));
  await belts.toggle(FAVOURITES_ID, brushes[4]);
  belts.rename(mine, 'Wood');
  await belts.send();
  const other = await page();
  await until(() => other.favourites.has(brushes[4]));
  // A heart pressed before they were fetched goes to the same favourites.
  const hurried = await page();
  await hurried.toggle(FAVOURITES_ID, brushes[5]);
  await hurried.send();
  expect((await served()).find(({ id }) => id === FAVOURITES_ID)!.brushes).toEqual([brushes[4], brushes[5]]);
  expect(other.all.map(({ name }) => name)).toEqual(['At hand', 'Favourites', 'Hurried', 'Wood']);
  // Round and round, both ways.
  other.wanted = mine;
  other.turn(1);
  expect(other.open.name).toBe('At hand');
  other.turn(-1);
  expect(other.open.name).toBe('Wood');
  const back = await other.remove(mine);
  expect(other.open.name).toBe('At hand');
  await back();
  await other.send();
  expect((await served()).map(({ card }) => card.name).sort()).toEqual(['Favourites', 'Hurried', 'Wood']);
});

test('a brush that is deleted leaves its place on a belt, and comes back to it', async () => {
  const belts = await page();
  await until(() => belts.all.length === 4);
  const { id } = belts.all.find(({ name }) => name === 'Wood')!;
  await belts.set(id, [brushes[2], brushes[3], brushes[4]]);
  const library = useLibrary();
  await library.remove('brushes', brushes[3]);
  await belts.place(id, [brushes[4]], [brushes[2]]);
  await library.restore('brushes', brushes[3]);
  expect(belts.all.find((belt) => belt.id === id)!.ids).toEqual([brushes[4], brushes[2], brushes[3]]);
  await expect(
    belts.set(
      id,
      Array.from({ length: 201 }, () => crypto.randomUUID()),
    ),
  ).rejects.toThrow('at most 200');
  expect(belts.all.find((belt) => belt.id === id)!.ids.length).toBe(3);
});
