import fc from 'fast-check';
import { LetteringSchema, PatternSchema, ScanSchema, SheetSchema, SlabSchema, SOURCE_VERSION } from '#core/settings';
import { familyOf, inRows, readByCast, type Kin } from './index';

const kin = (id: string, ...from: string[]): Kin => ({ id, from });
const ids = (some: readonly Kin[]): string[] => some.map(({ id }) => id);

const HARBOUR = [
  kin('crust'),
  kin('rings'),
  kin('whole', 'crust'),
  kin('one', 'crust'),
  kin('limpet', 'rings'),
  kin('grown', 'whole'),
  kin('press', 'one', 'limpet'),
  kin('pack', 'grown', 'press'),
  kin('other pack', 'press'),
];

test('a source: everything that came of it, and nothing beside', () => {
  const { members, links } = familyOf(HARBOUR, 'rings');
  expect(ids(members)).toEqual(['rings', 'limpet', 'press', 'pack', 'other pack']);
  expect(links).toEqual([
    { from: 'rings', to: 'limpet' },
    { from: 'limpet', to: 'press' },
    { from: 'press', to: 'pack' },
    { from: 'press', to: 'other pack' },
  ]);
});

test('a brush: what it was made of, back to the sources, and where it went', () => {
  expect(ids(familyOf(HARBOUR, 'press').members)).toEqual([
    'crust',
    'rings',
    'one',
    'limpet',
    'press',
    'pack',
    'other pack',
  ]);
});

test('what is gone is left out, and alphas that mix each other in are met once', () => {
  const ring = [kin('a', 'b', 'gone'), kin('b', 'a'), kin('brush', 'a')];
  const { members, links } = familyOf(ring, 'a');
  expect(ids(members)).toEqual(['a', 'b', 'brush']);
  expect(links).toContainEqual({ from: 'b', to: 'a' });
  expect(links).toContainEqual({ from: 'a', to: 'brush' });
  expect(familyOf(ring, 'nobody')).toEqual({ members: [], links: [] });
});

test('property: everything shown leads to or from the thing, by links that are shown', () => {
  const some = fc
    .array(fc.array(fc.nat(20), { maxLength: 4 }), { minLength: 1, maxLength: 20 })
    .map((all) => all.map((from, i) => kin(String(i), ...from.map(String))));
  fc.assert(
    fc.property(some, fc.nat(19), (all, at) => {
      const id = String(at % all.length);
      const { members, links } = familyOf(all, id);
      const walked = (next: 'from' | 'to', back: 'from' | 'to'): Set<string> => {
        const seen = new Set([id]);
        for (const one of seen) for (const link of links) if (link[back] === one) seen.add(link[next]);
        return seen;
      };
      const reached = new Set([...walked('from', 'to'), ...walked('to', 'from')]);
      expect([...reached].sort()).toEqual(ids(members).sort());
      for (const { from, to } of links) expect(all.find((one) => one.id === to)?.from).toContain(from);
    }),
  );
});

test('a column stands in the order of the one before, so that lines don’t cross', () => {
  const columns = [
    [kin('a'), kin('b'), kin('c')],
    [kin('of c', 'c'), kin('of a', 'a'), kin('of b', 'b')],
    [kin('of b too', 'of b'), kin('lone'), kin('of a too', 'of a')],
  ];
  expect(inRows(columns).map(ids)).toEqual([
    ['a', 'b', 'c'],
    ['of a', 'of b', 'of c'],
    ['of a too', 'of b too', 'lone'],
  ]);
});

const ID = '00000000-0000-4000-8000-00000000000';
const HASH = 'a'.repeat(64);
const OTHER = 'b'.repeat(64);
const head = (name = 'Crust') => ({ version: SOURCE_VERSION, id: `${ID}1`, card: { name } });
const patch = (name: string, side: number, id: string) => ({
  id,
  name,
  at: { x: 0, y: 0, z: 0 },
  normal: { x: 0, y: 0, z: 1 },
  cast: { frame: { side } },
});
const slab = (more: object) => SlabSchema.parse({ ...head(), kind: 'slab', cells: 256, blob: HASH, ...more });
const scan = (patches: object[], mesh = HASH) =>
  ScanSchema.parse({
    ...head(),
    kind: 'scan',
    file: { name: 'stone.ply', what: 'PLY' },
    mesh,
    vertices: 3,
    triangles: 1,
    perBody: 1,
    patches,
  });

describe('what a cast reads', () => {
  test('a slab: its clay and what lies on it, not its name, its masks or where its frame is now', () => {
    const before = readByCast(slab({}), null);
    expect(readByCast(slab({ card: { name: 'Old crust', notes: 'wet' } }), null)).toBe(before);
    expect(readByCast(slab({ mask: OTHER, cast: { frame: { side: 1 } } }), null)).toBe(before);
    expect(readByCast(slab({ blob: OTHER }), null)).not.toBe(before);
    expect(readByCast(slab({ setForms: [{ id: `${ID}2`, form: 'dome', x: 0, y: 0 }] }), null)).not.toBe(before);
  });

  test('a scan: its mesh and one patch, whatever becomes of the others', () => {
    const [one, two] = [`${ID}3`, `${ID}4`];
    const before = readByCast(scan([patch('Moss', 0.5, one), patch('Chips', 0.5, two)]), one);
    expect(readByCast(scan([patch('Lichen', 0.5, one), patch('Chips', 0.7, two)]), one)).toBe(before);
    expect(readByCast(scan([patch('Moss', 0.6, one)]), one)).not.toBe(before);
    expect(readByCast(scan([patch('Moss', 0.5, one)], OTHER), one)).not.toBe(before);
    expect(readByCast(scan([]), one)).not.toBe(before);
  });

  test('a sheet: its picture; marks found anew are none of a cast’s', () => {
    const file = { name: 'prints.png', width: 100, height: 100, what: 'PNG' };
    const sheet = (more: object, blob = HASH) =>
      readByCast(SheetSchema.parse({ ...head(), kind: 'sheet', file: { ...file, blob }, ...more }), null);
    expect(sheet({ marks: [], dark: false })).toBe(sheet({}));
    expect(sheet({}, OTHER)).not.toBe(sheet({}));
  });

  test('lettering and patterns: all but their cards', () => {
    const block = { id: `${ID}5`, text: 'WHARF', font: { kind: 'shipped', key: 'oswald' } };
    const words = (text: string, name?: string) =>
      readByCast(LetteringSchema.parse({ ...head(name), kind: 'lettering', blocks: [{ ...block, text }] }), null);
    expect(words('WHARF', 'Sign')).toBe(words('WHARF'));
    expect(words('QUAY')).not.toBe(words('WHARF'));
    const weave = (seed: number, name?: string) =>
      readByCast(PatternSchema.parse({ ...head(name), kind: 'pattern', grow: { form: 'weave', seed } }), null);
    expect(weave(1, 'Weave')).toBe(weave(1));
    expect(weave(2)).not.toBe(weave(1));
  });
});
