import fc from 'fast-check';
import { packMesh } from '#core/formats';
import type { RawMesh } from '#core/mesh';
import { seeded } from '#core/random';
import { newBrush, newPack, newPalette, brushesOf } from '#core/settings';
import {
  brushKey,
  judgeDocuments,
  judgeEntries,
  keyed,
  MANIFEST_PATH,
  meet,
  meshFromGlb,
  meshToGlb,
  packTaken,
  planPack,
  readManifest,
  renamed,
  taking,
  type Choice,
  type Existing,
  type Manifest,
  type Thing,
  type ZipEntry,
} from '.';

const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const HASH = 'ab'.repeat(32);
const nobody = { maker: 'Tidewrack Workshop', site: '', licence: 'CC0-1.0', pack: 'Crusts' };
const about = { title: 'Trenail', provenance: nobody, millimetres: 40 };

function mesh(seed: number, carries: boolean): RawMesh {
  const random = seeded(seed);
  const vertices = 3 + Math.floor(random() * 40);
  const triangles = 1 + Math.floor(random() * 60);
  return {
    positions: Float32Array.from({ length: vertices * 3 }, () => (random() - 0.5) * 10 ** Math.floor(random() * 6)),
    triangles: Uint32Array.from({ length: triangles * 3 }, () => Math.floor(random() * vertices)),
    ...(carries
      ? {
          carried: {
            coordinates: Float32Array.from({ length: triangles * 6 }, () => random()),
            groups: { of: Uint16Array.from({ length: triangles }, (_, i) => i % 2), names: ['Kopf', 'Bühne'] },
          },
          colours: Uint8Array.from({ length: vertices * 3 }, () => Math.floor(random() * 256)),
        }
      : {}),
  };
}

describe('a mesh as a GLB', () => {
  test('comes back to the bit, with corners, groups and colours', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const raw = mesh(seed, seed % 2 === 0);
      const back = meshFromGlb(meshToGlb(raw, about));
      expect(Buffer.compare(new Uint8Array(packMesh(back)), new Uint8Array(packMesh(raw)))).toBe(0);
    }
  });

  test('out of a Buffer as well, whose slices are no copies', () => {
    const raw = mesh(2, true);
    const all = Buffer.concat([Buffer.alloc(37, 1), meshToGlb(raw, about)]);
    expect(meshFromGlb(all.subarray(37))).toEqual(raw);
  });

  test('says whose it is', () => {
    const glb = meshToGlb(
      { positions: new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]), triangles: new Uint32Array([0, 1, 2]) },
      about,
    );
    expect(Buffer.from(glb).toString('latin1')).toContain('"copyright":"Tidewrack Workshop, CC0-1.0"');
  });

  test('cut or flipped anywhere it is read, or refused with a sentence', () => {
    const glb = meshToGlb(mesh(4, true), about);
    const random = seeded(5);
    for (let n = 0; n < 300; n++) {
      const broken = n % 2 ? glb.slice(0, Math.floor(random() * glb.length)) : glb.slice();
      if (n % 2 === 0) broken[Math.floor(random() * Math.min(900, glb.length))] ^= 1 << Math.floor(random() * 8);
      try {
        meshFromGlb(broken);
      } catch (error) {
        expect((error as Error).message).toMatch(/^The mesh can’t be read: .*\.$/);
      }
    }
  });
});

describe('what goes into a pack file', () => {
  const brush = (n: number, name: string, author = ''): ReturnType<typeof newBrush> => newBrush(id(n), name, author);
  const pack = {
    ...newPack(id(900), 'Harbour crusts', { groups: [{ name: '', brushes: [id(2), id(1)] }] }),
    licence: 'CC-BY-4.0',
    site: 'tidewrack.example',
  };
  const contents = {
    name: 'Harbour crusts',
    pack,
    brushes: [brush(2, 'Pits'), brush(1, 'pits', 'Someone else'), brush(3, '../CON')],
    alphas: [],
    parts: [],
    sources: [],
    palettes: [newPalette(id(50), 'Wharf')],
  };

  test('no two paths alike, none leads out, the same each time', () => {
    const plan = planPack(contents);
    const paths = [...plan.documents, ...plan.pictures].map(({ path }) => path);
    expect(new Set(paths.map((path) => path.toLowerCase())).size).toBe(paths.length);
    expect(paths.filter((path) => path.includes('..'))).toEqual([]);
    expect(planPack(contents)).toEqual(plan);
  });

  test('each says its maker, its licence and its pack', () => {
    const [, first, second] = planPack({
      ...contents,
      pack: { ...pack, card: { ...pack.card, author: 'Tidewrack' } },
    }).documents;
    expect(first.provenance).toEqual({
      maker: 'Tidewrack',
      site: 'tidewrack.example',
      licence: 'CC-BY-4.0',
      pack: 'Harbour crusts',
    });
    expect(second.provenance.maker).toBe('Someone else');
    expect(JSON.parse(second.text)).toEqual({ provenance: second.provenance, document: contents.brushes[1] });
  });
});

const listed = (path: string, bytes = 10): { path: string; bytes: number; sha256: string } => ({
  path,
  bytes,
  sha256: HASH,
});
const manifestOf = (over: Partial<Manifest> = {}): Manifest => ({
  format: 'mold-stamp-pack',
  version: 1,
  name: 'Crusts',
  pack: null,
  documents: [],
  data: [],
  pictures: [],
  ...over,
});
const entry = (path: string, over: Partial<ZipEntry> = {}): ZipEntry => ({
  path,
  bytes: 10,
  folder: false,
  encrypted: false,
  ...over,
});

describe('looking at a pack file', () => {
  const picture = (path: string, bytes = 10): Manifest['pictures'][number] => ({
    ...listed(path, bytes),
    brush: id(1),
  });

  test('what is listed must be there, once, as large as it says, under a path that stays inside', () => {
    const cases: [Manifest['pictures'], ZipEntry[], RegExp | null][] = [
      [[picture('a.png')], [entry('a.png')], null],
      [[picture('a.png')], [], /isn’t in the file/],
      [[picture('a.png')], [entry('a.png'), entry('a.png')], /twice/],
      [[picture('a.png'), picture('a.png')], [entry('a.png')], /listed twice/],
      [[picture('a.png')], [entry('a.png', { bytes: 11 })], /has 11 bytes; 10 are listed/],
      [[picture('a.png')], [entry('a.png', { encrypted: true })], /password/],
      [[picture('a.png')], [entry('a.png', { folder: true })], /folder/],
      [[picture('a.png', 2 ** 30)], [entry('a.png', { bytes: 2 ** 30 })], /larger than 4 MiB/],
      [[], [entry('b.png')], /isn’t listed/],
    ];
    for (const path of ['../a.png', '/a.png', 'a/../../b', 'C:/a.png', 'a\\b.png', './a'])
      cases.push([[picture(path)], [entry(path)], /leads out/]);
    for (const [pictures, entries, problem] of cases) {
      const { good, problems } = judgeEntries(manifestOf({ pictures }), [...entries, entry(MANIFEST_PATH)]);
      expect(good.size).toBe(problem ? 0 : 1);
      expect(problems.map((one) => one.problem).join()).toMatch(problem ?? /^$/);
    }
  });

  test('thousands of problems are told as some, and a count', () => {
    const entries = Array.from({ length: 5000 }, (_, n) => entry(`x${n}`));
    const { problems } = judgeEntries(manifestOf(), entries);
    expect(problems).toHaveLength(201);
    expect(problems.at(-1)!.problem).toBe('And 4800 more like these.');
  });

  test('what can’t do without what is missing or broken is left out, and said', () => {
    const whole = newBrush(id(1), 'Whole');
    const lacking = newBrush(id(2), 'Lacking');
    lacking.form.alphaId = id(9);
    const document = (of: typeof whole): Manifest['documents'][number] => ({
      ...listed(`brushes/${of.card.name}.json`),
      collection: 'brushes',
      id: of.id,
      name: of.card.name,
      provenance: nobody,
    });
    const broken = { ...document(whole), path: 'brushes/Newer.json', id: id(3), name: 'Newer' };
    const manifest = manifestOf({ documents: [document(whole), document(lacking), broken] });
    const texts = new Map<string, unknown>([
      ['brushes/Whole.json', { document: whole }],
      ['brushes/Lacking.json', { document: lacking }],
      ['brushes/Newer.json', { document: { ...whole, id: id(3), version: 99 } }],
    ]);
    const { things, problems } = judgeDocuments(manifest, texts, new Set(texts.keys()));
    expect(things.map(({ name, licence }) => [name, licence])).toEqual([['Whole', 'CC0-1.0']]);
    expect(problems.map(({ problem }) => problem).join('\n')).toMatch(
      /“Newer”: .*version 99[^]*“Lacking”: it needs an/,
    );
  });

  test('a newer pack, and what isn’t one, is refused with a sentence', () => {
    const say = (value: unknown): string => {
      const read = readManifest(value);
      return read.ok ? '' : read.reason;
    };
    expect(say(manifestOf())).toBe('');
    expect(say({ ...manifestOf(), version: 2 })).toMatch(/version 2; this program reads up to version 1/);
    expect(say({ format: 'other' })).toMatch(/not a pack/);
    expect(say([])).toMatch(/not a pack/);
    expect(say({ ...manifestOf(), name: 5 })).toMatch(/broken/);
    const twice = { ...newPack(id(7), 'Twice'), groups: [{ name: '', brushes: [id(1), id(1)] }] };
    expect(say({ ...manifestOf(), pack: twice })).toMatch(/twice/);
  });
});

describe('how it meets what is here', () => {
  const thing = (n: number, over: Partial<Thing> = {}): Thing => ({
    path: `brushes/${n}.json`,
    collection: 'brushes',
    id: id(n),
    name: `Brush ${n}`,
    maker: '',
    licence: '',
    key: `works ${n}`,
    data: [],
    names: [],
    picture: null,
    ...over,
  });
  const existing = (n: number, over: Partial<Existing> = {}): Existing => ({
    collection: 'brushes',
    id: id(n),
    name: `Brush ${n}`,
    key: `works ${n}`,
    revision: 3,
    base: false,
    ...over,
  });
  const here = (...things: Existing[]) => ({ things, gone: new Set<string>() });
  const ids = () => {
    let n = 5000;
    return () => id(n++);
  };

  test('new, here under another name and id, here but other, a name that is taken', () => {
    const found = meet(
      [thing(1), thing(2), thing(3), thing(4)],
      here(
        existing(12, { key: 'works 2', name: 'Mine' }),
        existing(3, { key: 'else' }),
        existing(14, { name: 'brush 4' }),
      ),
    );
    expect(found.map(({ meets, name, existing: own }) => [meets, name, own?.name ?? null])).toEqual([
      ['new', 'Brush 1', null],
      ['here', 'Brush 2', 'Mine'],
      ['other', 'Brush 3 2', 'Brush 3'],
      ['new', 'Brush 4 2', null],
    ]);
  });

  test('the same as two is the one of its own id; a base brush is never replaced', () => {
    const twins = here(
      existing(1, { key: 'same' }),
      existing(2, { key: 'same', name: 'Twin' }),
      existing(3, { base: true, key: 'x' }),
    );
    const found = meet([thing(1, { key: 'same' }), thing(3)], twins);
    expect(found[0].existing!.id).toBe(id(1));
    const { taken } = taking(found, { [keyed(thing(3))]: 'replace' }, twins, ids());
    expect(taken.map((one) => [one.id, one.revision])).toEqual([[id(5000), null]]);
  });

  test('what lies in the trash keeps its id', () => {
    const now = { things: [], gone: new Set([id(1)]) };
    expect(taking(meet([thing(1)], now), {}, now, ids()).taken[0].id).toBe(id(5000));
  });

  test('whatever is here, is packed and is chosen: all that is needed comes along, no id or name twice', () => {
    const small = fc.integer({ min: 0, max: 7 });
    fc.assert(
      fc.property(
        fc.array(fc.record({ n: small, key: small, name: small, base: fc.boolean(), alpha: fc.boolean() }), {
          maxLength: 8,
        }),
        fc.uniqueArray(fc.record({ n: small, key: small, name: small, needs: fc.array(small, { maxLength: 2 }) }), {
          selector: ({ n }) => n,
          maxLength: 8,
        }),
        fc.array(fc.constantFrom<Choice>('take', 'replace', 'leave'), { minLength: 8, maxLength: 8 }),
        (own, packed, chosen) => {
          const unique = <T>(all: T[], of: (one: T) => string): T[] => [
            ...new Map(all.map((one) => [of(one), one])).values(),
          ];
          const mine = unique(
            own.map(({ n, key, name, base, alpha }) =>
              existing(alpha ? 100 + n : n, {
                key: `works ${key}`,
                name: `Brush ${name}`,
                base,
                collection: alpha ? 'alphas' : 'brushes',
              }),
            ),
            keyed,
          );
          const rack = here(...unique(mine, ({ collection, name }) => `${collection} ${name}`));
          const alphas = unique(
            packed.flatMap(({ needs }) => needs),
            String,
          ).map((n) => thing(100 + n, { collection: 'alphas', name: `Brush ${n}` }));
          const brushes = packed.map(({ n, key, name, needs }) =>
            thing(n, {
              key: `works ${key}`,
              name: `Brush ${name}`,
              names: needs.map((a) => ({ collection: 'alphas' as const, id: id(100 + a), needed: true })),
            }),
          );
          const meetings = meet([...alphas, ...brushes], rack);
          const choices = Object.fromEntries(brushes.map((one, i) => [keyed(one), chosen[i]]));
          const { taken, ids: now } = taking(meetings, choices, rack, ids());
          const after = new Map(rack.things.map((one) => [one.id, one.name]));
          for (const one of taken) {
            // Only what is replaced may take the place of something, and never that of a base brush.
            const before = rack.things.find((other) => other.id === one.id);
            expect(Boolean(before)).toBe(one.revision !== null);
            expect(before?.base ?? false).toBe(false);
            after.set(one.id, one.name);
          }
          expect(new Set(taken.map((one) => one.id)).size).toBe(taken.length);
          for (const collection of ['brushes', 'alphas'] as const) {
            const of = [
              ...rack.things,
              ...taken.map(({ thing: t, ...rest }) => ({ ...rest, collection: t.collection })),
            ].filter((one) => one.collection === collection);
            const names = [...new Map(of.map((one) => [one.id, one.name.toLowerCase()])).values()];
            expect(new Set(names).size).toBe(names.length);
          }
          for (const { thing: one } of taken)
            for (const named of one.names) expect(after.has(now.get(keyed(named))!)).toBe(true);
          for (const [i, one] of brushes.entries()) {
            const meets = meetings.find((m) => m.thing === one)!.meets;
            if (chosen[i] === 'take') expect(taken.some((t) => t.thing === one)).toBe(true);
            if (chosen[i] === 'leave') expect(now.has(keyed(one))).toBe(meets === 'here');
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  test('under its new id and name it names what it names under theirs, and stamps as before', () => {
    const brush = newBrush(id(1), 'Press');
    brush.form.alphaId = id(20);
    brush.tooth.alphaId = id(21);
    const now = new Map([
      [`alphas ${id(20)}`, id(70)],
      [`brushes ${id(21)}`, id(71)],
    ]);
    const own = renamed('brushes', brush, { id: id(9), name: 'Press 2' }, now);
    expect([own.id, own.card.name, own.form.alphaId, own.tooth.alphaId]).toEqual([id(9), 'Press 2', id(70), id(21)]);
    const keyOf = (_: string, of: string): string => (of === id(70) ? id(20) : of);
    expect(brushKey(own, keyOf)).toBe(brushKey(brush, keyOf));
    expect(brush.id).toBe(id(1));
  });

  test('a pack that is here gets what is new in its groups, and keeps its order and its own', () => {
    const mine = newPack(id(900), 'Mine', {
      groups: [
        { name: 'Growth', brushes: [id(2), id(8)] },
        { name: 'Own', brushes: [id(1)] },
      ],
    });
    const theirs = newPack(id(900), 'Theirs', {
      groups: [
        { name: 'Growth', brushes: [id(1), id(3), id(4)] },
        { name: 'Stone', brushes: [id(5)] },
      ],
    });
    const now = new Map([1, 3, 5].map((n) => [`brushes ${id(n)}`, id(n === 3 ? 33 : n)]));
    const out = packTaken(theirs, now, mine);
    expect(out.card.name).toBe('Mine');
    expect(out.groups.map(({ name, brushes }) => [name, brushes])).toEqual([
      ['Growth', [id(2), id(8), id(33)]],
      ['Own', [id(1)]],
      ['Stone', [id(5)]],
    ]);
    expect(brushesOf(packTaken(theirs, now, null))).toEqual([id(1), id(33), id(5)]);
  });
});
