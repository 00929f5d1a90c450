/** Runs recipes: loads what a recipe begins with, keeps the results of its steps, looks over the answer. */
import * as Comlink from 'comlink';
import { alphaHeights } from '#core/brush';
import { pictureChecks, type PictureChecks } from '#core/checks';
import { histogram, toUint16, type Picture, type Raster } from '#core/picture';
import { ALONE, newCache, runRecipe, runSteps, squareGrey, type RecipeRun } from '#core/recipe';
import type { AlphaHead } from '#core/stored';
import type { Base, Lettering, Pattern, Step } from '#core/settings';
import { getBlob } from '../api/client';
import { GIVEN_SIDE, givenPicture, isHandled, type GivenPicture } from './givenPicture';
import { cutAside, Masks } from './grabCut';
import { loadBase, type Fonts } from './loadBase';

export interface RecipeWish {
  steps: Step[];
  /** Pixels per side of the answer. */
  size: number;
  /** The alpha's own size: the share of it tells steps that count pixels how far they are reduced. */
  fullSize: number;
  tiles: boolean;
  /** The step whose input's histogram is wanted. */
  chosen: string | null;
  /** Stops after the chosen step: what is drawn on the picture is drawn on what that step sees. */
  through: boolean;
}

export interface RecipeAnswer {
  size: number;
  heights: Float32Array;
  /** Shape after the last step, before it was made square. */
  shape: RecipeRun['shape'];
  through: boolean;
  problems: RecipeRun['problems'];
  /** Characters that the fonts of lettering lack. */
  missing: string[];
  checks: PictureChecks;
  /** Tones that the chosen step is given. */
  before: Uint32Array | null;
  /** The picture that the chosen step is given, where that is set on it by hand. */
  given: GivenPicture | null;
  milliseconds: number;
}

let base: Raster | null = null;
let baseKey = '';
let baseSide = 0;
let missing: string[] = [];
const cache = newCache();
const masks = new Masks(cutAside());
const fonts: Fonts = new Map();
const others = new Map<string, Picture>();
/** What each of them was read from. */
const blobs = new Map<string, string>();

function current(): Raster {
  if (!base) throw new Error('No picture is open.');
  return base;
}

const api = {
  /**
   * `made` is the lettering or pattern that the base names. Answers the longer side at full size and as it was read.
   */
  async load(from: Base, made: Lettering | Pattern | null, side: number): Promise<{ width: number; height: number }> {
    const key = JSON.stringify([from, made && ('blocks' in made ? made.blocks : made.grow), side]);
    if (key !== baseKey || !base) {
      ({ raster: base, missing } = await loadBase(from, made, side, fonts));
      baseKey = key;
      baseSide = Math.max(base.width, base.height);
    }
    return { width: base.width, height: base.height };
  },

  /** Another alpha that steps combine with. */
  async other(alpha: AlphaHead): Promise<void> {
    if (blobs.get(alpha.id) === alpha.blob) return;
    others.set(alpha.id, alphaHeights(alpha, await getBlob(alpha.blob)));
    blobs.set(alpha.id, alpha.blob);
    // What was made with the one before is no longer true.
    cache.keys.length = 0;
    cache.rasters.length = 0;
  },

  async run(wish: RecipeWish, onProgress: ((share: number) => void) | null): Promise<RecipeAnswer> {
    const began = performance.now();
    // What is open now: another may be opened while a mask is cut.
    const [from, key] = [current(), baseKey];
    const context = { scale: Math.min(1, baseSide / wish.fullSize), others, segment: masks.segment };
    const lacks = missing;
    const progress = { onProgress: (share: number) => (onProgress?.(share), true) };
    const end = wish.through ? wish.steps.findIndex((s) => s.id === wish.chosen) + 1 : wish.steps.length;
    const { picture, shape, problems } = await masks.complete(() =>
      runRecipe(from, key, wish.steps.slice(0, end), context, { size: wish.size, ...progress }, cache),
    );
    const chosen = wish.steps.find((s) => s.id === wish.chosen);
    const shownGiven = (raster: Raster, step: Step): GivenPicture => {
      const upTo = wish.steps.slice(0, wish.steps.indexOf(step) + 1);
      const after = step.kind === 'pickOut' ? runSteps(from, key, upTo, context, {}, cache) : null;
      const picked = after?.problems.some(({ id }) => id === step.id) ? null : (after?.raster ?? null);
      return givenPicture(step.id, raster, Math.min(GIVEN_SIDE, wish.size), picked);
    };
    const given = chosen && runSteps(from, key, wish.steps, context, { until: chosen.id }, cache).raster;
    const out: RecipeAnswer = {
      size: picture.width,
      heights: picture.data.slice(),
      shape,
      through: end < wish.steps.length,
      problems,
      missing: lacks,
      checks: pictureChecks(picture, wish.tiles),
      before: given ? histogram(squareGrey(given, Math.min(256, wish.size))) : null,
      given: given && chosen.on && isHandled(chosen) ? shownGiven(given, chosen) : null,
      milliseconds: performance.now() - began,
    };
    return Comlink.transfer(out, [
      out.heights.buffer as ArrayBuffer,
      ...(out.given ? [out.given.rgba.buffer as ArrayBuffer] : []),
    ]);
  },

  /** The picture as it was before the first step, square. */
  bare(size: number): Float32Array {
    const { picture } = runRecipe(current(), baseKey, [], ALONE, { size });
    return Comlink.transfer(picture.data.slice(), []);
  },

  /** Bytes of a finished alpha. */
  bytes(heights: Float32Array, size: number, format: 'grey16' | 'grey32f'): ArrayBuffer {
    const data = format === 'grey16' ? toUint16({ width: size, height: size, data: heights }) : heights.slice();
    return Comlink.transfer(data.buffer as ArrayBuffer, [data.buffer as ArrayBuffer]);
  },
};

export type RecipeWorker = typeof api;
Comlink.expose(api);
