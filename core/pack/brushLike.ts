/** A brush with the settings of another, for an alpha or a part of its own. */
import { BrushSchema, setsParts, type Brush } from '#core/settings';

export type Stamped = { alphaId: string } | { partId: string };

/** Base brushes lend their settings, not their maker. */
export function brushLike(of: Brush, stamped: Stamped, { id, name }: { id: string; name: string }): Brush {
  const like = structuredClone(of);
  const lent = of.card.tags.includes('base');
  const own = 'alphaId' in stamped;
  // What sets parts down presses no alpha, and the other way round.
  const touch = own === setsParts(of) ? { action: own ? ('lift' as const) : ('insert' as const) } : {};
  return BrushSchema.parse({
    ...like,
    id,
    form: { ...like.form, ...(own ? { alphaId: stamped.alphaId } : {}) },
    touch: { ...like.touch, ...touch },
    thumbnail: { ...like.thumbnail, own: null },
    parts: own ? {} : { order: like.parts.order, entries: [{ partId: stamped.partId }] },
    card: {
      ...like.card,
      name,
      author: lent ? '' : like.card.author,
      tags: like.card.tags.filter((tag) => tag !== 'base'),
    },
  });
}
