/** An alpha of the demo set made by a recipe, with what the product would write beside it. */
import { pictureChecks } from '#core/checks';
import { toUint16, usedRange, type Raster } from '#core/picture';
import { ALONE, runRecipe } from '#core/recipe';
import { ALPHA_VERSION, AlphaSchema, CastSettingsSchema, type Alpha, type Recipe } from '#core/settings';

export interface DemoAlphaOptions {
  id: string;
  name: string;
  author: string;
  size: number;
  relief: number;
  sourceId: string;
  recipe: Recipe;
  hash: (bytes: Uint8Array) => string;
}

export function demoAlpha(o: DemoAlphaOptions, base: Raster): { doc: Alpha; bytes: Uint8Array } {
  const { picture } = runRecipe(base, 'demo', o.recipe.steps, ALONE, { size: o.size });
  const bytes = new Uint8Array(toUint16(picture).buffer);
  const checks = pictureChecks(picture);
  const doc = AlphaSchema.parse({
    version: ALPHA_VERSION,
    id: o.id,
    format: 'grey16',
    size: o.size,
    relief: o.relief,
    ground: checks.ground,
    blob: o.hash(bytes),
    recipe: o.recipe,
    card: { name: o.name, author: o.author, tags: ['tidewrack'] },
    lineage: { sourceId: o.sourceId, sourceRevision: 1, floor: 0, crown: o.relief, cast: CastSettingsSchema.parse({}) },
    report: { marginPx: checks.margin.marginPx, ringLoss: checks.ringLoss, usedRange: usedRange(picture), undercut: 0 },
  });
  return { doc, bytes };
}
