/** What an older data folder needs once before it can be served: the migrations name it, this does it. */
import { COLLECTIONS, headOf, readStored, referencesOf, type Collection } from '#core/stored';
import type { BlobFiles } from '../blobFiles';
import { putReferences } from './references';
import type { Database } from './thread';

const BATCH = 500;

export async function doChores(db: Database, files: BlobFiles): Promise<void> {
  const { rows } = await db.query<{ name: string }>('SELECT name FROM chores');
  for (const { name } of rows) {
    if (name === 'fill-refs') await fillReferences(db);
    if (name === 'fill-heads') await fillHeads(db);
    if (name === 'blobs-to-files') await moveBlobs(db, files);
    await db.query('DELETE FROM chores WHERE name = $1', [name]);
  }
}

async function fillReferences(db: Database): Promise<void> {
  for (const collection of COLLECTIONS) {
    await readThrough(db, collection, `SELECT id, revision, doc FROM ${collection} ORDER BY id`);
    await readThrough(
      db,
      collection,
      `SELECT id, revision, doc FROM revisions WHERE collection = '${collection}' ORDER BY id, revision`,
    );
  }
}

async function readThrough(db: Database, collection: Collection, all: string): Promise<void> {
  for (let offset = 0; ; offset += BATCH) {
    const { rows } = await db.query<{ id: string; revision: number; doc: unknown }>(
      `${all} LIMIT ${BATCH} OFFSET ${offset}`,
    );
    for (const { id, revision, doc } of rows) {
      const read = readStored(collection, doc);
      // What can't be read keeps its bytes all the same: every name that looks like one.
      const named = read.ok
        ? referencesOf(collection, read.value)
        : { blobs: hashesIn(doc).map((hash) => ({ hash, bytes: null })), documents: [] };
      await putReferences(db, { collection, id, revision }, named);
    }
    if (rows.length < BATCH) return;
  }
}

function hashesIn(doc: unknown): string[] {
  return [...new Set(JSON.stringify(doc).match(/\b[0-9a-f]{64}\b/g) ?? [])];
}

async function fillHeads(db: Database): Promise<void> {
  for (const collection of COLLECTIONS) {
    for (let after = '00000000-0000-0000-0000-000000000000'; ;) {
      const { rows } = await db.query<{ id: string; doc: unknown }>(
        `SELECT id, doc FROM ${collection} WHERE id > $1 ORDER BY id LIMIT ${BATCH}`,
        [after],
      );
      const heads = rows.flatMap(({ id, doc }) => {
        const read = readStored(collection, doc);
        return read.ok ? [{ id, head: JSON.stringify(headOf(collection, read.value)) }] : [];
      });
      await db.query(
        `UPDATE ${collection} SET head = made.head FROM unnest($1::uuid[], $2::jsonb[]) AS made (id, head) WHERE ${collection}.id = made.id`,
        [heads.map((h) => h.id), heads.map((h) => h.head)],
      );
      if (rows.length < BATCH) break;
      after = rows[BATCH - 1].id;
    }
  }
}

/** Earlier versions kept bytes in rows of the database. */
async function moveBlobs(db: Database, files: BlobFiles): Promise<void> {
  const { rows } = await db.query<{ hash: string }>('SELECT DISTINCT hash FROM blob_parts');
  for (const { hash } of rows) {
    if (await files.has(hash)) continue;
    const { rows: parts } = await db.query<{ part: number }>(
      'SELECT part FROM blob_parts WHERE hash = $1 ORDER BY part',
      [hash],
    );
    const arrived = await files.receive(
      readParts(
        db,
        hash,
        parts.map((p) => p.part),
      ),
      Infinity,
    );
    if (arrived.hash !== hash)
      throw new Error(`Stored data ${hash.slice(0, 12)}… can’t be moved to a file: it is damaged.`);
    await files.name(arrived);
  }
  await db.exec('TRUNCATE blob_parts');
}

async function* readParts(db: Database, hash: string, parts: readonly number[]): AsyncIterable<Uint8Array> {
  for (const part of parts) {
    const { rows } = await db.query<{ data: Uint8Array }>('SELECT data FROM blob_parts WHERE hash = $1 AND part = $2', [
      hash,
      part,
    ]);
    yield rows[0].data;
  }
}
