/** The brushes at hand, in their order. */
import type { Queries, Transacted } from './thread';

/** Base brushes that are there. */
export async function bases(db: Queries): Promise<string[]> {
  return (await db.query<{ id: string }>('SELECT id FROM brushes WHERE base')).rows.map((row) => row.id);
}

export async function getBelt(db: Queries): Promise<string[]> {
  const { rows } = await db.query<{ brush_id: string }>('SELECT brush_id FROM belt ORDER BY place');
  return rows.map((r) => r.brush_id);
}

/** Ids that are no brush are left out. */
export async function putBelt(db: Transacted, ids: readonly string[]): Promise<string[]> {
  await db.transaction(async (tx) => {
    await tx.query('DELETE FROM belt');
    for (const [place, id] of [...new Set(ids)].entries()) {
      await tx.query(
        'INSERT INTO belt (place, brush_id) SELECT $1, id FROM brushes WHERE id = $2 AND deleted_at IS NULL',
        [place, id],
      );
    }
  });
  return getBelt(db);
}
