/**
 * Heights from shading: an estimate. Taken for a matt surface of one colour under one distant light, a pixel is the
 * brighter the more its slope faces the light: I − mean = −L · ∇z (Pentland, "Linear shape from shading", IJCV 4,
 * 1990). In the frequencies that is a division, held by λ where the light says nothing: along its own direction
 * everything is known, across it nothing. Forms larger than `largest` are left out, for a picture's large changes of
 * tone are mostly light and colour.
 *
 * A large picture is solved in two bands: what a reduced copy holds at once, what is finer in overlapping tiles, two of
 * them as one complex field. The mapping is linear and real, so bands add up and pairs stay apart.
 */
import FFT from 'fft.js';
import { newPicture, type Picture } from '#core/picture';
import { resize } from './resize';
import { crop, type Window } from './shape';

export interface ShadingOptions {
  /** Where the light comes from, anticlockwise from the right, as seen. */
  lightRad: number;
  /** Forms wider than this share of the longer side are left out. */
  largest: number;
  /** λ: how far streaks along the light's direction are calmed, 0.02 to 1. */
  calm: number;
}

/** Longer side that is solved at once. */
const WHOLE = 912;
const TILE = 896;
const OVERLAP = 64;
/** Columns that are turned at once; every grid is a multiple of it. */
const BESIDE = 8;
/** Of tones that become black and of those that become white. */
const CUT_SHARE = 0.002;

/** 0–1: the lowest black, the highest white. */
export function heightsFromShading(from: Picture, options: ShadingOptions): Picture {
  return spread(solved(from, options, options.largest * Math.max(from.width, from.height)));
}

function solved(from: Picture, options: ShadingOptions, largestPx: number): Picture {
  const { width, height } = from;
  const longer = Math.max(width, height);
  if (longer <= WHOLE) return solvedAtOnce([from], options, largestPx)[0];
  const share = WHOLE / longer;
  const small = resize(from, Math.max(1, Math.round(width * share)), Math.max(1, Math.round(height * share)));
  const back = resize(small, width, height);
  const coarse = resize(solvedAtOnce([small], options, largestPx * share)[0], width, height);
  const fine = { width, height, data: from.data.map((v, i) => v - back.data[i]) };
  const out = solvedInTiles(fine, options);
  // Heights are in pixels: those of the copy are larger ones.
  for (let i = 0; i < out.data.length; i++) out.data[i] += coarse.data[i] / share;
  return out;
}

function solvedInTiles(from: Picture, options: ShadingOptions): Picture {
  const { width, height } = from;
  const out = newPicture(width, height);
  const weights = new Float32Array(width * height);
  const windows: Window[] = [];
  const step = TILE - OVERLAP;
  for (let top = 0; top === 0 || top + OVERLAP < height; top += step)
    for (let left = 0; left === 0 || left + OVERLAP < width; left += step)
      windows.push({ left, top, width: Math.min(TILE, width - left), height: Math.min(TILE, height - top) });
  for (let n = 0; n < windows.length; n += 2) {
    const pair = windows.slice(n, n + 2);
    const tiles = pair.map((window) => crop(from, window));
    solvedAtOnce(tiles, options, OVERLAP * 2).forEach((tile, k) => blend(tile, pair[k], out, weights));
  }
  for (let i = 0; i < out.data.length; i++) out.data[i] /= weights[i];
  return out;
}

function blend({ width, height, data }: Picture, { left, top }: Window, out: Picture, weights: Float32Array): void {
  for (let j = 0; j < height; j++) {
    const down = rim(j, height);
    for (let i = 0; i < width; i++) {
      const weight = down * rim(i, width);
      const at = (top + j) * out.width + left + i;
      out.data[at] += data[j * width + i] * weight;
      weights[at] += weight;
    }
  }
}

/** Weight of a tile's pixel: falls towards its sides, never to nothing. */
const rim = (i: number, n: number): number => Math.min(1, (i + 1) / OVERLAP, (n - i) / OVERLAP);

/** One picture or two. */
function solvedAtOnce(pictures: readonly Picture[], { lightRad, calm }: ShadingOptions, largestPx: number): Picture[] {
  const columns = grid(Math.max(...pictures.map(({ width }) => width)));
  const rows = grid(Math.max(...pictures.map(({ height }) => height)));
  const field = new Float64Array(columns * rows * 2);
  pictures.forEach((picture, k) => widened(picture, columns, rows, field, k));
  transformed(field, columns, rows, true);
  // Rows go down, the light's angle goes up.
  const [lx, ly] = [Math.cos(lightRad), -Math.sin(lightRad)];
  const lowest = (2 * Math.PI) / largestPx;
  for (let r = 0; r < rows; r++) {
    const wy = frequency(r, rows);
    for (let c = 0; c < columns; c++) {
      const wx = frequency(c, columns);
      const along = wx * lx + wy * ly;
      const square = wx * wx + wy * wy;
      const known = along * along + calm * calm * square;
      const gain = known === 0 ? 0 : ((along / known) * square) / (square + lowest * lowest);
      const at = (r * columns + c) * 2;
      const real = field[at];
      // Times i · gain.
      field[at] = -field[at + 1] * gain;
      field[at + 1] = real * gain;
    }
  }
  transformed(field, columns, rows, false);
  return pictures.map(({ width, height }, k) => {
    const out = newPicture(width, height);
    for (let j = 0; j < height; j++)
      for (let i = 0; i < width; i++) out.data[j * width + i] = field[(j * columns + i) * 2 + k];
    return out;
  });
}

/** A power of two with room for the rim that leads from one side round to the other. */
function grid(side: number): number {
  let n = 16;
  while (n < side * 1.12) n *= 2;
  return n;
}

/** Radians a pixel; the highest one, which has no sign, counts for nothing. */
function frequency(k: number, n: number): number {
  if (k * 2 === n) return 0;
  return (2 * Math.PI * (k * 2 < n ? k : k - n)) / n;
}

/** Without its mean, as the real numbers of the field or its imaginary ones; its sides go over into each other. */
function widened(
  { width, height, data }: Picture,
  columns: number,
  rows: number,
  field: Float64Array,
  k: number,
): void {
  let mean = 0;
  for (const v of data) mean += v;
  mean /= data.length;
  for (let r = 0; r < rows; r++) {
    const [j0, j1, t] = beyond(r, height, rows);
    for (let c = 0; c < columns; c++) {
      const [i0, i1, s] = beyond(c, width, columns);
      const upper = data[j0 * width + i0] * (1 - s) + data[j0 * width + i1] * s;
      const lower = data[j1 * width + i0] * (1 - s) + data[j1 * width + i1] * s;
      field[(r * columns + c) * 2 + k] = upper * (1 - t) + lower * t - mean;
    }
  }
}

/** Which two pixels a place of the grid lies between, and how far from the first to the second. */
function beyond(k: number, side: number, n: number): [number, number, number] {
  if (k < side) return [k, k, 0];
  const share = (k - side + 1) / (n - side + 1);
  return [side - 1, 0, share * share * (3 - 2 * share)];
}

/** In place, along rows and then along columns. */
function transformed(field: Float64Array, columns: number, rows: number, forward: boolean): void {
  const across = new FFT(columns);
  const line = new Float64Array(columns * 2);
  const turn = (fft: FFT, to: Float64Array, from: Float64Array): void =>
    forward ? fft.transform(to, from) : fft.inverseTransform(to, from);
  for (let r = 0; r < rows; r++) {
    const row = field.subarray(r * columns * 2, (r + 1) * columns * 2);
    turn(across, line, row);
    row.set(line);
  }
  const down = new FFT(rows);
  // Several columns at once: those beside each other lie beside each other in memory.
  const lines = Array.from({ length: BESIDE }, () => new Float64Array(rows * 2));
  const done = new Float64Array(rows * 2);
  for (let c = 0; c < columns; c += BESIDE) {
    for (let r = 0; r < rows; r++)
      for (let k = 0; k < BESIDE; k++) {
        const at = (r * columns + c + k) * 2;
        lines[k][r * 2] = field[at];
        lines[k][r * 2 + 1] = field[at + 1];
      }
    for (const own of lines) {
      turn(down, done, own);
      own.set(done);
    }
    for (let r = 0; r < rows; r++)
      for (let k = 0; k < BESIDE; k++) {
        const at = (r * columns + c + k) * 2;
        field[at] = lines[k][r * 2];
        field[at + 1] = lines[k][r * 2 + 1];
      }
  }
}

/** To 0–1, but for the few lowest and highest. */
function spread(from: Picture): Picture {
  const { width, height, data } = from;
  const step = Math.max(1, Math.floor(data.length / 200_000));
  const sample = data.filter((_, i) => i % step === 0).sort();
  const low = sample[Math.floor(sample.length * CUT_SHARE)];
  const high = sample[Math.min(sample.length - 1, Math.ceil(sample.length * (1 - CUT_SHARE)))];
  if (!(high - low > 1e-9)) return newPicture(width, height, 0.5);
  return { width, height, data: data.map((v) => Math.max(0, Math.min(1, (v - low) / (high - low)))) };
}
