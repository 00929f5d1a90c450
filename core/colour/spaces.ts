/**
 * Colours and the spaces they are worked on in. sRGB is what files and screens hold, linear light is what mixes, OKLab
 * and OKLCH are even to the eye.
 *
 * Sources: IEC 61966-2-1 (sRGB); B. Ottosson, "A perceptual color space for image processing", 2020 (OKLab).
 */
export type Triple = readonly [number, number, number];

/** Red, green and blue as they are displayed, 0–1. */
export type Srgb = Triple;
/** Red, green and blue in proportion to light, 0–1 where a screen can show them. */
export type Linear = Triple;
/** Lightness 0–1, then towards red from green, and towards yellow from blue. */
export type OkLab = Triple;
/** Lightness 0–1, chroma (0 is grey, about 0.4 the most of a screen), hue in degrees from 0 to 360. */
export type OkLch = Triple;

export function toLinear(c: number): number {
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
}

export function toSrgb(c: number): number {
  return c <= 0.0031308 ? c * 12.92 : 1.055 * c ** (1 / 2.4) - 0.055;
}

const each = (of: Triple, by: (c: number) => number): Triple => [by(of[0]), by(of[1]), by(of[2])];
export const linearOf = (colour: Srgb): Linear => each(colour, toLinear);
export const srgbOf = (colour: Linear): Srgb => each(colour, toSrgb);

export function okLabOf([r, g, b]: Linear): OkLab {
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

export function linearOfLab([lightness, a, b]: OkLab): Linear {
  const l = (lightness + 0.3963377774 * a + 0.2158037573 * b) ** 3;
  const m = (lightness - 0.1055613458 * a - 0.0638541728 * b) ** 3;
  const s = (lightness - 0.0894841775 * a - 1.291485548 * b) ** 3;
  return [
    4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
    -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
    -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s,
  ];
}

export function okLchOf(colour: Linear): OkLch {
  const [lightness, a, b] = okLabOf(colour);
  return [lightness, Math.hypot(a, b), ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360];
}

export function linearOfLch([lightness, chroma, hue]: OkLch): Linear {
  const turn = (hue * Math.PI) / 180;
  return linearOfLab([lightness, chroma * Math.cos(turn), chroma * Math.sin(turn)]);
}

/** A hair of rounding is still shown. */
const SLACK = 1e-4;
const isShown = (colour: Linear): boolean => colour.every((c) => c >= -SLACK && c <= 1 + SLACK);
const HALVINGS = 20;

/**
 * What a screen can show of it: of the same hue and lightness with as much chroma as there is room for; white and black
 * beyond both ends.
 */
export function shown([lightness, chroma, hue]: OkLch): Linear {
  if (lightness >= 1) return [1, 1, 1];
  if (lightness <= 0) return [0, 0, 0];
  const whole = linearOfLch([lightness, chroma, hue]);
  const clamped = (of: Linear): Linear => each(of, (c) => Math.min(1, Math.max(0, c)));
  if (isShown(whole)) return clamped(whole);
  let [low, high] = [0, chroma];
  for (let n = 0; n < HALVINGS; n++) {
    const middle = (low + high) / 2;
    if (isShown(linearOfLch([lightness, middle, hue]))) low = middle;
    else high = middle;
  }
  return clamped(linearOfLch([lightness, low, hue]));
}

/** “#rrggbb”. */
export function hexOf(colour: Srgb): string {
  const byte = (c: number): string =>
    Math.round(Math.min(1, Math.max(0, c)) * 255)
      .toString(16)
      .padStart(2, '0');
  return `#${colour.map(byte).join('')}`;
}

/** Null where it isn’t “#rrggbb” or “#rgb”. */
export function srgbOfHex(hex: string): Srgb | null {
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/i.exec(hex);
  const long = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  const found = long ?? short;
  if (!found) return null;
  const of = (part: string): number => parseInt(part.length === 1 ? part + part : part, 16) / 255;
  return [of(found[1]), of(found[2]), of(found[3])];
}
