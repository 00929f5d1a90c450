/** Puts the base brushes of this version into the rack where they are missing. */
import { BASE_BRUSHES } from '#core/presets';
import type { Brush } from '#core/settings';
import { judged } from './reading/judged';
import type { Save, Store } from './store/port';

/** `draw` makes their pictures at once; without it they are drawn when they are asked for. */
export async function seedBaseBrushes(store: Store, draw?: (brush: Brush) => Promise<Uint8Array>): Promise<void> {
  const known = new Set(await store.bases());
  const missing = BASE_BRUSHES.filter((b) => !known.has(b.id));
  if (missing.length === 0) return;
  const saves = new Map<string, Save>();
  for (const brush of missing)
    saves.set(brush.id, { revision: null, base: true, ...(draw ? { picture: await draw(brush) } : {}) });
  await store.transaction(async (verbs) => {
    for (const brush of missing) await verbs.save(judged('brushes', brush), saves.get(brush.id)!);
    await verbs.putBelt([...(await verbs.belt()), ...missing.map((b) => b.id)]);
  });
}
