/**
 * Gaussian blur of standard deviation `sigmaPx`, the edge repeated beyond the sides.
 *
 * Wide ones are three box means whose ends count in part, so that the deviation is met exactly (Gwosdek, Grewenig,
 * Bruhn and Weickert, "Theoretical foundations of Gaussian convolution by extended box filtering", SSVM 2011): the time
 * doesn't depend on sigma. Narrow ones are a truncated kernel. O(pixels).
 */
import type { Picture } from '#core/picture';
import { blurCompiled } from './compiled';

const NARROW = 1.2;
const PASSES = 3;

export function blur(from: Picture, sigmaPx: number): Picture {
  if (!(sigmaPx > 0.01)) return from;
  if (sigmaPx < NARROW) return kernelBlur(from, sigmaPx);
  const { r, inner, outer } = extendedBox(sigmaPx);
  return blurCompiled(from, r, inner, outer) ?? boxBlur(from, sigmaPx);
}

/** Half-width and the weight of the end samples of one extended box. */
function extendedBox(sigma: number): { r: number; inner: number; outer: number } {
  const variance = (sigma * sigma) / PASSES;
  const r = Math.floor((Math.sqrt(12 * variance + 1) - 1) / 2);
  const alpha = ((2 * r + 1) * (r * (r + 1) - 3 * variance)) / (6 * (variance - (r + 1) * (r + 1)));
  const length = 2 * alpha + 2 * r + 1;
  return { r, inner: (1 - alpha) / length, outer: alpha / length };
}

/** The plain twin of the compiled box passes. */
export function boxBlur(from: Picture, sigma: number): Picture {
  const { width, height } = from;
  const { r, inner, outer } = extendedBox(sigma);
  const a = new Float32Array(from.data);
  const b = new Float32Array(a.length);
  acrossRows(a, width, height, r, inner, outer);
  downColumns(a, b, width, height, r, inner, outer);
  downColumns(b, a, width, height, r, inner, outer);
  downColumns(a, b, width, height, r, inner, outer);
  return { width, height, data: b };
}

/** Three passes along each row, which stays in the cache. */
function acrossRows(data: Float32Array, width: number, height: number, r: number, inner: number, outer: number): void {
  const reach = r + 1;
  const padded = new Float32Array(width + 2 * reach + 1);
  for (let j = 0; j < height; j++) {
    const at = j * width;
    for (let pass = 0; pass < PASSES; pass++) {
      padded.set(data.subarray(at, at + width), reach);
      padded.fill(data[at], 0, reach);
      padded.fill(data[at + width - 1], reach + width);
      let narrow = 0;
      for (let k = 1; k < 2 * r + 2; k++) narrow += padded[k];
      let wide = narrow + padded[0] + padded[2 * r + 2];
      for (let i = 0; i < width; i++) {
        data[at + i] = narrow * inner + wide * outer;
        narrow += padded[i + 2 * r + 2] - padded[i + 1];
        wide = narrow + padded[i + 1] + padded[i + 2 * r + 3];
      }
    }
  }
}

/** One pass down all columns at once, row by row, so that memory is read in order. */
function downColumns(
  from: Float32Array,
  to: Float32Array,
  width: number,
  height: number,
  r: number,
  inner: number,
  outer: number,
): void {
  const row = (j: number): number => Math.max(0, Math.min(height - 1, j)) * width;
  const narrow = new Float64Array(width);
  for (let k = -r; k <= r; k++) {
    const at = row(k);
    for (let i = 0; i < width; i++) narrow[i] += from[at + i];
  }
  for (let j = 0; j < height; j++) {
    const before = row(j - r - 1);
    const after = row(j + r + 1);
    const leaving = row(j - r);
    const at = j * width;
    for (let i = 0; i < width; i++) {
      const n = narrow[i];
      const next = from[after + i];
      to[at + i] = n * inner + (n + from[before + i] + next) * outer;
      narrow[i] = n + next - from[leaving + i];
    }
  }
}

function kernelBlur(from: Picture, sigma: number): Picture {
  const reach = Math.ceil(sigma * 3);
  const weights = Float64Array.from({ length: 2 * reach + 1 }, (_, k) =>
    Math.exp(-((k - reach) ** 2) / (2 * sigma * sigma)),
  );
  const sum = weights.reduce((x, y) => x + y, 0);
  for (let k = 0; k < weights.length; k++) weights[k] /= sum;
  const { width, height, data } = from;
  const across = new Float32Array(data.length);
  const padded = new Float32Array(width + 2 * reach);
  for (let j = 0; j < height; j++) {
    const at = j * width;
    padded.set(data.subarray(at, at + width), reach);
    padded.fill(data[at], 0, reach);
    padded.fill(data[at + width - 1], reach + width);
    for (let i = 0; i < width; i++) {
      let value = 0;
      for (let k = 0; k < weights.length; k++) value += padded[i + k] * weights[k];
      across[at + i] = value;
    }
  }
  const out = new Float32Array(data.length);
  for (let j = 0; j < height; j++) {
    const at = j * width;
    for (let k = -reach; k <= reach; k++) {
      const other = Math.max(0, Math.min(height - 1, j + k)) * width;
      const w = weights[k + reach];
      for (let i = 0; i < width; i++) out[at + i] += across[other + i] * w;
    }
  }
  return { width, height, data: out };
}
