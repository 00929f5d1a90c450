/** Puts the base brushes of this version into the rack where they are missing. */
import { BASE_BRUSHES } from '#core/presets';
import type { Brush } from '#core/settings';
import type { Database } from './database';
import { getBelt, putBelt } from './queries/belt';
import { saveDocument } from './queries/save';

/** `draw` makes their pictures at once; without it they are drawn when they are asked for. */
export async function seedBaseBrushes(db: Database, draw?: (brush: Brush) => Promise<Uint8Array>): Promise<void> {
  const { rows } = await db.query<{ id: string }>('SELECT id FROM brushes WHERE base');
  const known = new Set(rows.map((r) => r.id));
  const missing = BASE_BRUSHES.filter((b) => !known.has(b.id));
  for (const brush of missing) {
    await saveDocument(db, 'brushes', {
      doc: brush,
      revision: null,
      base: true,
      ...(draw ? { picture: await draw(brush) } : {}),
    });
  }
  if (missing.length > 0) await putBelt(db, [...(await getBelt(db)), ...missing.map((b) => b.id)]);
}
