/** Which stored bytes there are; they themselves are files. */
import type { Database } from '../database';
import { Problem } from '../problem';
import type { Arrived, BlobFiles } from '../store/blobFiles';

export async function hasBlob(db: Database, hash: string): Promise<boolean> {
  return (await db.query('SELECT 1 FROM blobs WHERE hash = $1', [hash])).rows.length > 0;
}

/** Bytes of a blob; throws a Problem when there is none. */
export async function sizeOfBlob(db: Database, hash: string): Promise<number> {
  const { rows } = await db.query<{ bytes: number }>('SELECT bytes::float8 AS bytes FROM blobs WHERE hash = $1', [
    hash,
  ]);
  if (!rows[0]) throw new Problem(404, 'blob-missing', `There is no stored data ${hash.slice(0, 12)}….`, { hash });
  return rows[0].bytes;
}

/** Says that they are wanted again: from now on they stay for a day. False where they aren't here. */
export async function renewBlobs(db: Database, hashes: readonly string[]): Promise<string[]> {
  const { rows } = await db.query<{ hash: string }>(
    'UPDATE blobs SET sent_at = now() WHERE hash = ANY($1) RETURNING hash',
    [hashes],
  );
  return rows.map((r) => r.hash);
}

/** Stores what arrived; the file first, so that what the list names is there. */
export async function keepBlob(db: Database, files: BlobFiles, arrived: Arrived): Promise<void> {
  await files.name(arrived);
  await db.query('INSERT INTO blobs (hash, bytes) VALUES ($1, $2) ON CONFLICT (hash) DO UPDATE SET sent_at = now()', [
    arrived.hash,
    arrived.bytes,
  ]);
}

/** Stores bytes that are at hand, as the demo's are. */
export async function putBlob(db: Database, files: BlobFiles, bytes: Uint8Array): Promise<string> {
  const arrived = await files.receive(one(bytes), Infinity);
  await keepBlob(db, files, arrived);
  return arrived.hash;
}

async function* one(bytes: Uint8Array): AsyncIterable<Uint8Array> {
  yield bytes;
}
