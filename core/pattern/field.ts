/** What the patterns share: a field over the unit square, its repeat, and bringing it to 0–1. */
import { newPicture, percentiles, type Picture } from '#core/picture';

/** A pattern that doesn't tile is a window of one that repeats far away. */
export const FAR_PERIOD = 1 << 12;
export const periodOf = (across: number, tiles: boolean): number => (tiles ? across : FAR_PERIOD);

/** Heights at the sample centres of a square picture; x to the right and y down, 0–1. */
export function fill(size: number, height: (x: number, y: number) => number): Picture {
  const out = newPicture(size);
  for (let j = 0; j < size; j++)
    for (let i = 0; i < size; i++) out.data[j * size + i] = height((i + 0.5) / size, (j + 0.5) / size);
  return out;
}

/** Stretched so that nearly all of it lies between black and white. */
export function spreadOut(picture: Picture, low = 0.002, high = 0.998): Picture {
  const { data } = picture;
  let least = Infinity;
  let most = -Infinity;
  for (const v of data) {
    if (v < least) least = v;
    if (v > most) most = v;
  }
  const span = most - least || 1;
  const even = { ...picture, data: data.map((v) => (v - least) / span) };
  const [black, white] = percentiles(even, [low, high]) as [number, number];
  const scale = 1 / Math.max(1e-6, white - black);
  return { ...even, data: even.data.map((v) => Math.max(0, Math.min(1, (v - black) * scale))) };
}

export const clamp01 = (v: number): number => (v < 0 ? 0 : v > 1 ? 1 : v);
/** a mod n, never negative. */
export const modulo = (a: number, n: number): number => ((a % n) + n) % n;

/** In shares of the picture's side. */
export interface Disc {
  x: number;
  y: number;
  radius: number;
}

/**
 * Visits the pixels of a disc, wrapped round the sides when the picture tiles. `change` gets the pixel and its place
 * from the middle in units of the radius.
 */
export function eachInDisc(
  { size, tiles }: { size: number; tiles: boolean },
  { x, y, radius }: Disc,
  change: (at: number, u: number, v: number) => void,
): void {
  const r = radius * size;
  const cx = x * size - 0.5;
  const cy = y * size - 0.5;
  for (let j = Math.ceil(cy - r); j <= cy + r; j++) {
    if (!tiles && (j < 0 || j >= size)) continue;
    const v = (j - cy) / r;
    const row = modulo(j, size) * size;
    for (let i = Math.ceil(cx - r); i <= cx + r; i++) {
      if (!tiles && (i < 0 || i >= size)) continue;
      const u = (i - cx) / r;
      if (u * u + v * v <= 1) change(row + modulo(i, size), u, v);
    }
  }
}
