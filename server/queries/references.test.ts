/** Who names what: what can't be deleted, and what a sweep keeps. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '#core/random';
import {
  ALPHA_VERSION,
  AlphaSchema,
  newBrush,
  SlabSchema,
  SOURCE_VERSION,
  type Alpha,
  type Brush,
  type Slab,
} from '#core/settings';
import { openDatabase, type OpenDatabase } from '../database';
import { seededTemplate } from '../testTemplate';
import { cleanUp } from '../upkeep';
import { putBlob } from './blobs';
import { deleteDocument, restoreDocument } from './documents';
import { usersOf } from './references';
import { saveDocument } from './save';

let folder: string;
let data: OpenDatabase;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'mold-stamp-'));
  data = await openDatabase({ folder: join(folder, 'data'), template: await seededTemplate() });
});
afterAll(async () => {
  await data.close();
  await rm(folder, { recursive: true, force: true });
});

let n = 0;
const blob = (bytes: number): Promise<string> => {
  n++;
  return putBlob(data.db, data.files, new Uint8Array(bytes).fill(n % 251).fill(n >> 8, 0, 4));
};
function alphaOf(name: string, named: string, over: object = {}): Alpha {
  return AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: crypto.randomUUID(),
    card: { name },
    size: 8,
    relief: 0.1,
    ground: 0,
    blob: named,
    lineage: { sourceId: null, sourceRevision: null, floor: 0, crown: 0.1 },
    report: { marginPx: 0, ringLoss: 0, usedRange: 1 },
    ...over,
  });
}
async function brushOf(name: string, alpha: Alpha): Promise<Brush> {
  const doc = newBrush(crypto.randomUUID(), name);
  doc.form.alphaId = alpha.id;
  await saveDocument(data.db, 'brushes', { doc, revision: null });
  return doc;
}
const taken = (alpha: Alpha): Promise<string> =>
  deleteDocument(data.db, 'alphas', alpha.id).then(
    () => 'deleted',
    (error: Error) => error.message,
  );

test('an alpha that brushes use stays, and it is said by whom; one that was only made use of goes', async () => {
  const used = alphaOf('Used', await blob(128));
  await saveDocument(data.db, 'alphas', { doc: used, revision: null });
  const brushes: Brush[] = [];
  for (const name of ['Brush A', 'Brush B', 'Brush C', 'Brush D', 'Brush E']) brushes.push(await brushOf(name, used));
  const mixed = alphaOf('Mixed', await blob(128), {
    recipe: {
      base: { kind: 'cast', blob: await blob(128), format: 'grey16', size: 8 },
      steps: [{ id: crypto.randomUUID(), kind: 'combine', alphaId: used.id }],
    },
  });
  await saveDocument(data.db, 'alphas', { doc: mixed, revision: null });
  expect((await usersOf(data.db, 'alphas', used.id)).map((u) => [u.name, u.needed])).toEqual([
    ...brushes.map((b) => [b.card.name, true]),
    ['Mixed', false],
  ]);
  expect(await taken(used)).toBe(
    '“Used” is used by “Brush A”, “Brush B”, “Brush C” and 2 more. Give those another alpha first.',
  );

  for (const brush of brushes.slice(2)) await deleteDocument(data.db, 'brushes', brush.id);
  expect(await taken(used)).toBe('“Used” is used by “Brush A” and “Brush B”. Give those another alpha first.');
  await saveDocument(data.db, 'brushes', {
    doc: { ...brushes[0]!, form: { ...brushes[0]!.form, alphaId: null } },
    revision: 1,
  });
  expect(await taken(used)).toBe('“Used” is used by “Brush B”. Give it another alpha first.');
  await saveDocument(data.db, 'brushes', {
    doc: { ...brushes[1]!, form: { ...brushes[1]!.form, alphaId: mixed.id } },
    revision: 1,
  });
  expect(await taken(used)).toBe('deleted');
  await restoreDocument(data.db, 'alphas', used.id);
  expect(await usersOf(data.db, 'alphas', used.id)).toMatchObject([{ name: 'Mixed', needed: false }]);
});

test('a brush whose alpha isn’t there is not saved; it is as soon as the alpha is', async () => {
  const late = alphaOf('Late', await blob(128));
  const doc = newBrush(crypto.randomUUID(), 'Early');
  doc.form.alphaId = late.id;
  await expect(saveDocument(data.db, 'brushes', { doc, revision: null })).rejects.toThrow(
    'uses an alpha that isn’t here',
  );
  // Asked in the same moment, whichever comes first: it is saved, or a sentence says why not, and then nothing is kept
  // of it.
  const both = await Promise.allSettled([
    saveDocument(data.db, 'brushes', { doc, revision: null }),
    saveDocument(data.db, 'alphas', { doc: late, revision: null }),
  ]);
  expect(both[1].status).toBe('fulfilled');
  if (both[0].status === 'rejected') expect(await saveDocument(data.db, 'brushes', { doc, revision: null })).toBe(1);
  expect((await usersOf(data.db, 'alphas', late.id)).map((u) => u.name)).toEqual(['Early']);
});

test.each([1, 2, 3])('a sweep after many saves and deletions keeps exactly what is named, round %s', async (round) => {
  const random = seeded(round);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const clays = await Promise.all(Array.from({ length: 12 }, () => blob(33 * 33 * 12)));
  const files = await Promise.all(Array.from({ length: 12 }, () => blob(50)));
  const slabs: { doc: Slab; revision: number; deleted: boolean }[] = [];
  for (let act = 0; act < 60; act++) {
    const at = slabs.length < 3 ? null : pick([...slabs, null]);
    if (at && random() < 0.3) {
      await (at.deleted ? restoreDocument : deleteDocument)(data.db, 'sources', at.doc.id);
      at.deleted = !at.deleted;
      continue;
    }
    if (at?.deleted) continue;
    const doc = SlabSchema.parse({
      version: SOURCE_VERSION,
      kind: 'slab',
      cells: 32,
      id: at?.doc.id ?? crypto.randomUUID(),
      card: { name: at?.doc.card.name ?? `Slab ${round} ${act}` },
      blob: pick([...clays, null]),
      history: pick([...files, null]),
      references:
        random() < 0.5 ? [] : [{ id: crypto.randomUUID(), name: 'r', blob: pick(files), width: 2, height: 2 }],
    });
    const revision = await saveDocument(data.db, 'sources', { doc, revision: at?.revision ?? null });
    if (at) Object.assign(at, { doc, revision });
    else slabs.push({ doc, revision, deleted: false });
  }
  // What is in the trash longer than thirty days goes, and what was sent long ago is held by what names it alone.
  await data.db.exec(
    "UPDATE blobs SET sent_at = now() - interval '30 days'; UPDATE sources SET deleted_at = now() - interval '31 days' WHERE deleted_at IS NOT NULL AND random() < 0.5",
  );
  await cleanUp(data.db, data.files);
  const { rows: texts } = await data.db.query<{ doc: unknown }>(
    'SELECT doc FROM sources UNION ALL SELECT doc FROM alphas UNION ALL SELECT doc FROM revisions',
  );
  const named = new Set(texts.flatMap(({ doc }) => JSON.stringify(doc).match(/\b[0-9a-f]{64}\b/g) ?? []));
  const { rows } = await data.db.query<{ hash: string }>('SELECT hash FROM blobs');
  expect(rows.map((r) => r.hash).sort()).toEqual([...named].sort());
  for (const hash of [...clays, ...files]) expect(await data.files.has(hash)).toBe(named.has(hash));
});
