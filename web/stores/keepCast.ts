/** Casting at full size, and keeping what was cast as an alpha with its lineage: a slab's, or a patch's of a scan. */
import type { StoredDocument } from '#core/stored';
import { ALPHA_VERSION, AlphaSchema, type Alpha, type CastSettings, type Step } from '#core/settings';
import * as api from '../api/client';
import { plain } from '../api/plain';
import type { CastResult, FlatCast, VectorResult } from '../workers/castResult';
import { castAlpha } from './castAlpha';
import { useLibrary } from './library';
import type { WorkHand } from './work';

/** A live cast is never larger than this; the kept one has the size that was asked for. */
export const PREVIEW_SIZE = 512;

export interface FullCast {
  bytes: Uint8Array<ArrayBuffer>;
  alpha: Pick<Alpha, 'size' | 'relief' | 'ground' | 'format' | 'report'>;
  lineage: Pick<Alpha['lineage'], 'floor' | 'crown' | 'cast'>;
}

/** Whoever casts: a slab’s worker, or a scan’s for one patch. */
export interface Casting {
  cast(settings: CastSettings, onProgress: (share: number) => void): Promise<CastResult | FlatCast>;
  vector(settings: CastSettings, onProgress: (share: number) => void): Promise<VectorResult | FlatCast>;
}

export async function fullCast(
  from: Casting,
  wanted: CastSettings,
  report: (share: number) => void,
): Promise<FullCast | FlatCast> {
  const tell = (done: number): void => report(done * 0.9);
  // Heights are looked at in either case: they give ground, margin and range.
  const looked = await from.cast(
    wanted.format === 'vector32f' ? { ...wanted, size: Math.min(wanted.size, PREVIEW_SIZE) } : wanted,
    tell,
  );
  if ('flat' in looked) return looked;
  const lineage = { floor: looked.floor, crown: looked.crown, cast: wanted };
  const marginPx = Math.round((looked.margin.marginPx * wanted.size) / looked.size);
  const seen = { marginPx, ringLoss: looked.ringLoss, usedRange: looked.usedRange, undercut: looked.undercutShare };
  if (wanted.format === 'vector32f') {
    const made = await from.vector(wanted, tell);
    if ('flat' in made) return made;
    const { offsets, relief } = made;
    const alpha = { size: wanted.size, relief: Math.max(relief, 1e-6), ground: 0, format: wanted.format, report: seen };
    return { bytes: new Uint8Array(offsets.buffer as ArrayBuffer), alpha, lineage };
  }
  const pixels = wanted.format === 'grey16' ? looked.greys : looked.floats;
  const alpha = {
    size: looked.size,
    relief: looked.relief,
    ground: looked.ground,
    format: wanted.format,
    report: seen,
  };
  return { bytes: new Uint8Array(pixels.buffer as ArrayBuffer), alpha, lineage };
}

/** What is cast, and what it becomes. */
export interface Keeping {
  made: FullCast;
  /** The one that is cast anew. */
  before: StoredDocument<'alphas'> | null;
  card: Alpha['card'];
  source: { id: string; revision: number; patchId?: string };
  /** Done to a new alpha of heights. One that is cast anew keeps its own. */
  steps: Step[];
  /** Cast beside the heights. */
  colours?: Alpha['lineage']['colours'];
}

export async function keepCast(
  { made, before, card, source, steps, colours }: Keeping,
  hand: WorkHand,
): Promise<Alpha> {
  const blob = await api.putBlob(made.bytes);
  const over = before?.doc;
  const on = before?.revision ?? null;
  const own = over ? (over.recipe?.steps ?? []) : steps;
  const lineage = { ...made.lineage, patchId: source.patchId ?? null, colours: colours ?? null };
  if ((over?.recipe ?? own.length > 0) && made.alpha.format !== 'vector32f') {
    // Steps that were worked out on the old cast are run on the new one.
    const again = castAlpha(
      {
        id: over?.id ?? crypto.randomUUID(),
        card,
        size: over?.size ?? made.alpha.size,
        relief: made.alpha.relief,
        format: (over?.format ?? made.alpha.format) === 'grey32f' ? 'grey32f' : 'grey16',
        recipe: {
          base: { kind: 'cast', blob, format: made.alpha.format, size: made.alpha.size },
          steps: plain(own),
        },
        made: null,
        source,
        cast: lineage,
      },
      on,
      hand.report,
    );
    hand.onCancel(again.cancel);
    return (await again.done).doc;
  }
  const alpha = AlphaSchema.parse({
    ...made.alpha,
    version: ALPHA_VERSION,
    id: over?.id ?? crypto.randomUUID(),
    blob,
    card,
    lineage: { ...lineage, sourceId: source.id, sourceRevision: source.revision },
  });
  const stored = await api.save('alphas', alpha, on);
  useLibrary().putAlpha(stored);
  return stored.doc;
}
