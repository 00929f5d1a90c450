/** Brushes from alphas: one as a draft that waits to be named, or many at once as a brush of one's choice works. */
import { STAMP_BASE } from '#core/presets';
import type { AlphaHead, PartHead } from '#core/stored';
import { BRUSH_VERSION, BrushSchema, type Brush } from '#core/settings';
import * as api from '../api/client';
import { brushDrafts } from '../api/drafts';
import { useLibrary } from '../stores/library';
import { plain } from '../api/plain';
import type { WorkHand } from '../stores/work';
import { usePreferences } from '../stores/preferences';

/** The stamp's base with this form and full falloff, kept as a draft. Answers its id. */
export async function brushFrom(alpha: AlphaHead): Promise<string> {
  const library = useLibrary();
  const brush = brushLike(STAMP_BASE, alpha, {
    name: library.freeName('brushes', alpha.card.name),
    author: alpha.card.author,
    tags: [],
    notes: '',
  });
  brush.touch.falloff.kind = 'full';
  await brushDrafts.keep({ doc: brush, revision: null, keptAt: Date.now(), pending: false });
  await library.loadDrafts();
  return brush.id;
}

/** A brush that sets these parts down, each once; kept as a draft. Answers its id. */
export async function brushFromParts(parts: readonly PartHead[]): Promise<string> {
  const library = useLibrary();
  const [first] = parts;
  const brush = BrushSchema.parse({
    version: BRUSH_VERSION,
    id: crypto.randomUUID(),
    card: {
      name: library.freeName('brushes', first?.card.name ?? 'Parts'),
      author: first?.card.author || usePreferences().author(),
    },
    touch: { action: 'insert' },
    stroke: { type: 'grow' },
    parts: { entries: parts.map(({ id }) => ({ partId: id })) },
  });
  await brushDrafts.keep({ doc: brush, revision: null, keptAt: Date.now(), pending: false });
  await library.loadDrafts();
  return brush.id;
}

/** A brush that works as another does, with this alpha as its form. */
export function brushLike(pattern: Brush, alpha: AlphaHead, card: Brush['card']): Brush {
  const brush = plain(pattern);
  return {
    ...brush,
    id: crypto.randomUUID(),
    card,
    thumbnail: { ...brush.thumbnail, own: null },
    form: { ...brush.form, alphaId: alpha.id, ground: alpha.ground },
  };
}

export interface BrushesWish {
  /** Whose settings all of them take. */
  pattern: Brush;
  /** They are called so and counted; empty for the names of their alphas. */
  stem: string;
  author: string;
  tags: readonly string[];
}

/**
 * Saves a brush for each alpha, in their order. What is made when it is cancelled, or one can't be saved, stays: `made`
 * holds it then.
 */
export async function brushesFrom(
  alphas: readonly AlphaHead[],
  { pattern, stem, author, tags }: BrushesWish,
  hand: Pick<WorkHand, 'report' | 'cancelled'>,
  made: Brush[] = [],
): Promise<Brush[]> {
  const library = useLibrary();
  for (const [i, alpha] of alphas.entries()) {
    if (hand.cancelled) break;
    hand.report(i / alphas.length, `${i + 1} of ${alphas.length}`);
    const wanted = stem === '' ? alpha.card.name : `${stem} ${i + 1}`;
    const card = { name: library.freeName('brushes', wanted), author, tags: [...tags], notes: '' };
    const stored = await api.save('brushes', BrushSchema.parse(brushLike(pattern, alpha, card)), null);
    library.putBrush(stored);
    made.push(stored.doc);
  }
  return made;
}
