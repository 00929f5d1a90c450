/**
 * How a layer lies on those below it: the blend modes and the simple alpha compositing of the W3C's Compositing and
 * Blending Level 1. Colours are sRGB as displayed, not multiplied by their cover.
 */
import type { Srgb, Triple } from './spaces';

export const BLEND_MODES = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'color-dodge',
  'color-burn',
  'hard-light',
  'soft-light',
  'difference',
  'exclusion',
  'hue',
  'saturation',
  'color',
  'luminosity',
] as const;
export type BlendMode = (typeof BLEND_MODES)[number];

type OfOne = (below: number, above: number) => number;

const hardLight: OfOne = (b, s) => (s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1));

const BY_CHANNEL: Partial<Record<BlendMode, OfOne>> = {
  multiply: (b, s) => b * s,
  screen: (b, s) => b + s - b * s,
  overlay: (b, s) => hardLight(s, b),
  darken: Math.min,
  lighten: Math.max,
  'color-dodge': (b, s) => (b === 0 ? 0 : s >= 1 ? 1 : Math.min(1, b / (1 - s))),
  'color-burn': (b, s) => (b >= 1 ? 1 : s <= 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
  'hard-light': hardLight,
  'soft-light': (b, s) => {
    if (s <= 0.5) return b - (1 - 2 * s) * b * (1 - b);
    const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
    return b + (2 * s - 1) * (d - b);
  },
  difference: (b, s) => Math.abs(b - s),
  exclusion: (b, s) => b + s - 2 * b * s,
};

const lum = ([r, g, b]: Triple): number => 0.3 * r + 0.59 * g + 0.11 * b;
const sat = (c: Triple): number => Math.max(...c) - Math.min(...c);

function withLum(c: Triple, l: number): Triple {
  const d = l - lum(c);
  const moved = c.map((x) => x + d);
  const [least, most] = [Math.min(...moved), Math.max(...moved)];
  const clipped = moved.map((x) => {
    const up = least < 0 ? l + ((x - l) * l) / (l - least) : x;
    return most > 1 ? l + ((up - l) * (1 - l)) / (most - l) : up;
  });
  return clipped as unknown as Triple;
}

function withSat(c: Triple, s: number): Triple {
  const [least, most] = [Math.min(...c), Math.max(...c)];
  return c.map((x) => (most > least ? ((x - least) * s) / (most - least) : 0)) as unknown as Triple;
}

/** What the two make where both are whole. */
export function blended(mode: BlendMode, below: Srgb, above: Srgb): Srgb {
  const one = BY_CHANNEL[mode];
  if (one) return [one(below[0], above[0]), one(below[1], above[1]), one(below[2], above[2])];
  switch (mode) {
    case 'hue':
      return withLum(withSat(above, sat(below)), lum(below));
    case 'saturation':
      return withLum(withSat(below, sat(above)), lum(below));
    case 'color':
      return withLum(above, lum(below));
    case 'luminosity':
      return withLum(below, lum(above));
    default:
      return above;
  }
}

/** A colour and how much it covers, 0–1. */
export interface Covering {
  colour: Srgb;
  alpha: number;
}

/** One over the other. */
export function composited(mode: BlendMode, below: Covering, above: Covering): Covering {
  const alpha = above.alpha + below.alpha * (1 - above.alpha);
  if (alpha <= 0) return { colour: [0, 0, 0], alpha: 0 };
  const mixed = blended(mode, below.colour, above.colour);
  const out = (k: 0 | 1 | 2): number => {
    const source = (1 - below.alpha) * above.colour[k] + below.alpha * mixed[k];
    return (above.alpha * source + below.alpha * (1 - above.alpha) * below.colour[k]) / alpha;
  };
  return { colour: [out(0), out(1), out(2)], alpha };
}
