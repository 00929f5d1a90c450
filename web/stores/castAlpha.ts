/** Keeping an alpha that a recipe made: baked, its bytes sent, saved with its lineage. */
import type { StoredDocument } from '#core/stored';
import {
  ALPHA_VERSION,
  AlphaSchema,
  CastSettingsSchema,
  type Alpha,
  type Base,
  type Recipe,
  type Source,
} from '#core/settings';
import { usedRange } from '#core/picture';
import { othersOf } from '#core/recipe';
import * as api from '../api/client';
import { bake, MOST_BASE_SIDE, type Bake, type Baking, type Made, type RecipeFrom } from '../workers/recipes';
import { useLibrary } from './library';
import { plain } from '../api/plain';

/** Depth that a picture is given before anyone set it, in sides: type stands lower than texture. */
export const startRelief = (kind: Source['kind']): number => (kind === 'lettering' ? 0.04 : 0.1);

/** A pattern that tiles, or a picture made seamless, and not changed in shape since. */
export function tilesOf(recipe: Recipe | null, made: Made): boolean {
  const steps = (recipe?.steps ?? []).filter((s) => s.on);
  const breaks = (kind: string): boolean =>
    ['crop', 'straighten', 'perspective', 'pad', 'feather', 'cut', 'pickOut', 'symmetry'].includes(kind);
  const last = steps.findLastIndex((s) => s.kind === 'seamless');
  if (last >= 0) return !steps.slice(last + 1).some((s) => breaks(s.kind));
  return made?.kind === 'pattern' && made.grow.tiles && !steps.some((s) => breaks(s.kind));
}

/** The drawn source that a recipe begins with. */
export async function madeOf({ base }: Recipe): Promise<Made> {
  if (base.kind !== 'lettering' && base.kind !== 'pattern') return null;
  try {
    const { doc } = await api.get('sources', base.sourceId);
    return doc.kind === base.kind ? doc : null;
  } catch (error) {
    if (api.isMissing(error)) return null;
    throw error;
  }
}

export function recipeFrom(recipe: Recipe, made: Made): RecipeFrom {
  const library = useLibrary();
  const others = othersOf(recipe.steps)
    .map((id) => library.alpha(id))
    .filter((a) => a !== null)
    .map((a) => plain(a));
  return { base: plain(recipe.base), made: plain(made), others };
}

/** The longer side that the base has at full size, for an alpha of `size` pixels. */
export function fullSide(base: Base, size: number): number {
  switch (base.kind) {
    case 'sheet':
      return Math.min(MOST_BASE_SIDE, Math.max(base.width, base.height));
    case 'cast':
      return base.size;
    case 'lettering':
    case 'pattern':
      return size;
  }
}

export interface AlphaWish {
  /** A new alpha's id, or that of the one made anew. */
  id: string;
  card: Alpha['card'];
  size: number;
  relief: number;
  format: 'grey16' | 'grey32f';
  recipe: Recipe;
  /** What the recipe begins with, where that is drawn. */
  made: Made;
  source: { id: string; revision: number } | null;
  /** Of the cast of a slab or a scan, which stays when its tones are worked on. */
  cast?: Pick<Alpha['lineage'], 'floor' | 'crown' | 'cast' | 'patchId' | 'colours'>;
}

/** Bakes and saves; `done` answers the kept alpha. */
export function castAlpha(
  wish: AlphaWish,
  revision: number | null,
  onProgress: (share: number) => void,
): { done: Promise<StoredDocument<'alphas'>>; cancel: Baking['cancel'] } {
  const from = recipeFrom(wish.recipe, wish.made);
  const work = bake(
    from,
    {
      steps: plain(wish.recipe.steps),
      size: wish.size,
      fullSize: fullSide(from.base, wish.size),
      tiles: tilesOf(wish.recipe, from.made),
      chosen: null,
      through: false,
    },
    wish.format,
    onProgress,
  );
  const done = work.done.then(async (baked) => {
    const stored = await api.save('alphas', alphaFrom(wish, baked, await api.putBlob(baked.bytes)), revision);
    useLibrary().putAlpha(stored);
    onProgress(1);
    return stored;
  });
  return { done, cancel: work.cancel };
}

function alphaFrom(wish: AlphaWish, { answer }: Bake, blob: string): Alpha {
  const { heights, size, checks } = answer;
  const picture = { width: size, height: size, data: heights };
  return AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: wish.id,
    card: wish.card,
    size,
    relief: wish.relief,
    format: wish.format,
    blob,
    recipe: plain(wish.recipe),
    ground: Math.max(0, Math.min(1, checks.ground)),
    lineage: {
      sourceId: wish.source?.id ?? null,
      sourceRevision: wish.source?.revision ?? null,
      ...(wish.cast ?? { floor: 0, crown: wish.relief, cast: CastSettingsSchema.parse({}) }),
    },
    report: { marginPx: checks.margin.marginPx, ringLoss: checks.ringLoss, usedRange: usedRange(picture), undercut: 0 },
  });
}
