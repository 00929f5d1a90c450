/**
 * Keeps the data folder small: revisions are thinned, what was deleted long ago goes, and so do bytes that nothing
 * names. All revisions of the last day stay, of the last week the last of each hour, of the last three months the last
 * of each day, before that the last of each week; those that have a name stay. What was deleted can be taken back for
 * thirty days.
 */
import { stat, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { COLLECTIONS } from '#core/stored';
import type { BlobFiles } from '../blobFiles';
import type { Cleaned, Sizes } from '../port';
import { takeUnnamedBlobs } from './references';
import type { Database } from './thread';

/** Everything at once; safe to be asked for at any time. */
export async function cleanUp(db: Database, files: BlobFiles): Promise<Cleaned> {
  const deleted = await emptyTrash(db);
  const revisions = await thinRevisions(db);
  const unnamed = await takeUnnamedBlobs(db);
  for (const hash of unnamed) await files.remove(hash);
  // Rows that are gone leave room in their tables that only this gives back.
  if (revisions + deleted > 0)
    for (const table of ['revisions', 'refs', ...COLLECTIONS]) await db.exec(`VACUUM FULL ${table}`);
  await db.exec('CHECKPOINT');
  return { revisions, deleted, blobs: unnamed.length };
}

async function thinRevisions(db: Database): Promise<number> {
  const { rows } = await db.query<{ count: number }>(`
    WITH aged AS (
      SELECT collection, id, revision, row_number() OVER (
        PARTITION BY collection, id, CASE
          WHEN saved_at > now() - interval '7 days' THEN date_trunc('hour', saved_at)
          WHEN saved_at > now() - interval '90 days' THEN date_trunc('day', saved_at)
          ELSE date_trunc('week', saved_at) END
        ORDER BY revision DESC) AS newer
      FROM revisions WHERE saved_at < now() - interval '1 day' AND name = ''
    ), gone AS (
      DELETE FROM revisions r USING aged a WHERE a.newer > 1 AND (r.collection, r.id, r.revision) = (a.collection, a.id, a.revision)
      RETURNING r.collection, r.id, r.revision
    ), unnamed AS (
      DELETE FROM refs USING gone g WHERE (refs.collection, refs.id, refs.revision) = (g.collection, g.id, g.revision)
    )
    SELECT count(*)::int AS count FROM gone`);
  return rows[0].count;
}

async function emptyTrash(db: Database): Promise<number> {
  let count = 0;
  for (const collection of COLLECTIONS) {
    await db.transaction(async (tx) => {
      const { rows } = await tx.query<{ id: string }>(
        `DELETE FROM ${collection} WHERE deleted_at < now() - interval '30 days' RETURNING id`,
      );
      const ids = rows.map((r) => r.id);
      if (ids.length === 0) return;
      count += ids.length;
      for (const table of ['revisions', 'refs'])
        await tx.query(`DELETE FROM ${table} WHERE collection = $1 AND id = ANY($2::uuid[])`, [collection, ids]);
    });
  }
  return count;
}

export async function sizesOf(db: Database, databaseFolder: string): Promise<Sizes> {
  const {
    rows: [blobs],
  } = await db.query<{ bytes: number }>('SELECT coalesce(sum(bytes), 0)::float8 AS bytes FROM blobs');
  const {
    rows: [kept],
  } = await db.query<{ count: number }>('SELECT count(*)::int AS count FROM revisions');
  let deleted = 0;
  for (const collection of COLLECTIONS) {
    const { rows } = await db.query<{ count: number }>(
      `SELECT count(*)::int AS count FROM ${collection} WHERE deleted_at IS NOT NULL`,
    );
    deleted += rows[0].count;
  }
  return { files: blobs.bytes, database: await bytesUnder(databaseFolder), revisions: kept.count, deleted };
}

async function bytesUnder(folder: string): Promise<number> {
  let sum = 0;
  for (const entry of await readdir(folder, { recursive: true, withFileTypes: true })) {
    if (entry.isFile())
      sum += await stat(join(entry.parentPath, entry.name)).then(
        (s) => s.size,
        () => 0,
      );
  }
  return sum;
}
