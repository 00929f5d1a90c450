/**
 * Resamples to another size with the Catmull–Rom cubic, widened on reduction so that every pixel counts (Turkowski,
 * "Filters for common resampling tasks", 1990). Separable: first down, then across. Sample centres at (i + ½)/N.
 */
import type { Picture } from '#core/picture';
import { resizeAcrossCompiled, resizeDownCompiled, type Taps } from './compiled';

export function resize(from: Picture, width: number, height: number): Picture {
  const down = from.height === height ? from : downTo(from, height);
  return down.width === width ? down : acrossTo(down, width);
}

function downTo(from: Picture, height: number): Picture {
  const t = taps(from.height, height);
  return resizeDownCompiled(from, height, t) ?? resizeDownPlain(from, height, t);
}

function acrossTo(from: Picture, width: number): Picture {
  const t = taps(from.width, width);
  // No tap lies farther beyond the sides than there are taps.
  const pad = t.count + 4;
  return (
    resizeAcrossCompiled(from, width, { ...t, first: t.first.map((i) => i + pad) }, pad) ??
    resizeAcrossPlain(from, width, t)
  );
}

export function taps(from: number, to: number): Taps {
  const scale = from / to;
  const stretch = Math.max(1, scale);
  const reach = 2 * stretch;
  // In fours, the last ones without weight, as the compiled loops read them.
  const count = Math.ceil((Math.ceil(2 * reach) + 1) / 4) * 4;
  const first = new Int32Array(to);
  const weights = new Float32Array(to * count);
  for (let i = 0; i < to; i++) {
    const centre = (i + 0.5) * scale - 0.5;
    const start = Math.ceil(centre - reach);
    first[i] = start;
    let sum = 0;
    for (let k = 0; k < count; k++) sum += cubic((start + k - centre) / stretch);
    for (let k = 0; k < count; k++) weights[i * count + k] = cubic((start + k - centre) / stretch) / sum;
  }
  return { first, count, weights };
}

function cubic(x: number): number {
  const t = Math.abs(x);
  if (t >= 2) return 0;
  return t < 1 ? (1.5 * t - 2.5) * t * t + 1 : ((-0.5 * t + 2.5) * t - 4) * t + 2;
}

export function resizeDownPlain(from: Picture, height: number, { first, count, weights }: Taps): Picture {
  const { width, data } = from;
  const out = new Float32Array(width * height);
  const sum = new Float32Array(width);
  for (let j = 0; j < height; j++) {
    sum.fill(0);
    for (let k = 0; k < count; k++) {
      const w = weights[j * count + k];
      if (w === 0) continue;
      const at = Math.max(0, Math.min(from.height - 1, first[j] + k)) * width;
      for (let i = 0; i < width; i++) sum[i] += data[at + i] * w;
    }
    out.set(sum, j * width);
  }
  return { width, height, data: out };
}

export function resizeAcrossPlain(from: Picture, width: number, { first, count, weights }: Taps): Picture {
  const { height, data } = from;
  const out = new Float32Array(width * height);
  const pad = count + 2;
  const row = new Float32Array(from.width + 2 * pad);
  for (let j = 0; j < height; j++) {
    const at = j * from.width;
    row.set(data.subarray(at, at + from.width), pad);
    row.fill(data[at], 0, pad);
    row.fill(data[at + from.width - 1], pad + from.width);
    for (let i = 0; i < width; i++) {
      let sum = 0;
      const from0 = first[i] + pad;
      const w = i * count;
      for (let k = 0; k < count; k++) sum += row[from0 + k] * weights[w + k];
      out[j * width + i] = sum;
    }
  }
  return { width, height, data: out };
}

/** Largest whole size of the same shape whose longer side is `side`. */
export function sized(width: number, height: number, side: number): [number, number] {
  const scale = side / Math.max(width, height);
  return [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
}
