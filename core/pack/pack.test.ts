import { seeded } from '#core/random';
import { brushesOf, newPack, PackSchema, type Pack } from '#core/settings';
import { referencesOf } from '#core/stored';
import { namesByPattern, withBrushes, withoutBrushes, withoutGroup } from '.';

const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const ids = (...ns: number[]): string[] => ns.map(id);
const pack = (...groups: number[][]): Pack =>
  newPack(id(900), 'Harbour', { groups: groups.map((own, g) => ({ name: `${g}`, brushes: ids(...own) })) });
const order = ({ groups }: Pack): number[][] =>
  groups.map(({ brushes }) => brushes.map((one) => Number(one.slice(-3))));

describe('the order of a pack', () => {
  const start = pack([1, 2, 3, 4], [5, 6]);

  test('several go together to one place, in the order given', () => {
    expect(order(withBrushes(start, ids(4, 1), { group: 0, before: id(3) }))).toEqual([
      [2, 4, 1, 3],
      [5, 6],
    ]);
    expect(order(withBrushes(start, ids(2, 5), { group: 1, before: null }))).toEqual([
      [1, 3, 4],
      [6, 2, 5],
    ]);
    // New ones come in, and a place before one of themselves is before what follows it.
    expect(order(withBrushes(start, ids(7), { group: 0, before: id(1) }))).toEqual([
      [7, 1, 2, 3, 4],
      [5, 6],
    ]);
    expect(order(withBrushes(start, ids(2, 3), { group: 0, before: id(2) }))).toEqual([
      [1, 2, 3, 4],
      [5, 6],
    ]);
    expect(order(start)).toEqual([
      [1, 2, 3, 4],
      [5, 6],
    ]);
  });

  test('whatever is dragged wherever, a brush is in it once, none is lost, and the rest keeps its order', () => {
    const random = seeded(7);
    let now = start;
    for (let n = 0; n < 500; n++) {
      const all = brushesOf(now);
      const moved = all.filter(() => random() < 0.3);
      const group = random() < 0.5 ? 0 : 1;
      const before = random() < 0.2 ? null : (all[Math.floor(random() * all.length)] ?? null);
      const next = PackSchema.parse(withBrushes(now, moved, { group, before }));
      expect(brushesOf(next).sort()).toEqual([...all].sort());
      const rest = (of: Pack): number[][] => order(withoutBrushes(of, moved));
      expect(rest(next)).toEqual(rest(now));
      now = next;
    }
  });

  test('a group that is removed leaves its brushes to the one beside it; the last stays', () => {
    expect(order(withoutGroup(start, 1))).toEqual([[1, 2, 3, 4, 5, 6]]);
    expect(order(withoutGroup(start, 0))).toEqual([[1, 2, 3, 4, 5, 6]]);
    expect(order(withoutGroup(pack([1]), 0))).toEqual([[1]]);
  });

  test('a brush twice, too many groups and a name too long are refused with a sentence', () => {
    const read = (over: Partial<Pack>) => PackSchema.safeParse({ ...start, ...over }).error?.issues[0]?.message;
    expect(read({ groups: [{ name: '', brushes: ids(1, 1) }] })).toBe('A brush is in a pack only once.');
    expect(read({ groups: Array.from({ length: 65 }, () => ({ name: '', brushes: [] })) })).toContain('64 groups');
    expect(read({ groups: [] })).toContain('a group at least');
    expect(read({ licence: 'x'.repeat(301) })).toContain('300 characters');
  });

  test('it names its brushes, and can do without each', () => {
    const { blobs, documents } = referencesOf('packs', start);
    expect(blobs).toEqual([]);
    expect(documents.map((one) => one.id)).toEqual(ids(1, 2, 3, 4, 5, 6));
    expect(documents.every((one) => !one.needed && one.collection === 'brushes')).toBe(true);
  });
});

describe('names by a pattern', () => {
  const of = ['Crust', 'Limpet', 'Weed'].map((name, n) => ({ id: id(n), name, maker: 'Tidewrack' }));

  test('fields are filled in; what is no field stays', () => {
    expect(namesByPattern('{maker} – {name}', of, [])).toEqual([
      'Tidewrack – Crust',
      'Tidewrack – Limpet',
      'Tidewrack – Weed',
    ]);
    expect(namesByPattern('Pit {n} {x}', of, [])[2]).toBe('Pit 3 {x}');
    const many = Array.from({ length: 12 }, () => of[0]!);
    expect(namesByPattern('Pit {nn}', many, [])[1]).toBe('Pit 02');
  });

  test('no two are alike, nor like another’s; each has room for its number', () => {
    expect(namesByPattern('Pit', of, ['PIT', 'pit 3'])).toEqual(['Pit 2', 'Pit 4', 'Pit 5']);
    const long = namesByPattern('x'.repeat(200), of, []);
    expect(new Set(long).size).toBe(3);
    expect(long.every((name) => name.length <= 80)).toBe(true);
    expect(namesByPattern('  ', of, [])).toEqual(['', '', '']);
  });
});
