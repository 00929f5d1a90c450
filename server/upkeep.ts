/**
 * Keeps the data folder small: revisions are thinned, what was deleted long ago goes, and so do bytes that nothing names.
 * All revisions of the last day stay, of the last week the last of each hour, of the last three months the last of each
 * day, before that the last of each week. What was deleted can be taken back for thirty days.
 */
import { stat, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { COLLECTIONS, readStored, referencesOf, type Collection } from './collections';
import type { Database } from './database';
import { putReferences, takeUnnamedBlobs } from './queries/references';
import type { BlobFiles } from './store/blobFiles';

export interface Cleaned {
  revisions: number;
  deleted: number;
  blobs: number;
}

const BATCH = 500;

/** Everything at once; safe to be asked for at any time. */
export async function cleanUp(db: Database, files: BlobFiles): Promise<Cleaned> {
  const deleted = await emptyTrash(db);
  const revisions = await thinRevisions(db);
  const unnamed = await takeUnnamedBlobs(db);
  for (const hash of unnamed) await files.remove(hash);
  // Rows that are gone leave room in their tables that only this gives back.
  if (revisions + deleted > 0) for (const table of ['revisions', 'refs', ...COLLECTIONS]) await db.exec(`VACUUM FULL ${table}`);
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
      FROM revisions WHERE saved_at < now() - interval '1 day'
    ), gone AS (
      DELETE FROM revisions r USING aged a WHERE a.newer > 1 AND (r.collection, r.id, r.revision) = (a.collection, a.id, a.revision)
      RETURNING r.collection, r.id, r.revision
    ), unnamed AS (
      DELETE FROM refs USING gone g WHERE (refs.collection, refs.id, refs.revision) = (g.collection, g.id, g.revision)
    )
    SELECT count(*)::int AS count FROM gone`);
  return rows[0]!.count;
}

async function emptyTrash(db: Database): Promise<number> {
  let count = 0;
  for (const collection of COLLECTIONS) {
    await db.transaction(async (tx) => {
      const { rows } = await tx.query<{ id: string }>(`DELETE FROM ${collection} WHERE deleted_at < now() - interval '30 days' RETURNING id`);
      const ids = rows.map((r) => r.id);
      if (ids.length === 0) return;
      count += ids.length;
      for (const table of ['revisions', 'refs']) await tx.query(`DELETE FROM ${table} WHERE collection = $1 AND id = ANY($2::uuid[])`, [collection, ids]);
    });
  }
  return count;
}

/** What an older data folder needs once before it can be served. */
export async function doChores(db: Database, files: BlobFiles): Promise<void> {
  const { rows } = await db.query<{ name: string }>('SELECT name FROM chores');
  for (const { name } of rows) {
    if (name === 'fill-refs') await fillReferences(db);
    if (name === 'blobs-to-files') await moveBlobs(db, files);
    await db.query('DELETE FROM chores WHERE name = $1', [name]);
  }
}

async function fillReferences(db: Database): Promise<void> {
  for (const collection of COLLECTIONS) {
    await readThrough(db, collection, `SELECT id, revision, doc FROM ${collection} ORDER BY id`);
    await readThrough(db, collection, `SELECT id, revision, doc FROM revisions WHERE collection = '${collection}' ORDER BY id, revision`);
  }
}

async function readThrough(db: Database, collection: Collection, all: string): Promise<void> {
  for (let offset = 0; ; offset += BATCH) {
    const { rows } = await db.query<{ id: string; revision: number; doc: unknown }>(`${all} LIMIT ${BATCH} OFFSET ${offset}`);
    for (const { id, revision, doc } of rows) {
      const read = readStored(collection, doc);
      // What can't be read keeps its bytes all the same: every name that looks like one.
      const named = read.ok ? referencesOf(collection, read.value) : { blobs: hashesIn(doc).map((hash) => ({ hash, bytes: null })), alphas: [] };
      await putReferences(db, collection, id, revision, named);
    }
    if (rows.length < BATCH) return;
  }
}

function hashesIn(doc: unknown): string[] {
  return [...new Set(JSON.stringify(doc).match(/\b[0-9a-f]{64}\b/g) ?? [])];
}

/** Earlier versions kept bytes in rows of the database. */
async function moveBlobs(db: Database, files: BlobFiles): Promise<void> {
  const { rows } = await db.query<{ hash: string }>('SELECT DISTINCT hash FROM blob_parts');
  for (const { hash } of rows) {
    if (await files.has(hash)) continue;
    const { rows: parts } = await db.query<{ part: number }>('SELECT part FROM blob_parts WHERE hash = $1 ORDER BY part', [hash]);
    const arrived = await files.receive(readParts(db, hash, parts.map((p) => p.part)), Infinity);
    if (arrived.hash !== hash) throw new Error(`Stored data ${hash.slice(0, 12)}… can’t be moved to a file: it is damaged.`);
    await files.name(arrived);
  }
  await db.exec('TRUNCATE blob_parts');
}

async function* readParts(db: Database, hash: string, parts: readonly number[]): AsyncIterable<Uint8Array> {
  for (const part of parts) {
    const { rows } = await db.query<{ data: Uint8Array }>('SELECT data FROM blob_parts WHERE hash = $1 AND part = $2', [hash, part]);
    yield rows[0]!.data;
  }
}

export interface Sizes {
  /** Bytes on the disk. */
  files: number;
  database: number;
  /** Counts. */
  revisions: number;
  deleted: number;
}

export async function sizesOf(db: Database, databaseFolder: string): Promise<Sizes> {
  const { rows: [blobs] } = await db.query<{ bytes: number }>('SELECT coalesce(sum(bytes), 0)::float8 AS bytes FROM blobs');
  const { rows: [kept] } = await db.query<{ count: number }>('SELECT count(*)::int AS count FROM revisions');
  let deleted = 0;
  for (const collection of COLLECTIONS) {
    const { rows } = await db.query<{ count: number }>(`SELECT count(*)::int AS count FROM ${collection} WHERE deleted_at IS NOT NULL`);
    deleted += rows[0]!.count;
  }
  return { files: blobs!.bytes, database: await bytesUnder(databaseFolder), revisions: kept!.count, deleted };
}

async function bytesUnder(folder: string): Promise<number> {
  let sum = 0;
  for (const entry of await readdir(folder, { recursive: true, withFileTypes: true })) {
    if (entry.isFile()) sum += await stat(join(entry.parentPath, entry.name)).then((s) => s.size, () => 0);
  }
  return sum;
}
