/**
 * Blobs in rows of 1 MiB through COPY in binary form, which is many times faster than parameters.
 * Format: PostgreSQL documentation, "COPY", "Binary Format".
 */
import { createHash } from 'node:crypto';
import type { Database } from '../database';
import { Problem } from '../problem';

const PART = 1 << 20;
const SIGNATURE = Buffer.from('PGCOPY\n\xff\r\n\0', 'latin1');

/** Stores the bytes under their SHA-256 unless they are there already. Throws when the hash is another. */
export async function putBlob(db: Database, hash: string, bytes: Uint8Array): Promise<void> {
  const found = createHash('sha256').update(bytes).digest('hex');
  if (found !== hash) {
    throw new Problem(422, 'blob-hash', 'The data arrived changed: its SHA-256 is not the one it was sent under. Send it again.', { expected: hash, found });
  }
  await db.transaction(async (tx) => {
    const { rows } = await tx.query('INSERT INTO blobs (hash, bytes) VALUES ($1, $2) ON CONFLICT DO NOTHING RETURNING hash', [hash, bytes.length]);
    if (rows.length === 0) return;
    await tx.query("COPY blob_parts (hash, part, data) FROM '/dev/blob' (FORMAT binary)", [], { blob: new Blob(partsOf(hash, bytes)) });
  });
}

export async function getBlob(db: Database, hash: string): Promise<Uint8Array> {
  const { rows } = await db.query<{ bytes: number }>('SELECT bytes FROM blobs WHERE hash = $1', [hash]);
  const size = rows[0]?.bytes;
  if (size === undefined) throw new Problem(404, 'blob-missing', `There is no stored data ${hash.slice(0, 12)}….`, { hash });
  // COPY takes no parameters; the hash is checked to be hexadecimal before it stands in the statement.
  if (!/^[0-9a-f]{64}$/.test(hash)) throw new Problem(400, 'bad-hash', 'A blob is named by 64 hexadecimal digits.');
  const result = await db.query(`COPY (SELECT data FROM blob_parts WHERE hash = '${hash}' ORDER BY part) TO '/dev/blob' (FORMAT binary)`);
  if (!result.blob) throw new Error('COPY gave no data.');
  const out = new Uint8Array(Number(size));
  const copied = readParts(Buffer.from(await result.blob.arrayBuffer()), out);
  if (copied !== out.length) throw new Problem(500, 'blob-short', `Stored data ${hash.slice(0, 12)}… is cut short: ${copied} of ${out.length} bytes.`);
  return out;
}

export async function hasBlob(db: Database, hash: string): Promise<boolean> {
  return (await db.query('SELECT 1 FROM blobs WHERE hash = $1', [hash])).rows.length > 0;
}

/** Blobs that nothing names and that are older than a day: left by casts that were never kept. A body that was taken off the list keeps its mesh for a month. */
export async function sweepBlobs(db: Database): Promise<number> {
  const { rows } = await db.query(`
    DELETE FROM blobs b
    WHERE created_at < now() - interval '1 day'
      AND NOT EXISTS (SELECT 1 FROM sources WHERE position(b.hash IN doc::text) > 0)
      AND NOT EXISTS (SELECT 1 FROM alphas WHERE position(b.hash IN doc::text) > 0)
      AND NOT EXISTS (SELECT 1 FROM bodies WHERE doc->>'mesh' = b.hash AND coalesce(deleted_at, now()) > now() - interval '30 days')
      AND NOT EXISTS (SELECT 1 FROM revisions WHERE position(b.hash IN doc::text) > 0)
    RETURNING hash`);
  return rows.length;
}

function partsOf(hash: string, bytes: Uint8Array): BlobPart[] {
  const out: BlobPart[] = [Buffer.concat([SIGNATURE, Buffer.alloc(8)])];
  const name = Buffer.from(hash, 'latin1');
  for (let part = 0; part * PART < Math.max(1, bytes.length); part++) {
    const data = bytes.subarray(part * PART, (part + 1) * PART);
    const head = Buffer.alloc(2 + 4 + name.length + 4 + 4 + 4);
    let at = head.writeInt16BE(3, 0);
    at = head.writeInt32BE(name.length, at);
    at += name.copy(head, at);
    at = head.writeInt32BE(4, at);
    at = head.writeInt32BE(part, at);
    head.writeInt32BE(data.length, at);
    out.push(head, data as Uint8Array<ArrayBuffer>);
  }
  out.push(Buffer.from([0xff, 0xff]));
  return out;
}

function readParts(from: Buffer, to: Uint8Array): number {
  let at = SIGNATURE.length + 4;
  at += 4 + from.readInt32BE(at);
  let filled = 0;
  while (from.readInt16BE(at) === 1) {
    const length = from.readInt32BE(at + 2);
    to.set(from.subarray(at + 6, at + 6 + length), filled);
    filled += length;
    at += 6 + length;
  }
  return filled;
}
