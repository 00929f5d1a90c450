/** Blobs that drafts in a browser name. */
import type { Transacted } from './thread';

/** From now on the browser's drafts name these and no others. Answers those that aren't here. */
export async function putHolds(db: Transacted, holder: string, hashes: readonly string[]): Promise<string[]> {
  return db.transaction(async (tx) => {
    await tx.query('DELETE FROM holds WHERE holder = $1 AND NOT hash = ANY($2)', [holder, hashes]);
    await tx.query(
      'INSERT INTO holds (holder, hash) SELECT $1, hash FROM unnest($2::text[]) AS named (hash) ON CONFLICT (holder, hash) DO UPDATE SET seen_at = now()',
      [holder, hashes],
    );
    const { rows } = await tx.query<{ hash: string }>(
      'SELECT hash FROM unnest($1::text[]) AS named (hash) WHERE NOT EXISTS (SELECT 1 FROM blobs b WHERE b.hash = named.hash)',
      [hashes],
    );
    return rows.map((r) => r.hash);
  });
}
