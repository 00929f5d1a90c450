/**
 * From an outline to a raised form: height by distance from the outline, for type and silhouettes. Each connected form
 * keeps its own grey, so that grey letters stay lower than white ones.
 *
 * The outline lies where the grey crosses `level` of the form's own grey; within its pixel the coverage says where
 * (as in Green, "Improved alpha-tested magnification", 2007), which keeps edges smooth.
 */
import type { Picture } from '#core/picture';
import { components } from './components';
import { distanceTransform } from './distance';
import { maskWhere } from './mask';

export interface BevelOptions {
  /** 0–1 of the form's own grey. */
  level: number;
  /** Distance from the outline to full height. */
  widthPx: number;
  /** Height 0–1 by distance 0–1. */
  profile: (t: number) => number;
}

/** A quarter circle: steep at the outline, flat on top. */
export const roundProfile = (t: number): number => Math.sqrt(Math.max(0, 1 - (1 - t) * (1 - t)));
export const chamferProfile = (t: number): number => t;

/** Greys below this are ground. */
const LEAST = 0.02;

export function bevel(from: Picture, { level, widthPx, profile }: BevelOptions): Picture {
  const { width, height, data } = from;
  const inside = maskWhere(data, (v) => v > LEAST);
  const { labels, count } = components(inside, width, height);
  const tops = formGreys(data, labels, count);
  const seeds = new Float64Array(data.length);
  for (let i = 0; i < data.length; i++) {
    const share = labels[i] === 0 ? 0 : data[i] / tops[labels[i]];
    // Signed distance of the pixel's middle to the outline, by its coverage about the level.
    const d = Math.max(-0.5, Math.min(0.5, share - level));
    seeds[i] = share <= 0 ? 0 : share >= Math.min(0.96, level + 0.5) ? Infinity : d <= 0 ? 0 : d * d;
  }
  const distance = distanceTransform(seeds, width, height);
  const out = new Float32Array(data.length);
  for (let i = 0; i < data.length; i++) {
    const label = labels[i];
    if (label === 0) continue;
    const share = data[i] / tops[label];
    if (share <= level - 0.5) continue;
    const d = distance[i];
    out[i] = tops[label] * profile(Math.max(0, Math.min(1, d / widthPx)));
  }
  return { width, height, data: out };
}

/** The grey that most of a form has: its 90th per cent. */
function formGreys(data: Float32Array, labels: Int32Array, count: number): Float32Array {
  const BINS = 256;
  const bins = new Uint32Array((count + 1) * BINS);
  const totals = new Uint32Array(count + 1);
  for (let i = 0; i < data.length; i++) {
    const label = labels[i];
    if (label === 0) continue;
    bins[label * BINS + Math.max(0, Math.min(BINS - 1, Math.floor(data[i] * BINS)))]++;
    totals[label]++;
  }
  const out = new Float32Array(count + 1).fill(1);
  for (let label = 1; label <= count; label++) {
    let sum = 0;
    for (let b = 0; b < BINS; b++) {
      sum += bins[label * BINS + b];
      if (sum < totals[label] * 0.9) continue;
      out[label] = Math.max(LEAST, b === BINS - 1 ? 1 : (b + 0.5) / BINS);
      break;
    }
  }
  return out;
}
