/** Pack files over HTTP: out of one server and into another, damaged in every way, cancelled, and two at once. */
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { decode } from 'fast-png';
import { strToU8, unzipSync, Zip, zipSync, ZipDeflate, ZipPassThrough } from 'fflate';
import { validateBytes } from 'gltf-validator';
import { MANIFEST_PATH, packFileSchema, TRAVELLING, type Manifest } from '#core/packFile';
import { seeded } from '#core/random';
import { newBrush } from '#core/settings';
import { COLLECTIONS, type Collection } from '#core/stored';
import { start, type Running } from '../start';
import { ask, good, said } from '../testAsks';
import { seededTemplate } from '../testTemplate';
import { killed } from './kills';
import { sendPack, sha } from './testPack';

let folder: string;
let mine: Running;
let theirs: Running;
/** Nothing but the base brushes. */
let empty: Running;
let sent: Awaited<ReturnType<typeof sendPack>>;
let file: Uint8Array;

interface Look {
  id: string;
  things: { key: string; collection: string; name: string; meets: string; becomes: string }[];
  problems: { path: string; problem: string }[];
}
interface What {
  came: { collection: Collection; id: string; name: string; before: number | null }[];
  pack: { id: string } | null;
}
const look = (server: Running, bytes: Uint8Array): Promise<Look> =>
  good(server, '/pack-imports?name=x.pack.zip', 'POST', bytes);
const take = (server: Running, id: string, choices = {}): Promise<What> =>
  good(server, `/pack-imports/${id}/take`, 'POST', { choices });

async function written(server: Running, wish: object): Promise<Uint8Array> {
  const { id } = await good<{ id: string }>(server, '/pack-exports', 'POST', wish);
  return new Uint8Array(await (await ask(server, `/pack-exports/${id}/file`)).arrayBuffer());
}
async function counts(server: Running): Promise<number[]> {
  return Promise.all(
    COLLECTIONS.map(async (collection) => (await good<{ items: [] }>(server, `/${collection}?limit=500`)).items.length),
  );
}
async function docOf(server: Running, collection: Collection, id: string): Promise<unknown> {
  return (await good<{ doc: unknown }>(server, `/${collection}/${id}`)).doc;
}

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  const template = await seededTemplate();
  const open = (name: string): Promise<Running> =>
    start({ folder: join(folder, name), template, page: folder, port: 0, version: 'test' });
  [mine, theirs, empty] = await Promise.all([open('mine'), open('theirs'), open('empty')]);
  sent = await sendPack((path, method, body) => good(mine, path, method, body));
  file = await written(mine, { pack: sent.pack, sources: true, palettes: [sent.palette] });
});
afterAll(async () => {
  await Promise.all([mine, theirs, empty].map((server) => server.close()));
  await rm(folder, { recursive: true, force: true });
});

const manifestOf = (zip: Record<string, Uint8Array>): Manifest =>
  JSON.parse(Buffer.from(zip[MANIFEST_PATH]).toString('utf8')) as Manifest;

test('it is a ZIP whose entries other readers read, as the published schema says', async () => {
  const zip = unzipSync(file);
  const manifest = manifestOf(zip);
  const schema = packFileSchema();
  const ajv = new Ajv2020({ strict: false, validateFormats: false });
  const valid = ajv.compile(schema);
  expect(valid(manifest)).toBe(true);
  for (const { path, collection, bytes, sha256 } of manifest.documents) {
    const entry = ajv.compile({
      ...(schema['$defs'] as Record<string, object>)[collection],
      $schema: schema['$schema'] as string,
    });
    expect([entry(JSON.parse(Buffer.from(zip[path]).toString())), entry.errors]).toEqual([true, null]);
    expect([zip[path].length, sha(zip[path])]).toEqual([bytes, sha256]);
  }
  for (const { path, kind, blob, sha256 } of manifest.data) {
    expect(sha(zip[path])).toBe(sha256);
    if (kind === 'grey16') {
      const png = decode(zip[path]);
      expect([png.depth, png.channels, sha(new Uint8Array(png.data.buffer))]).toEqual([16, 1, blob]);
      expect(png.text).toMatchObject({
        Author: 'Tidewrack Workshop',
        Copyright: 'CC-BY-4.0',
        Source: 'tidewrack.example',
      });
    }
    if (kind === 'rgba8') expect(sha(new Uint8Array(decode(zip[path]).data))).toBe(blob);
    if (kind === 'mesh')
      expect((await validateBytes(zip[path])).issues).toMatchObject({ numErrors: 0, numWarnings: 0 });
    if (kind === 'grey32f' || kind === 'vector32f') {
      expect(Buffer.from(zip[path].subarray(0, 4)).readUInt32LE()).toBe(0x01312f76);
      expect(Buffer.from(zip[path].subarray(0, 2000)).toString('latin1')).toContain('Tidewrack Workshop');
    }
  }
  expect(Object.keys(zip).sort()).toEqual(
    [...manifest.documents, ...manifest.data, ...manifest.pictures, { path: MANIFEST_PATH }]
      .map(({ path }) => path)
      .sort(),
  );
  expect(new Set(manifest.data.map(({ kind }) => kind))).toEqual(
    new Set(['grey16', 'grey32f', 'vector32f', 'rgba8', 'mesh', 'bytes']),
  );
});

test('as a page it holds the same file and the pictures; what a card says is text', async () => {
  const { id } = await good<{ id: string }>(mine, '/pack-exports', 'POST', {
    pack: sent.pack,
    sources: true,
    palettes: [sent.palette],
  });
  const answer = await ask(mine, `/pack-exports/${id}/page`);
  expect(answer.headers.get('content-disposition')).toContain('.html');
  const page = await answer.text();
  const inside = /id="pack">([A-Za-z0-9+/=]+)<\/script>/.exec(page)!;
  expect(sha(Buffer.from(inside[1], 'base64'))).toBe(sha(file));
  const brushes = sent.docs.filter(([collection]) => collection === 'brushes').length;
  expect(page.match(/<img src="data:image\/png;base64,iVBOR/g)).toHaveLength(brushes);
  expect(await good<{ state: string }>(mine, `/pack-exports/${id}`)).toMatchObject({ state: 'written' });
});

test('the schema that ships is the one that is meant', () => {
  const shipped = resolve(import.meta.dirname, '../../docs/pack.schema.json');
  expect(JSON.parse(readFileSync(shipped, 'utf8'))).toEqual(JSON.parse(JSON.stringify(packFileSchema())));
});

test('a file of the first version stays readable', async () => {
  const kept = readFileSync(resolve(import.meta.dirname, 'kept/version1.pack.zip'));
  const { things, problems, id } = await look(theirs, kept);
  expect(problems).toEqual([]);
  expect(things.map(({ name }) => name).filter((name) => /^[BFSW]/.test(name))).toEqual([
    'Slab 9',
    'Float 9',
    'Wharf 9',
    'Brush 2 of 9',
    'Brush 3 of 9',
    'Brush 4 of 9',
    'Brush 5 of 9',
    'Brush 0 of 9',
    'Brush 1 of 9',
  ]);
  await good(theirs, `/pack-imports/${id}`, 'DELETE');
});

test('written twice it is the same bytes; taken elsewhere and written there as well', async () => {
  expect(sha(await written(mine, { pack: sent.pack, sources: true, palettes: [sent.palette] }))).toBe(sha(file));
  const { id, things, problems } = await look(theirs, file);
  expect(problems).toEqual([]);
  expect(things.every(({ meets }) => meets === 'new')).toBe(true);
  const what = await take(theirs, id);
  expect(what.pack?.id).toBe(sent.pack);
  for (const [collection, doc] of sent.docs) expect(await docOf(theirs, collection, doc.id)).toEqual(doc);
  expect(sha(await written(theirs, { pack: sent.pack, sources: true, palettes: [sent.palette] }))).toBe(sha(file));
});

test('whoever goes away in the middle leaves no file behind; asking for the head begins nothing', async () => {
  const begun = join(folder, 'mine', 'blobs', 'begun');
  for (let round = 0; round < 6; round++) {
    const { id } = await good<{ id: string }>(mine, '/pack-exports', 'POST', { pack: sent.pack });
    const head = await ask(mine, `/pack-exports/${id}/file`, 'HEAD');
    expect([head.status, head.headers.get('content-type')]).toEqual([200, 'application/zip']);
    expect((await good<{ state: string }>(mine, `/pack-exports/${id}`)).state).toBe('pending');
    const answer = await ask(mine, `/pack-exports/${id}/file`);
    const reader = answer.body!.getReader();
    for (let n = 0; n < round; n++) await reader.read();
    await reader.cancel();
  }
  const end = Date.now() + 20_000;
  while ((await readdir(begun)).length > 0 && Date.now() < end) await new Promise((done) => setImmediate(done));
  expect(await readdir(begun)).toEqual([]);
  const wish = { pack: sent.pack, sources: true, palettes: [sent.palette] };
  expect(sha(await written(mine, wish))).toBe(sha(file));
});

test('taken again nothing changes; as a copy it comes under another id and name', async () => {
  const before = await counts(theirs);
  const first = await look(theirs, file);
  expect(first.things.every(({ meets }) => meets === 'here')).toBe(true);
  expect(await take(theirs, first.id)).toEqual({ came: [], pack: null });
  expect(await counts(theirs)).toEqual(before);
  const brush = first.things.find(({ collection }) => collection === 'brushes')!;
  const { came } = await take(theirs, first.id, { [brush.key]: 'take' });
  expect(came.map(({ collection, name }) => [collection, name])).toEqual([['brushes', `${brush.name} 2`]]);
});

test('what was changed since stays beside, or is replaced as a revision of it', async () => {
  const [, doc] = sent.docs.find(([collection]) => collection === 'brushes')!;
  const stored = await good<{ doc: ReturnType<typeof newBrush>; revision: number }>(theirs, `/brushes/${doc.id}`);
  const changed = { ...stored.doc, touch: { ...stored.doc.touch, strength: 3 } };
  await good(theirs, `/brushes/${doc.id}`, 'PUT', { doc: changed, revision: stored.revision });
  const { id, things } = await look(theirs, file);
  const other = things.find(({ meets }) => meets === 'other')!;
  expect(other.key).toBe(`brushes ${doc.id}`);
  const beside = await take(theirs, id, { [other.key]: 'take' });
  expect(beside.came).toHaveLength(1);
  expect(beside.came[0].id).not.toBe(doc.id);
  expect(await docOf(theirs, 'brushes', doc.id)).toEqual(changed);
  await good(theirs, `/brushes/${beside.came[0].id}`, 'DELETE');
  const again = await look(theirs, file);
  const replaced = await take(theirs, again.id, { [other.key]: 'replace' });
  expect(replaced.came).toMatchObject([{ id: doc.id, before: stored.revision + 1 }]);
  expect(await docOf(theirs, 'brushes', doc.id)).toEqual(doc);
  const { revisions } = await good<{ revisions: [] }>(theirs, `/brushes/${doc.id}/revisions`);
  expect(revisions).toHaveLength(2);
});

test('of chosen brushes only what they need comes along; without recipes none', async () => {
  const [, brush] = sent.docs.filter(([collection]) => collection === 'brushes')[3];
  const zip = unzipSync(await written(mine, { brushes: [brush.id], recipes: false, name: 'Two' }));
  const { documents, pack } = manifestOf(zip);
  expect(pack).toBe(null);
  expect(documents.map(({ collection }) => collection)).toEqual(['alphas', 'brushes']);
  expect(JSON.parse(Buffer.from(zip[documents[0].path]).toString())).toMatchObject({ document: { recipe: null } });
  expect(await said(ask(mine, '/pack-exports', 'POST', { brushes: [randomUUID()] }))).toEqual([
    422,
    expect.stringContaining('no brush'),
  ]);
});

describe('from a file that is broken', () => {
  let before: number[];
  beforeAll(async () => (before = await counts(mine)));
  /** It is answered in time, with a sentence or with what is inside; then all that can be taken is, and it is whole. */
  async function tried(bytes: Uint8Array): Promise<string> {
    const answer = await ask(mine, '/pack-imports?name=broken.pack.zip', 'POST', bytes);
    const value = (await answer.json()) as Look & { error?: { message: string } };
    if (value.error) {
      expect(answer.status).toBe(422);
      expect(value.error.message).toMatch(/^[“\w].*\.$/s);
      return value.error.message;
    }
    for (const { problem } of value.problems) expect(problem).toMatch(/\.$/);
    await take(mine, value.id).catch(() => null);
    await good(mine, `/pack-imports/${value.id}`, 'DELETE');
    return value.problems.map(({ problem }) => problem).join('\n');
  }
  afterEach(async () => expect(await counts(mine)).toEqual(before));

  test('bits flipped and ends cut off anywhere: said, and nothing else is here afterwards', async () => {
    const random = seeded(77);
    for (let n = 0; n < 24; n++) {
      const bytes = n % 4 === 3 ? file.slice(0, Math.floor(random() * file.length)) : file.slice();
      if (n % 4 !== 3) bytes[Math.floor(random() ** (n % 3) * (bytes.length - 1))] ^= 1 << Math.floor(random() * 8);
      await tried(bytes);
    }
  }, 60_000);

  const zip = (): Record<string, Uint8Array> => unzipSync(file);
  const changed = (edit: (manifest: Manifest, entries: Record<string, Uint8Array>) => void): Uint8Array => {
    const entries = zip();
    const manifest = manifestOf(entries);
    edit(manifest, entries);
    entries[MANIFEST_PATH] = strToU8(JSON.stringify(manifest));
    return zipSync(entries, { level: 1 });
  };

  test('not a ZIP, a ZIP of something else, a newer one', async () => {
    expect(await tried(strToU8('Not a pack.'))).toMatch(/can’t be opened as a ZIP/);
    expect(await tried(new Uint8Array())).toMatch(/can’t be opened as a ZIP/);
    expect(await tried(zipSync({ 'a.txt': strToU8('a') }))).toMatch(/has no pack\.json/);
    expect(await tried(zipSync({ [MANIFEST_PATH]: strToU8('{') }))).toMatch(/is damaged/);
    expect(await tried(changed((manifest) => Object.assign(manifest, { version: 9 })))).toMatch(/version 9/);
  });

  test('wrong checksums, paths that lead out, entries twice, what isn’t listed', async () => {
    const wrong = changed((manifest) => manifest.documents.forEach((one) => (one.sha256 = 'ab'.repeat(32))));
    expect(await tried(wrong)).toMatch(/is damaged: it isn’t what was written/);
    const out = changed((manifest, entries) => {
      for (const one of manifest.documents) {
        entries[`../../${one.path}`] = entries[one.path];
        one.path = `../../${one.path}`;
      }
    });
    expect(await tried(out)).toMatch(/leads out of the pack/);
    expect(await tried(changed((_, entries) => (entries['more.txt'] = strToU8('more'))))).toMatch(/isn’t listed/);
    const parts: Uint8Array[] = [];
    const twice = new Zip((_, data) => void parts.push(data));
    for (const [path, bytes] of [...Object.entries(zip()), ...Object.entries(zip()).slice(0, 2)]) {
      const entry = new ZipPassThrough(path);
      twice.add(entry);
      entry.push(bytes, true);
    }
    twice.end();
    expect(await tried(Buffer.concat(parts))).toMatch(/twice/);
  });

  test('entries that unpack to far more than they say', async () => {
    const zeros = new Uint8Array(8 * 2 ** 20);
    const parts: Uint8Array[] = [];
    const bomb = new Zip((_, data) => void parts.push(data));
    const entries = zip();
    const manifest = manifestOf(entries);
    const target = manifest.pictures[0].path;
    for (const [path, bytes] of Object.entries(entries)) {
      if (path === target) {
        const entry = new ZipDeflate(path, { level: 9 });
        bomb.add(entry);
        for (let n = 0; n < 4; n++) entry.push(zeros, n === 3);
      } else {
        const entry = new ZipPassThrough(path);
        bomb.add(entry);
        entry.push(bytes, true);
      }
    }
    bomb.end();
    const all = Buffer.concat(parts);
    expect(all.length).toBeLessThan(2 ** 19);
    expect(await tried(all)).toMatch(/bytes; \d+ are listed/);
    // The ZIP’s own list says what the pack says.
    const lied = Buffer.from(all);
    for (let at = lied.indexOf('PK\x01\x02', 0, 'latin1'); at >= 0; at = lied.indexOf('PK\x01\x02', at + 4, 'latin1')) {
      const name = lied.toString('utf8', at + 46, at + 46 + lied.readUInt16LE(at + 28));
      if (name === target) lied.writeUInt32LE(manifest.pictures[0].bytes, at + 24);
    }
    expect(await tried(lied)).toMatch(/is damaged/);
  });

  test('data that isn’t what its document names: nothing at all is taken', async () => {
    const swapped = changed((manifest, entries) => {
      const [one, two] = manifest.data.filter(({ kind }) => kind === 'grey16');
      [entries[one.path], entries[two.path]] = [entries[two.path], entries[one.path]];
      [one.sha256, two.sha256] = [two.sha256, one.sha256];
      [one.bytes, two.bytes] = [two.bytes, one.bytes];
    });
    const { id, problems } = await look(theirs, swapped);
    expect(problems).toEqual([]);
    await good(theirs, `/pack-imports/${id}`, 'DELETE');
    const there = await look(empty, swapped);
    const now = await counts(empty);
    expect(await said(ask(empty, `/pack-imports/${there.id}/take`, 'POST', {}))).toEqual([
      422,
      expect.stringContaining('something else than the pack says'),
    ]);
    expect(await counts(empty)).toEqual(now);
  });
});

test('cancelled in the middle nothing comes; taken twice at once it comes once; another may save meanwhile', async () => {
  const { id } = await look(empty, file);
  const before = await counts(empty);
  const going = said(ask(empty, `/pack-imports/${id}/take`, 'POST', {}));
  while ((await good<{ progress: unknown }>(empty, `/pack-imports/${id}/progress`)).progress === null);
  await good(empty, `/pack-imports/${id}`, 'DELETE');
  const [status] = await going;
  // It may have been done before the word came.
  if (status !== 200) {
    expect(await counts(empty)).toEqual(before);
    const both = [0, 1].map(() => said(ask(empty, `/pack-imports/${id}/take`, 'POST', {})));
    // A name that the pack wants is taken while it is unpacked.
    const mineNow = newBrush(randomUUID(), 'Brush 0 of 1');
    const saved = await ask(empty, `/brushes/${mineNow.id}`, 'PUT', { doc: mineNow, revision: null });
    expect((await Promise.all(both)).map(([code]) => code).sort()).toEqual([200, 409]);
    const names = (await good<{ items: { card: { name: string } }[] }>(empty, '/brushes?limit=500')).items.map(
      ({ card }) => card.name.toLowerCase(),
    );
    expect(new Set(names).size).toBe(names.length);
    expect(names.filter((name) => /of 1/.test(name)).length).toBe(saved.ok ? 7 : 6);
  }
  expect((await ask(empty, `/pack-imports/${randomUUID()}`)).status).toBe(404);
});

test('killed while brushes are saved and a pack is taken: what was acknowledged is there, the pack whole or not at all', async () => {
  const kept = readFileSync(resolve(import.meta.dirname, 'kept/version1.pack.zip'));
  const { saves } = await killed(2, kept, await seededTemplate(), seeded(3));
  expect(saves).toBeGreaterThan(0);
}, 60_000);

test('kinds of document travel in an order in which what is named comes first', () => {
  expect(TRAVELLING.indexOf('alphas')).toBeLessThan(TRAVELLING.indexOf('brushes'));
  expect(TRAVELLING.indexOf('parts')).toBeLessThan(TRAVELLING.indexOf('brushes'));
});
