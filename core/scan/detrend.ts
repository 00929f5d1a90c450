/**
 * Takes the overall shape out of heights and leaves the relief.
 *
 * Plane, quadratic, cubic: a polynomial by least squares, re-weighted so that what stands out doesn't pull the fit
 * (first by absolute differences, then by Tukey's biweight; Beaton and Tukey, 1974). Gaussian: that polynomial of the
 * second degree, then a wide Gaussian of what is left, re-weighted in the same way (normalised convolution; Knutsson
 * and Westin, 1993), so that a curved sheet isn't flattened short of its edges.
 *
 * The fit looks at most at SIDE pixels a side: what is taken out is smooth. O(pixels).
 */
import { blur, resize, solve } from '#core/filter';
import { newPicture, type Picture } from '#core/picture';
import type { Detrend, DetrendKind } from '#core/settings';

/** Pixels per side of the shape that is fitted and shown. */
const SIDE = 128;
const DEGREE: Record<Exclude<DetrendKind, 'none'>, number> = { plane: 1, quadratic: 2, cubic: 3, gaussian: 2 };
const ROUNDS = { absolute: 6, biweight: 14, gaussian: 6 };
/** Differences beyond so many deviations don't count at all. */
const BIWEIGHT = 4.685;
/** From the median of absolute differences to a deviation. */
const MAD = 1.4826;

export interface Detrended {
  /** Empty where the heights were. */
  heights: Picture;
  /** The shape that was found, small; body units. */
  shape: Picture;
}

/** Heights in body units, NaN where there is nothing. Throws when nothing is there at all. */
export function detrend(heights: Picture, { kind, width, strength }: Detrend): Detrended {
  const small = reducedTo(heights, SIDE);
  if (small.data.every((h) => h !== h)) throw new Error('The scan doesn’t reach into the frame.');
  if (kind === 'none') return { heights, shape: newPicture(small.width, small.height) };
  const fit = smoothFit(small, DEGREE[kind], (small.width * cellOf(heights.width, SIDE)) / heights.width);
  const shape = fitted(fit, small.width, small.height);
  let whole = fitted(fit, heights.width, heights.height);
  if (kind === 'gaussian') {
    const wide = gaussianOf(small, shape, (width / 100) * small.width);
    shape.data.forEach((h, i) => (shape.data[i] = h + wide.data[i]));
    const large = resize(wide, heights.width, heights.height);
    whole = { ...whole, data: whole.data.map((h, i) => h + large.data[i]) };
  }
  const share = strength / 100;
  return { heights: { ...heights, data: heights.data.map((h, i) => h - share * whole.data[i]) }, shape };
}

/** The term x^a·y^b of a polynomial over places −1 to 1, x to the right, y down. */
type Term = { a: number; b: number; factor: number };

function fitted(terms: readonly Term[], width: number, height: number): Picture {
  const out = newPicture(width, height);
  for (let j = 0; j < height; j++) {
    const y = ((j + 0.5) / height) * 2 - 1;
    // Along a row it is a cubic in x.
    const c = [0, 0, 0, 0];
    for (const { a, b, factor } of terms) c[a] += factor * y ** b;
    const [c0, c1, c2, c3] = c;
    for (let i = 0; i < width; i++) {
      const x = ((i + 0.5) / width) * 2 - 1;
      out.data[j * width + i] = c0 + x * (c1 + x * (c2 + x * c3));
    }
  }
  return out;
}

/** `share` of the places −1 to 1 is what the picture covers, from the upper left. */
function smoothFit({ width, height, data }: Picture, degree: number, share: number): Term[] {
  const there: number[] = [];
  for (let i = 0; i < data.length; i++) if (data[i] === data[i]) there.push(i);
  const terms: Term[] = [];
  for (let d = 0; d <= degree; d++) for (let k = 0; k <= d; k++) terms.push({ a: d - k, b: k, factor: 0 });
  const basis = new Float64Array(there.length * terms.length);
  there.forEach((pixel, row) => {
    const x = (((pixel % width) + 0.5) / width) * share * 2 - 1;
    const y = ((Math.floor(pixel / width) + 0.5) / height) * share * 2 - 1;
    terms.forEach(({ a, b }, k) => (basis[row * terms.length + k] = x ** a * y ** b));
  });
  const values = Float64Array.from(there, (pixel) => data[pixel]);
  const weights = new Float64Array(there.length).fill(1);
  const off = new Float64Array(there.length);
  for (let round = 0; round <= ROUNDS.absolute + ROUNDS.biweight; round++) {
    weighted(basis, weights, values, terms.length).forEach((factor, k) => (terms[k].factor = factor));
    for (let row = 0; row < there.length; row++) {
      let sum = 0;
      for (let k = 0; k < terms.length; k++) sum += terms[k].factor * basis[row * terms.length + k];
      off[row] = Math.abs(values[row] - sum);
    }
    reweigh(weights, off, round < ROUNDS.absolute);
  }
  return terms;
}

/** Factors of the terms by weighted least squares. */
function weighted(basis: Float64Array, weights: Float64Array, values: Float64Array, terms: number): number[] {
  const matrix = Array.from({ length: terms }, () => new Array<number>(terms + 1).fill(0));
  for (let row = 0; row < weights.length; row++) {
    const w = weights[row];
    if (w === 0) continue;
    const at = row * terms;
    for (let a = 0; a < terms; a++) {
      const own = w * basis[at + a];
      for (let b = a; b < terms; b++) matrix[a][b] += own * basis[at + b];
      matrix[a][terms] += own * values[row];
    }
  }
  for (let a = 0; a < terms; a++) {
    for (let b = 0; b < a; b++) matrix[a][b] = matrix[b][a];
    // A ridge of next to nothing keeps thin strips solvable.
    matrix[a][a] += 1e-9;
  }
  return solve(matrix);
}

function reweigh(weights: Float64Array, off: Float64Array, absolute: boolean): void {
  const sorted = Float64Array.from(off).sort();
  const floor = sorted[sorted.length - 1] * 1e-6 + 1e-12;
  const deviation = Math.max(floor, MAD * sorted[sorted.length >> 1]);
  for (let row = 0; row < weights.length; row++) {
    if (absolute) weights[row] = 1 / Math.max(off[row], deviation * 0.05);
    else {
      const u = off[row] / (BIWEIGHT * deviation);
      weights[row] = u >= 1 ? 0 : (1 - u * u) ** 2;
    }
  }
}

/** A wide Gaussian, `widthPx` from one deviation to the other, of heights less a shape; nothing is empty in it. */
function gaussianOf(heights: Picture, shape: Picture, widthPx: number): Picture {
  const { width, height, data } = heights;
  const rest = newPicture(width, height);
  const weights = newPicture(width, height, 1);
  const present: number[] = [];
  for (let i = 0; i < data.length; i++) {
    if (data[i] === data[i]) {
      rest.data[i] = data[i] - shape.data[i];
      present.push(i);
    } else weights.data[i] = 0;
  }
  const smooth = newPicture(width, height);
  for (let round = 0; round < ROUNDS.gaussian; round++) {
    // What the last round left is smoothed too, so that broad waves aren't made shallower (Tukey's twicing).
    const sums = blur({ ...rest, data: rest.data.map((h, i) => (h - smooth.data[i]) * weights.data[i]) }, widthPx / 2);
    const counts = blur(weights, widthPx / 2);
    for (let i = 0; i < smooth.data.length; i++) smooth.data[i] += sums.data[i] / Math.max(1e-6, counts.data[i]);
    const off = new Float64Array(present.length);
    for (let row = 0; row < off.length; row++) off[row] = Math.abs(rest.data[present[row]] - smooth.data[present[row]]);
    const own = new Float64Array(off.length);
    reweigh(own, off, round === 0);
    const most = own.reduce((a, b) => Math.max(a, b), 1e-12);
    // Nothing is left out for good: a broad hill may be relief at first and shape later.
    for (let row = 0; row < own.length; row++) weights.data[present[row]] = 0.002 + own[row] / most;
  }
  return smooth;
}

/** Means of what there is in cells of k × k pixels; k divides the picture’s side where it can. */
function reducedTo(from: Picture, side: number): Picture {
  const { width, height, data } = from;
  const k = cellOf(width, side);
  const out = newPicture(Math.floor(width / k), Math.floor(height / k), NaN);
  for (let j = 0; j < out.height; j++) {
    for (let i = 0; i < out.width; i++) {
      let sum = 0;
      let count = 0;
      for (let b = j * k; b < (j + 1) * k; b++) {
        for (let a = i * k; a < (i + 1) * k; a++) {
          const value = data[b * width + a];
          if (value !== value) continue;
          sum += value;
          count++;
        }
      }
      if (count > 0) out.data[j * out.width + i] = sum / count;
    }
  }
  return out;
}

function cellOf(width: number, side: number): number {
  const least = Math.max(1, Math.ceil(width / side));
  for (let k = least; k < least * 2; k++) if (width % k === 0) return k;
  return least;
}
