/** What documents name: whether it is there, who follows an alpha, and what no document names any more. */
import type { References } from '#core/settings';
import type { Collection } from '#core/kept';
import type { Database, Queries } from '../database';
import { Problem } from '../problem';

/** Throws a Problem that names the first thing that is missing, or of another size than it must have. */
export async function needReferences(db: Queries, what: string, { blobs, alphas }: References): Promise<void> {
  if (blobs.length > 0) {
    const { rows } = await db.query<{ hash: string; bytes: number }>('SELECT hash, bytes::float8 AS bytes FROM blobs WHERE hash = ANY($1)', [blobs.map((b) => b.hash)]);
    const sizes = new Map(rows.map((r) => [r.hash, r.bytes]));
    for (const { hash, bytes } of blobs) {
      const found = sizes.get(hash);
      if (found === undefined) {
        throw new Problem(404, 'blob-missing', `There is no stored data ${hash.slice(0, 12)}… that the ${what} names. Send it first.`, { hash });
      }
      if (bytes !== null && bytes !== found) {
        throw new Problem(422, 'blob-size', `The data of the ${what} has ${found} bytes; by its own settings it needs ${bytes}.`, { hash, found, needed: bytes });
      }
    }
  }
  if (alphas.length > 0) {
    const { rows } = await db.query<{ id: string }>('SELECT id FROM alphas WHERE id = ANY($1::uuid[]) AND deleted_at IS NULL', [alphas]);
    const missing = alphas.filter((id) => !rows.some((r) => r.id === id));
    if (missing.length > 0) {
      const { rows: gone } = await db.query<{ name: string }>('SELECT name FROM alphas WHERE id = ANY($1::uuid[])', [missing]);
      const which = gone[0] ? `“${gone[0].name}”, which was deleted` : 'an alpha that isn’t here';
      throw new Problem(422, 'alpha-missing', `The ${what} uses ${which}. Choose another alpha, or none, for its form and its tooth, and save again.`, { alphas: missing });
    }
  }
}

export async function putReferences(db: Queries, collection: Collection, id: string, revision: number, { blobs, alphas }: References): Promise<void> {
  const rows = [...blobs.map((b) => ['blob', b.hash]), ...alphas.map((a) => ['alpha', a])];
  if (rows.length === 0) return;
  await db.query(
    `INSERT INTO refs (collection, id, revision, kind, target) SELECT $1, $2, $3, kind, target FROM unnest($4::text[], $5::text[]) AS named (kind, target) ON CONFLICT DO NOTHING`,
    [collection, id, revision, rows.map((r) => r[0]), rows.map((r) => r[1])],
  );
}

/** Names of blobs that were last sent more than a week ago, and that neither a document nor a draft names; they are taken off the list. */
export async function takeUnnamedBlobs(db: Database): Promise<string[]> {
  const { rows } = await db.query<{ hash: string }>(`
    DELETE FROM blobs b WHERE sent_at < now() - interval '7 days'
      AND NOT EXISTS (SELECT 1 FROM refs WHERE kind = 'blob' AND target = b.hash)
      AND NOT EXISTS (SELECT 1 FROM holds h WHERE h.hash = b.hash AND h.seen_at > now() - interval '1 year')
    RETURNING hash`);
  return rows.map((r) => r.hash);
}
