/**
 * Runs a recipe: steps in their order, then the square of the wanted size. Results of each step are kept by what led to
 * them, so that a change to one step runs that step and those after it alone.
 */
import { resize, squared } from '#core/filter';
import { toGrey, type Picture, type Raster } from '#core/picture';
import type { Step } from '#core/settings';
import { runStep, StepError, type StepContext } from './step';

export interface RecipeRun {
  picture: Picture;
  /** Shape after the last step, before it was made square. */
  shape: { width: number; height: number };
  /** Sentences of steps that couldn't be run and were left out, by their id. */
  problems: { id: string; sentence: string }[];
}

export class RecipeCancelled extends Error {
  constructor() {
    super('The recipe was cancelled.');
  }
}

export interface RunOptions {
  /** Pixels per side of the answer. */
  size: number;
  /** Runs only the steps before this one; the raster it would be given is what is answered. */
  until?: string;
  /** Called before each step with the share that is done; answering false cancels. */
  onProgress?: (share: number) => boolean;
}

/** What led to a result, and the result. */
export interface StepCache {
  keys: string[];
  rasters: Raster[];
}

export const newCache = (): StepCache => ({ keys: [], rasters: [] });

/** `baseKey` names the base and its size, so that the cache knows another one. */
export function runRecipe(
  base: Raster,
  baseKey: string,
  steps: readonly Step[],
  context: StepContext,
  options: RunOptions,
  cache: StepCache = newCache(),
): RecipeRun {
  const { raster, problems } = runSteps(base, baseKey, steps, context, options, cache);
  return {
    picture: squareGrey(raster, options.size),
    shape: { width: raster.width, height: raster.height },
    problems,
  };
}

/** The raster that comes of the steps, with the planes it has. */
export function runSteps(
  base: Raster,
  baseKey: string,
  steps: readonly Step[],
  context: StepContext,
  options: Omit<RunOptions, 'size'>,
  cache: StepCache = newCache(),
): { raster: Raster; problems: RecipeRun['problems'] } {
  const problems: RecipeRun['problems'] = [];
  const end = options.until === undefined ? -1 : steps.findIndex((s) => s.id === options.until);
  const wanted = (end < 0 ? steps : steps.slice(0, end)).filter((s) => s.on);
  const going = options.onProgress ?? (() => true);
  let key = baseKey;
  let at = base;
  wanted.forEach((step, k) => {
    if (!going(k / (wanted.length + 1))) throw new RecipeCancelled();
    key += `|${JSON.stringify(step)}`;
    if (step.kind === 'combine') key += context.others.has(step.alphaId ?? '') ? '+' : '-';
    if (cache.keys[k] === key) {
      at = cache.rasters[k];
      return;
    }
    try {
      at = runStep(at, step, context);
    } catch (error) {
      if (!(error instanceof StepError)) throw error;
      problems.push({ id: step.id, sentence: error.message });
      // Not kept: it is to be said again.
      cache.keys.length = Math.min(cache.keys.length, k);
      cache.rasters.length = cache.keys.length;
      key += '!';
      return;
    }
    if (cache.keys.length >= k) {
      cache.keys.length = k;
      cache.rasters.length = k;
      cache.keys.push(key);
      cache.rasters.push(at);
    }
  });
  if (!going(wanted.length / (wanted.length + 1))) throw new RecipeCancelled();
  return { raster: at, problems };
}

/** Grey, in the middle of a square of `size` pixels a side. */
export function squareGrey(raster: Raster, size: number): Picture {
  return within(resize(squared(toGrey(raster)), size, size));
}

/** Cubics overshoot a little at hard edges; an alpha is 0–1. */
function within(picture: Picture): Picture {
  const { data } = picture;
  for (let i = 0; i < data.length; i++) {
    if (data[i] >= 0 && data[i] <= 1) continue;
    return { ...picture, data: data.map((v) => (v > 0 ? Math.min(1, v) : 0)) };
  }
  return picture;
}

/** Ids of the alphas that steps need. */
export function othersOf(steps: readonly Step[]): string[] {
  return [...new Set(steps.flatMap((s) => (s.kind === 'combine' && s.on && s.alphaId ? [s.alphaId] : [])))];
}
