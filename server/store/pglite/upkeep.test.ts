/** What stays in the data folder and what goes: bytes, revisions, what was deleted; and folders of earlier versions. */
import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { newBrush, SlabSchema, SOURCE_VERSION, type Slab } from '#core/settings';
import { openPglite } from './open';
import type { PgliteStore } from './store';
import { seededTemplate } from '../../testTemplate';
import { judged } from '../../reading/judged';

let folder: string;
let data: PgliteStore;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  data = await openPglite({ folder: join(folder, 'data'), template: await seededTemplate() });
});
afterAll(async () => {
  await data.close();
  await rm(folder, { recursive: true, force: true });
});

let made = 0;
const bytesOf = (n: number): Uint8Array =>
  Float32Array.from({ length: 65 * 65 * 3 }, (_, i) => i + n / 7).slice().buffer as unknown as Uint8Array;
const put = (n: number): Promise<string> => data.blobs.put(new Uint8Array(bytesOf(n) as unknown as ArrayBuffer));
const slab = (blob: string): Slab =>
  SlabSchema.parse({
    version: SOURCE_VERSION,
    kind: 'slab',
    id: randomUUID(),
    card: { name: `Slab ${++made}` },
    cells: 64,
    blob,
  });
const age = (days: number): Promise<unknown> =>
  data.inside.db.query(`UPDATE blobs SET sent_at = sent_at - $1 * interval '1 day'`, [days]);
const there = async (hash: string): Promise<[boolean, boolean]> => [
  await data.blobs.has(hash),
  await data.inside.files.has(hash),
];

test('bytes that nothing names go a week after they were last sent, and no sooner; sent again they stay', async () => {
  const [named, left, again, held] = [await put(1), await put(2), await put(3), await put(4)];
  await data.save(judged('sources', slab(named)), { revision: null });
  await data.putHolds(randomUUID(), [held]);
  await age(6);
  await data.clean();
  expect(await there(left)).toEqual([true, true]);
  await age(2);
  expect(await data.blobs.renew([again, 'f'.repeat(64)])).toEqual([again]);
  expect((await data.clean()).blobs).toBe(1);
  expect(await Promise.all([named, left, again, held].map(there))).toEqual([
    [true, true],
    [false, false],
    [true, true],
    [true, true],
  ]);
});

test('what a draft no longer names is let go; one that names what isn’t there is told', async () => {
  const [one, two] = [await put(5), await put(6)];
  const holder = randomUUID();
  expect(await data.putHolds(holder, [one, two, 'e'.repeat(64)])).toEqual(['e'.repeat(64)]);
  await data.putHolds(holder, [two]);
  await age(8);
  await data.clean();
  expect(await Promise.all([one, two].map((h) => data.blobs.has(h)))).toEqual([false, true]);
});

test('of revisions all of the last day stay, then one an hour, then one a day, then one a week', async () => {
  const doc = newBrush(randomUUID(), 'Often saved');
  for (let n = 0; n < 60; n++)
    await data.save(judged('brushes', { ...doc, card: { ...doc.card, notes: `${n}` } }), {
      revision: n === 0 ? null : n,
    });
  const at = (from: number, to: number, ago: string, step: string): Promise<unknown> =>
    data.inside.db.query(
      `UPDATE revisions SET saved_at = date_trunc('day', now()) - $3::interval + (revision - $1) * $4::interval WHERE id = $5 AND revision BETWEEN $1 AND $2`,
      [from, to, ago, step, doc.id],
    );
  await at(1, 20, '200 days', '1 minute');
  await at(21, 30, '20 days', '10 minutes');
  // One with a name stays, however old.
  await data.nameRevision('brushes', doc.id, 7, 'Before the fair');
  await at(31, 40, '3 days', '20 minutes');
  const left = async (): Promise<number[]> =>
    (
      await data.inside.db.query<{ revision: number }>(
        'SELECT revision FROM revisions WHERE id = $1 ORDER BY revision',
        [doc.id],
      )
    ).rows.map((r) => r.revision);
  expect((await data.clean()).revisions).toBe(18 + 9 + 6);
  const stay = await left();
  expect(stay).toEqual([7, 20, 30, 33, 36, 39, 40, ...Array.from({ length: 19 }, (_, i) => 41 + i)]);
  expect((await data.clean()).revisions).toBe(0);
  expect((await data.document('brushes', doc.id)).doc.card.notes).toBe('59');
});

test('what was deleted can be taken back for thirty days; then it goes, with the bytes it named', async () => {
  const [young, old] = [slab(await put(11)), slab(await put(12))];
  for (const doc of [young, old]) {
    await data.save(judged('sources', doc), { revision: null });
    await data.remove('sources', doc.id);
  }
  await data.inside.db.query("UPDATE sources SET deleted_at = now() - interval '29 days' WHERE id = $1", [young.id]);
  await data.inside.db.query("UPDATE sources SET deleted_at = now() - interval '31 days' WHERE id = $1", [old.id]);
  await age(40);
  const { deleted } = await data.clean();
  expect(deleted).toBe(1);
  await data.restore('sources', young.id);
  expect(await there(young.blob!)).toEqual([true, true]);
  expect(await there(old.blob!)).toEqual([false, false]);
  await expect(data.restore('sources', old.id)).rejects.toThrow('isn’t here');
});

test('fifty saves of a slab, long ago, leave no more behind than three times what is there', async () => {
  const doc = slab(await put(100));
  await data.save(judged('sources', doc), { revision: null });
  for (let n = 1; n <= 50; n++)
    await data.save(judged('sources', { ...doc, blob: await put(100 + n) }), { revision: n });
  const before = await data.sizes();
  await data.inside.db.query("UPDATE revisions SET saved_at = now() - interval '200 days' WHERE id = $1", [doc.id]);
  await age(10);
  const { revisions, blobs } = await data.clean();
  const after = await data.sizes();
  expect(revisions).toBeGreaterThanOrEqual(48);
  expect(blobs).toBeGreaterThanOrEqual(48);
  expect(before.files - after.files).toBeGreaterThan(48 * 65 * 65 * 12);
});

test('a data folder of an earlier version: its bytes become files, and what its documents name and what lists say of them is known', async () => {
  const own = join(folder, 'earlier');
  const first = await openPglite({ folder: own, template: await seededTemplate() });
  const bytes = new Uint8Array(bytesOf(77) as unknown as ArrayBuffer);
  const hash = await first.blobs.put(bytes);
  const doc = slab(hash);
  await first.save(judged('sources', doc), { revision: null });
  await first.save(judged('sources', { ...doc, blob: null }), { revision: 1 });
  // As it was: bytes in rows, and nothing that says what is named.
  await first.inside.files.remove(hash);
  const {
    items: [listed],
  } = await first.list('sources', { after: null, limit: 1 });
  await first.inside.db.exec('DELETE FROM refs; UPDATE sources SET head = NULL; UPDATE brushes SET head = NULL');
  for (const [part, from] of [
    [0, 0],
    [1, 30000],
  ] as const)
    await first.inside.db.query('INSERT INTO blob_parts (hash, part, data) VALUES ($1, $2, $3)', [
      hash,
      part,
      bytes.subarray(from, part === 0 ? 30000 : undefined),
    ]);
  await first.inside.db.exec("INSERT INTO chores (name) VALUES ('fill-refs'), ('fill-heads'), ('blobs-to-files')");
  await first.close();

  const again = await openPglite({ folder: own });
  expect(await again.inside.files.read(hash)).toEqual(Buffer.from(bytes));
  expect(
    (await again.inside.db.query('SELECT collection, revision, target FROM refs WHERE kind = $1', ['blob'])).rows,
  ).toEqual([{ collection: 'sources', revision: 1, target: hash }]);
  expect(
    (
      await again.inside.db.query(
        'SELECT 1 FROM brushes WHERE head IS NULL UNION ALL SELECT 1 FROM sources WHERE head IS NULL',
      )
    ).rows,
  ).toEqual([]);
  expect(await again.list('sources', { after: null, limit: 1 })).toMatchObject({
    items: [listed],
    skipped: [],
  });
  expect((await again.inside.db.query('SELECT 1 FROM blob_parts UNION ALL SELECT 1 FROM chores')).rows).toEqual([]);
  await again.close();
});
