/** Backups over HTTP: everything out and back, into another server, damaged, cancelled, and several at once. */
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { unzipSync } from 'fflate';
import { BACKUP_MANIFEST, type BackupManifest, type Copy } from '#core/backup';
import { newBrush, type Brush } from '#core/settings';
import { seeded } from '#core/random';
import { COLLECTIONS, type Collection } from '#core/stored';
import { sendPack, sha } from '../packs/testPack';
import { start, type Running } from '../start';
import { ask, good, said } from '../testAsks';
import { seededTemplate } from '../testTemplate';
import { judged } from '../reading/judged';
import { openPglite } from '../store/pglite/open';
import { Studio } from '../studio/studio';
import { Backups, type Restored } from './backups';
import { killedRestoring } from './kills';

let folder: string;
let mine: Running;
let other: Running;
let sent: Awaited<ReturnType<typeof sendPack>>;
let first: Copy;

interface Kept {
  doc: { id: string; card: { name: string } };
  revision: number;
  base: boolean;
}
/** All documents by their ids, as they are kept. */
async function everything(server: Running): Promise<Record<string, Kept['doc']>> {
  const out: Record<string, Kept['doc']> = {};
  for (const collection of COLLECTIONS) {
    const { items } = await good<{ items: { id: string }[] }>(server, `/${collection}?limit=500`);
    for (const { id } of items) out[`${collection} ${id}`] = (await good<Kept>(server, `/${collection}/${id}`)).doc;
  }
  return out;
}
async function change(server: Running, collection: Collection, id: string, name: string): Promise<void> {
  const { doc, revision } = await good<Kept>(server, `/${collection}/${id}`);
  await good(server, `/${collection}/${id}`, 'PUT', { doc: { ...doc, card: { ...doc.card, name } }, revision });
}
async function addBrush(server: Running, name: string): Promise<Brush> {
  const brush = newBrush(randomUUID(), name);
  await good(server, `/brushes/${brush.id}`, 'PUT', { doc: brush, revision: null });
  return brush;
}
const fileOf = async (server: Running, name: string): Promise<Uint8Array> =>
  new Uint8Array(await (await ask(server, `/backups/files/${encodeURIComponent(name)}`)).arrayBuffer());
const restore = (server: Running, name: string, others: 'keep' | 'trash'): Promise<Restored> =>
  good(server, `/backups/files/${encodeURIComponent(name)}/restore?others=${others}`, 'POST');
const idOf = (collection: Collection, at = 0): string => sent.docs.filter(([each]) => each === collection)[at][1].id;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  const template = await seededTemplate();
  const open = (name: string): Promise<Running> =>
    start({ folder: join(folder, name), template, page: folder, port: 0, version: 'test' });
  [mine, other] = await Promise.all([open('mine'), open('other')]);
  sent = await sendPack((path, method, body) => good(mine, path, method, body));
  // One with an earlier revision, one in the trash, two at hand.
  await change(mine, 'brushes', idOf('brushes'), 'Renamed once');
  const gone = await addBrush(mine, 'In the trash');
  await good(mine, `/brushes/${gone.id}`, 'DELETE');
  await good(mine, '/belt', 'PUT', { ids: [idOf('brushes', 1), idOf('brushes')] });
  first = await good<Copy>(mine, '/backups', 'POST');
});
afterAll(async () => {
  await Promise.all([mine, other].map((server) => server.close()));
  await rm(folder, { recursive: true, force: true });
});

test('it is a ZIP that other readers read, each part as its checksum says', async () => {
  const zip = unzipSync(await fileOf(mine, first.name));
  const manifest = JSON.parse(Buffer.from(zip[BACKUP_MANIFEST]).toString()) as BackupManifest;
  expect(sha(zip['documents.jsonl'])).toBe(manifest.documents.sha256);
  expect(Buffer.from(zip['revisions.jsonl']).toString().trim().split('\n')).toHaveLength(manifest.revisions.lines);
  expect(manifest.data.length).toBeGreaterThan(5);
  for (const { blob } of manifest.data) expect(sha(zip[`data/${blob}`])).toBe(blob);
  expect(manifest.belt).toEqual([idOf('brushes', 1), idOf('brushes')]);
});

test('brought to an empty server it is all there, with its revisions, its trash and its belt', async () => {
  const copy = await good<Copy>(other, '/backups/files?name=mine.zip', 'POST', await fileOf(mine, first.name));
  expect(copy).toMatchObject({ kind: 'brought', bytes: first.bytes });
  const done = await restore(other, copy.name, 'keep');
  expect([done.problems, done.trashed, done.before]).toEqual([[], 0, null]);
  expect(await everything(other)).toEqual(await everything(mine));
  const id = idOf('brushes');
  const past = `/brushes/${id}/revisions`;
  expect(await good(other, past)).toEqual(await good(mine, past));
  expect(await good(other, `${past}/1`)).toEqual(await good(mine, `${past}/1`));
  const trashed = async (server: Running): Promise<string[]> =>
    (await good<{ deleted: { name: string }[] }>(server, '/trash')).deleted.map(({ name }) => name);
  expect(await trashed(other)).toEqual(['In the trash']);
  // Once more nothing is to be done.
  expect(await restore(other, copy.name, 'keep')).toMatchObject({ changed: 0, trashed: 0 });
  // What uses stored data can be saved on.
  await change(other, 'alphas', idOf('alphas'), 'Saved on');
});

test('as it was then: what changed is a revision more, what came since is in the trash; the copy made before brings it back', async () => {
  const then = await everything(mine);
  const copy = await good<Copy>(mine, '/backups', 'POST');
  // Two swap their names, one is deleted, one comes and takes the name of the deleted one.
  const [one, two] = [idOf('brushes', 2), idOf('brushes', 3)];
  const names = await Promise.all(
    [one, two].map(async (id) => (await good<Kept>(mine, `/brushes/${id}`)).doc.card.name),
  );
  await change(mine, 'brushes', one, 'Between');
  await change(mine, 'brushes', two, names[0]);
  await change(mine, 'brushes', one, names[1]);
  const gone = idOf('brushes', 4);
  const { doc } = await good<Kept>(mine, `/brushes/${gone}`);
  await good(mine, `/packs/${sent.pack}`, 'DELETE');
  await good(mine, `/brushes/${gone}`, 'DELETE');
  await addBrush(mine, doc.card.name);
  const since = await everything(mine);

  const done = await restore(mine, copy.name, 'trash');
  expect(done).toMatchObject({ changed: 4, trashed: 1, problems: [] });
  expect(await everything(mine)).toEqual(then);
  expect(await good<{ ids: string[] }>(mine, '/belt')).toEqual({ ids: [idOf('brushes', 1), idOf('brushes')] });
  expect((await good<Kept>(mine, `/brushes/${one}`)).revision).toBe(4);

  await restore(mine, done.before!, 'trash');
  expect(await everything(mine)).toEqual(since);
  await restore(mine, copy.name, 'trash');
});

test('what came since stays where it is asked to, and a name it took is numbered', async () => {
  const id = idOf('brushes', 5);
  const { doc } = await good<Kept>(mine, `/brushes/${id}`);
  await change(mine, 'brushes', id, 'Free again');
  const came = await addBrush(mine, doc.card.name);
  const done = await restore(mine, first.name, 'keep');
  expect(done.trashed).toBe(0);
  expect((await good<Kept>(mine, `/brushes/${id}`)).doc).toEqual({
    ...doc,
    card: { ...doc.card, name: `${doc.card.name} 2` },
  });
  expect((await good<Kept>(mine, `/brushes/${came.id}`)).doc.card.name).toBe(doc.card.name);
});

test('a damaged, cut or foreign file is refused with a sentence and changes nothing', async () => {
  const file = await fileOf(mine, first.name);
  const random = seeded(5);
  const before = await everything(mine);
  const copies = async (): Promise<number> => (await good<{ copies: [] }>(mine, '/backups')).copies.length;
  const had = await copies();
  const bad = [
    ...Array.from({ length: 8 }, () => file.subarray(0, Math.floor(random() * file.length))),
    ...Array.from({ length: 12 }, () => {
      const flipped = file.slice();
      flipped[Math.floor(random() * file.length)] ^= 1 << Math.floor(random() * 8);
      return flipped;
    }),
    new TextEncoder().encode('Not a ZIP at all'),
    new Uint8Array(0),
  ];
  let refused = 0;
  for (const bytes of bad) {
    const [status, sentence] = await said(ask(mine, '/backups/files?name=x.zip', 'POST', bytes));
    // A bit that no reader looks at may flip; what is taken is whole.
    if (status === 200) continue;
    refused++;
    expect([status, sentence]).toEqual([422, expect.stringMatching(/^“x\.zip” .+\.$/)]);
  }
  expect(refused).toBeGreaterThan(bad.length * 0.8);
  expect(await copies()).toBe(had + bad.length - refused);
  expect(await everything(mine)).toEqual(before);
  expect(await said(ask(mine, '/backups/files/nothing.zip/restore', 'POST'))).toEqual([
    404,
    'That copy isn’t here any more.',
  ]);
});

test('one at a time: others are told so; cancelled, nothing is left of it', async () => {
  const before = (await good<{ copies: [] }>(mine, '/backups')).copies.length;
  const all = await Promise.all(Array.from({ length: 4 }, () => said(ask(mine, '/backups', 'POST'))));
  expect(all.map(([status]) => status).sort()).toEqual([200, 409, 409, 409]);
  const going = said(ask(mine, '/backups', 'POST'));
  await new Promise((done) => setTimeout(done, 5));
  await good(mine, '/backups/going', 'DELETE');
  const [status] = await going;
  const { copies } = await good<{ copies: []; going: null }>(mine, '/backups');
  expect(copies.length).toBe(before + 1 + (status === 200 ? 1 : 0));
  expect(await readdir(join(folder, 'mine', 'backups', 'begun'))).toEqual([]);
});

test('saves that come while a copy is made and restored are told of, and every one that was taken is kept', async () => {
  const ids = Array.from({ length: 3 }, (_, n) => idOf('brushes', n));
  const copy = await good<Copy>(mine, '/backups', 'POST');
  const taken = new Map<string, string[]>(ids.map((id) => [id, []]));
  let restored = false;
  const saving = ids.map(async (id, n) => {
    for (let at = 0; !restored; at++) {
      const { doc, revision } = await good<Kept>(mine, `/brushes/${id}`);
      const name = `Saved meanwhile ${n}.${at}`;
      const next = { doc: { ...doc, card: { ...doc.card, name } }, revision };
      const [status] = await said(ask(mine, `/brushes/${id}`, 'PUT', next));
      expect([200, 409]).toContain(status);
      if (status === 200) taken.get(id)!.push(name);
    }
  });
  await restore(mine, copy.name, 'keep').finally(() => (restored = true));
  await Promise.all(saving);
  for (const [id, names] of taken) {
    const at = `/brushes/${id}`;
    const past = await good<{ revisions: { revision: number }[] }>(mine, `${at}/revisions`);
    const kept = new Set([(await good<Kept>(mine, at)).doc.card.name]);
    for (const { revision } of past.revisions)
      kept.add((await good<{ card: { name: string } }>(mine, `${at}/revisions/${revision}`)).card.name);
    expect(names.length).toBeGreaterThan(0);
    expect(names.filter((name) => !kept.has(name))).toEqual([]);
  }
});

test('by itself a copy is made once it is due and something changed, and the oldest goes', async () => {
  const store = await openPglite({ folder: join(folder, 'alone'), template: await seededTemplate() });
  const studio = new Studio(store.blobs.folder, (hash) => store.blobs.size(hash));
  const backups = new Backups(store, studio, join(folder, 'alone', 'backups'));
  const days = (n: number): Date => new Date(Date.now() + n * 24 * 3600_000);
  const kept = async (): Promise<string[]> => (await backups.copies()).map(({ name }) => name);
  const change = (n: number): Promise<number> =>
    store.save(judged('brushes', newBrush(randomUUID(), `Brush ${n}`)), { revision: null });
  try {
    await backups.open();
    await backups.putPlan({ every: 'day', keep: 1 });
    await backups.makeIfDue();
    expect(await kept()).toEqual([]);
    await change(1);
    await Promise.all([backups.makeIfDue(), backups.makeIfDue()]);
    const [one, ...more] = await kept();
    expect([one, more]).toEqual([expect.stringContaining('scheduled'), []]);
    await backups.makeIfDue(days(2));
    expect(await kept()).toEqual([one]);
    await change(2);
    await backups.makeIfDue(days(0.5));
    expect(await kept()).toEqual([one]);
    await backups.makeIfDue(days(2));
    const [two, ...others] = await kept();
    expect([two > one, others]).toEqual([true, []]);
  } finally {
    await backups.close();
    studio.close();
    await store.close();
  }
});

test('how often copies are made is kept; nonsense is said', async () => {
  await good(mine, '/backups/plan', 'PUT', { every: 'week', keep: 7 });
  expect(await good(mine, '/backups')).toMatchObject({ plan: { every: 'week', keep: 7 } });
  expect(await said(ask(mine, '/backups/plan', 'PUT', { every: 'day', keep: 0 }))).toEqual([
    422,
    'At least one copy is kept.',
  ]);
});

test('killed while a copy is restored: all is as it was before, or all as the copy has it', async () => {
  const pack = readFileSync(resolve(import.meta.dirname, '../packs/kept/version1.pack.zip'));
  const { restored, midway } = await killedRestoring(1, pack, await seededTemplate(), seeded(3));
  expect(restored + midway).toBe(1);
}, 120_000);
