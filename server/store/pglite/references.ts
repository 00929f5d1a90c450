/** What documents name: whether it is there, who names it, and what no document names any more. */
import type { References } from '#core/settings';
import { COLLECTIONS, type Collection } from '#core/stored';
import { Problem } from '../../problem';
import type { User } from '../port';
import type { Queries } from './thread';

/** Throws a Problem that names the first thing that is missing, or of another size than it must have. */
export async function needReferences(db: Queries, what: string, { blobs, documents }: References): Promise<void> {
  if (blobs.length > 0) {
    const { rows } = await db.query<{ hash: string; bytes: number }>(
      'SELECT hash, bytes::float8 AS bytes FROM blobs WHERE hash = ANY($1)',
      [blobs.map((b) => b.hash)],
    );
    const sizes = new Map(rows.map((r) => [r.hash, r.bytes]));
    for (const { hash, bytes } of blobs) {
      const found = sizes.get(hash);
      if (found === undefined) {
        throw new Problem(
          404,
          'blob-missing',
          `There is no stored data ${hash.slice(0, 12)}… that the ${what} names. Send it first.`,
          { hash },
        );
      }
      if (bytes !== null && bytes !== found) {
        throw new Problem(
          422,
          'blob-size',
          `The data of the ${what} has ${found} bytes; by its own settings it needs ${bytes}.`,
          { hash, found, needed: bytes },
        );
      }
    }
  }
  const alphas = documents.filter((d) => d.collection === 'alphas' && d.needed).map((d) => d.id);
  if (alphas.length > 0) {
    const { rows } = await db.query<{ id: string }>(
      'SELECT id FROM alphas WHERE id = ANY($1::uuid[]) AND deleted_at IS NULL',
      [alphas],
    );
    const missing = alphas.filter((id) => !rows.some((r) => r.id === id));
    if (missing.length > 0) {
      const { rows: gone } = await db.query<{ name: string }>('SELECT name FROM alphas WHERE id = ANY($1::uuid[])', [
        missing,
      ]);
      const which = gone[0] ? `“${gone[0].name}”, which was deleted` : 'an alpha that isn’t here';
      throw new Problem(
        422,
        'alpha-missing',
        `The ${what} uses ${which}. Choose another alpha, or none, for its form and its tooth, and save again.`,
        { alphas: missing },
      );
    }
  }
}

/**
 * References as columns: kind (of a document its collection), target, bytes that a blob must have, whether it is
 * needed.
 */
export function columnsOf({ blobs, documents }: References): [string[], string[], (number | null)[], boolean[]] {
  return [
    [...blobs.map(() => 'blob'), ...documents.map((d) => d.collection)],
    [...blobs.map((b) => b.hash), ...documents.map((d) => d.id)],
    [...blobs.map((b) => b.bytes), ...documents.map(() => null)],
    [...blobs.map(() => true), ...documents.map((d) => d.needed)],
  ];
}

export async function putReferences(
  db: Queries,
  { collection, id, revision }: { collection: Collection; id: string; revision: number },
  references: References,
): Promise<void> {
  const [kinds, targets, , needed] = columnsOf(references);
  if (kinds.length === 0) return;
  await db.query(
    `INSERT INTO refs (collection, id, revision, kind, target, needed)
     SELECT $1, $2, $3, kind, target, needed FROM unnest($4::text[], $5::text[], $6::boolean[]) AS named (kind, target, needed) ON CONFLICT DO NOTHING`,
    [collection, id, revision, kinds, targets, needed],
  );
}

/** Who names a document, as they are now. */
export async function usersOf(db: Queries, collection: Collection, id: string): Promise<User[]> {
  const standing = COLLECTIONS.map(
    (c) => `SELECT '${c}' AS collection, id, revision, name FROM ${c} WHERE deleted_at IS NULL`,
  ).join(' UNION ALL ');
  const { rows } = await db.query<User>(
    `SELECT d.collection, d.id, d.name, r.needed FROM refs r JOIN (${standing}) d ON (d.collection, d.id, d.revision) = (r.collection, r.id, r.revision)
     WHERE r.kind = $1 AND r.target = $2 ORDER BY d.name`,
    [collection, id],
  );
  return rows;
}

export async function blobsNamedBy(db: Queries, collection: Collection, id: string): Promise<string[]> {
  const { rows } = await db.query<{ target: string }>(
    "SELECT DISTINCT target FROM refs WHERE collection = $2 AND id = $1 AND kind = 'blob'",
    [id, collection],
  );
  return rows.map((r) => r.target);
}

/**
 * Names of blobs that were last sent more than a week ago, and that neither a document nor a draft names; they are
 * taken off the list.
 */
export async function takeUnnamedBlobs(db: Queries): Promise<string[]> {
  const { rows } = await db.query<{ hash: string }>(`
    DELETE FROM blobs b WHERE sent_at < now() - interval '7 days'
      AND NOT EXISTS (SELECT 1 FROM refs WHERE kind = 'blob' AND target = b.hash)
      AND NOT EXISTS (SELECT 1 FROM holds h WHERE h.hash = b.hash AND h.seen_at > now() - interval '1 year')
    RETURNING hash`);
  return rows.map((r) => r.hash);
}
