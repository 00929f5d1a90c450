/** What a sweep keeps: exactly what is named. */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seeded } from '#core/random';
import { SlabSchema, SOURCE_VERSION, type Slab } from '#core/settings';
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

let n = 0;
const blob = (bytes: number): Promise<string> => {
  n++;
  return data.blobs.put(new Uint8Array(bytes).fill(n % 251).fill(n >> 8, 0, 4));
};
test.each([1, 2, 3])('a sweep after many saves and deletions keeps exactly what is named, round %s', async (round) => {
  const random = seeded(round);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)];
  const clays = await Promise.all(Array.from({ length: 12 }, () => blob(33 * 33 * 12)));
  const files = await Promise.all(Array.from({ length: 12 }, () => blob(50)));
  const slabs: { doc: Slab; revision: number; deleted: boolean }[] = [];
  for (let act = 0; act < 60; act++) {
    const at = slabs.length < 3 ? null : pick([...slabs, null]);
    if (at && random() < 0.3) {
      await (at.deleted ? data.restore : data.remove)('sources', at.doc.id);
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
    const revision = await data.save(judged('sources', doc), { revision: at?.revision ?? null });
    if (at) Object.assign(at, { doc, revision });
    else slabs.push({ doc, revision, deleted: false });
  }
  // What is in the trash longer than thirty days goes, and what was sent long ago is held by what names it alone.
  await data.inside.db.exec(
    "UPDATE blobs SET sent_at = now() - interval '30 days'; UPDATE sources SET deleted_at = now() - interval '31 days' WHERE deleted_at IS NOT NULL AND random() < 0.5",
  );
  await data.clean();
  const { rows: texts } = await data.inside.db.query<{ doc: unknown }>(
    'SELECT doc FROM sources UNION ALL SELECT doc FROM alphas UNION ALL SELECT doc FROM revisions',
  );
  const named = new Set(texts.flatMap(({ doc }) => JSON.stringify(doc).match(/\b[0-9a-f]{64}\b/g) ?? []));
  const { rows } = await data.inside.db.query<{ hash: string }>('SELECT hash FROM blobs');
  expect(rows.map((r) => r.hash).sort()).toEqual([...named].sort());
  for (const hash of [...clays, ...files]) expect(await data.inside.files.has(hash)).toBe(named.has(hash));
});
