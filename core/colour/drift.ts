/**
 * The colour of a dab: the first colour, mixed with the second, moved in hue, chroma and lightness within limits. What
 * moves it is drawn from the stroke's chances, or read from smooth noise along it.
 */
import { layeredNoise, type Random } from '#core/random';
import { linearOf, okLabOf, okLchOf, linearOfLab, shown, type Linear, type Srgb } from './spaces';

/** Half of what each may move by, to either side; the mix from 0, the first, to its most. */
export interface ColourDrift {
  /** Degrees. */
  hue: number;
  /** Shares of the colour's own chroma, and of all lightness. */
  chroma: number;
  lightness: number;
  /** The most of the second colour, 0–1. */
  mix: number;
}

/** −1 to 1 of each, and 0 to 1 of the mix. */
export interface ColourDraw {
  hue: number;
  chroma: number;
  lightness: number;
  mix: number;
}

export const STILL: ColourDraw = { hue: 0, chroma: 0, lightness: 0, mix: 0 };

/** Draws the same count of chances whatever is set, so that one setting doesn't change another's. */
export function drawColour(random: Random): ColourDraw {
  const both = (): number => random() * 2 - 1;
  return { hue: both(), chroma: both(), lightness: both(), mix: random() };
}

/** Smoothly along the stroke; `travelled` in lengths over which a colour is another one. */
export function noiseColour(travelled: number, seed: number): ColourDraw {
  const at = (row: number): number => Math.max(-1, Math.min(1, layeredNoise(travelled, row * 17.3, seed, 2) * 1.6));
  return { hue: at(1), chroma: at(2), lightness: at(3), mix: (at(4) + 1) / 2 };
}

/** In linear light, as far as a screen shows it. */
export function driftedColour(first: Srgb, second: Srgb, drift: ColourDrift, draw: ColourDraw): Linear {
  const [a, b] = [first, second].map((colour) => okLabOf(linearOf(colour)));
  const share = drift.mix * draw.mix;
  const mixed = [0, 1, 2].map((k) => a[k] + (b[k] - a[k]) * share) as unknown as Linear;
  if (drift.hue === 0 && drift.chroma === 0 && drift.lightness === 0)
    return linearOfLab(mixed).map((c) => Math.min(1, Math.max(0, c))) as unknown as Linear;
  const [lightness, chroma, hue] = okLchOf(linearOfLab(mixed));
  return shown([
    Math.min(1, Math.max(0, lightness + drift.lightness * draw.lightness)),
    Math.max(0, chroma * (1 + drift.chroma * draw.chroma)),
    hue + drift.hue * draw.hue,
  ]);
}
