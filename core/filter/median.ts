/**
 * Median of a neighbourhood, the edge repeated beyond the sides.
 *
 * `median3` looks at 3 × 3: the columns are sorted once and shared by three neighbours; the median is that of the
 * largest low, the middle middle and the smallest high (J. L. Smith, "Implementing median filters in XC4000E FPGAs",
 * 1996). `medianWide` looks at a wider square through a histogram of 512 greys that slides along (Huang, Yang and Tang,
 * "A fast two-dimensional median filtering algorithm", 1979).
 */
import type { Picture } from '#core/picture';
import { median3Compiled } from './compiled';

export function median3(from: Picture): Picture {
  return median3Compiled(from) ?? median3Plain(from);
}

export function median3Plain(from: Picture): Picture {
  const { width, height, data } = from;
  const out = new Float32Array(data.length);
  const low = new Float32Array(width + 2);
  const mid = new Float32Array(width + 2);
  const high = new Float32Array(width + 2);
  for (let j = 0; j < height; j++) {
    const up = Math.max(0, j - 1) * width;
    const at = j * width;
    const down = Math.min(height - 1, j + 1) * width;
    for (let i = 0; i < width; i++) {
      const x = data[up + i];
      const y = data[at + i];
      const z = data[down + i];
      const a = x < y ? x : y;
      const b = x < y ? y : x;
      const c = b < z ? b : z;
      low[i + 1] = a < c ? a : c;
      mid[i + 1] = a < c ? c : a;
      high[i + 1] = b < z ? z : b;
    }
    low[0] = low[1];
    mid[0] = mid[1];
    high[0] = high[1];
    low[width + 1] = low[width];
    mid[width + 1] = mid[width];
    high[width + 1] = high[width];
    for (let i = 0; i < width; i++) {
      let l = low[i];
      if (low[i + 1] > l) l = low[i + 1];
      if (low[i + 2] > l) l = low[i + 2];
      let h = high[i];
      if (high[i + 1] < h) h = high[i + 1];
      if (high[i + 2] < h) h = high[i + 2];
      const m = middle(mid[i], mid[i + 1], mid[i + 2]);
      out[at + i] = middle(l, m, h);
    }
  }
  return { width, height, data: out };
}

function middle(a: number, b: number, c: number): number {
  if (a < b) return b < c ? b : a < c ? c : a;
  return a < c ? a : b < c ? c : b;
}

const BINS = 512;

/** `radius` in pixels each way. Exact to 1/512 of the tones. O(pixels × radius). */
export function medianWide(from: Picture, radius: number): Picture {
  const { width, height, data } = from;
  const r = Math.min(radius, width - 1, height - 1);
  const across = width + 2 * r;
  const bins = new Uint16Array(across * (height + 2 * r));
  for (let j = -r; j < height + r; j++) {
    const row = Math.max(0, Math.min(height - 1, j)) * width;
    for (let i = -r; i < width + r; i++) {
      const v = data[row + Math.max(0, Math.min(width - 1, i))];
      bins[(j + r) * across + i + r] = v <= 0 ? 0 : v >= 1 ? BINS - 1 : (v * BINS) | 0;
    }
  }
  const out = new Float32Array(data.length);
  const side = 2 * r + 1;
  const half = (side * side) >> 1;
  const seen = new Int32Array(BINS);
  for (let j = 0; j < height; j++) {
    seen.fill(0);
    for (let y = 0; y < side; y++) for (let x = 0; x < side; x++) seen[bins[(j + y) * across + x]]++;
    let median = 0;
    /** Pixels darker than the bin `median`. */
    let below = 0;
    for (let i = 0; i < width; i++) {
      if (i > 0) {
        for (let y = 0; y < side; y++) {
          const row = (j + y) * across + i;
          const gone = bins[row - 1];
          const come = bins[row + side - 1];
          seen[gone]--;
          seen[come]++;
          if (gone < median) below--;
          if (come < median) below++;
        }
      }
      while (below > half) below -= seen[--median];
      while (below + seen[median] <= half) below += seen[median++];
      out[j * width + i] = (median + 0.5) / BINS;
    }
  }
  return { width, height, data: out };
}
