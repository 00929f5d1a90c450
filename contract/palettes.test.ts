/** Palettes: kept at once in the browser, sent a moment later, and never lost between windows or without a server. */
import { usePalettes } from '../web/stores/palettes';
import { until, world, type World } from './page';

let there: World;
beforeAll(async () => {
  there = await world();
});
afterAll(() => there.close());

type Palettes = ReturnType<typeof usePalettes>;
/** What the browser keeps goes from page to page, as in one browser; `fresh` is another browser. */
function page(): Palettes {
  there.load();
  return usePalettes();
}
const served = async (): Promise<{ card: { name: string }; groups: { colours: { colour: string }[] }[] }[]> =>
  ((await there.ask('/palettes')).json as { items: [] }).items;
const coloursOf = (palette: { groups: { colours: { colour: string }[] }[] }): string[] =>
  palette.groups.flatMap(({ colours }) => colours.map(({ colour }) => colour));
const add = (own: Palettes, colour: string): void =>
  own.edit(({ groups }) => groups[0]!.colours.push({ colour, name: '' }));

test('changes in quick succession are all there; another page finds them; a palette taken away comes back', async () => {
  const own = page();
  for (const colour of ['#112233', '#445566', '#778899']) add(own, colour);
  await own.send();
  add(own, '#aabbcc');
  const going = own.send();
  add(own, '#ddeeff');
  await going;
  await own.send();
  expect((await served()).map(coloursOf)).toEqual([['#112233', '#445566', '#778899', '#aabbcc', '#ddeeff']]);
  const other = page();
  await until(() => other.all.length === 1);
  expect(other.colours.length).toBe(5);
  const back = await other.remove();
  expect(await served()).toEqual([]);
  await back();
  await other.send();
  expect((await served()).map(coloursOf)[0]!.length).toBe(5);
});

test('without a server changes wait, and are sent when it is back', async () => {
  const own = page();
  await until(() => own.all.length === 1);
  there.away = true;
  add(own, '#010203');
  await own.send();
  own.add('Harbour', [{ colour: '#405060', name: 'Slate' }]);
  await own.send();
  expect(own.all.length).toBe(2);
  there.away = false;
  await there.later();
  await until(async () => (await served()).length === 2);
  expect((await served()).flatMap(coloursOf)).toEqual(expect.arrayContaining(['#010203', '#405060']));
});

test('what two windows change at once is kept beside each other', async () => {
  const [a, b] = [page(), page()];
  await until(() => a.all.length === 2 && b.all.length === 2);
  const id = a.all[0]!.id;
  a.openId = id;
  add(a, '#a1a1a1');
  await a.send();
  // The other still knows the palette as it was.
  b.openId = id;
  add(b, '#b2b2b2');
  await b.send();
  await b.send();
  const all = (await served()).map(coloursOf);
  expect(all.some((one) => one.includes('#a1a1a1') && !one.includes('#b2b2b2'))).toBe(true);
  expect(all.some((one) => one.includes('#b2b2b2') && !one.includes('#a1a1a1'))).toBe(true);
});

test('two of one name get two names; ten thousand colours are refused and change nothing', async () => {
  const own = page();
  await until(() => own.all.length >= 2);
  const before = own.all.length;
  own.add('Harbour', []);
  expect(new Set(own.all.map(({ card }) => card.name)).size).toBe(before + 1);
  const many = Array.from({ length: 10_000 }, () => ({ colour: '#000000', name: '' }));
  expect(() => own.add('Many', many)).toThrow('10000 colours');
  expect(() => own.edit(({ groups }) => groups[0]!.colours.push(...many.slice(0, 600)))).toThrow('512');
  expect(own.all.length).toBe(before + 1);
  await own.send();
});
