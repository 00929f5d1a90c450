/** De-band and noise. */
import type { Picture } from '#core/picture';
import { layeredNoise } from '#core/random';
import { blur } from './blur';

/**
 * Smooths terraces of up to `step` (a grey): each pixel goes towards the mean round it by at most 0.6 steps, which
 * is what rounding took, so that real edges stay.
 */
export function deband(from: Picture, step: number, radiusPx: number): Picture {
  const soft = blur(from, radiusPx);
  const most = step * 0.6;
  for (let i = 0; i < soft.data.length; i++) {
    const v = from.data[i];
    const off = soft.data[i] - v;
    // Far from the mean lies an edge; there the change fades out.
    const share = Math.max(0, Math.min(1, 3 - Math.abs(off) / step));
    soft.data[i] = v + Math.max(-most, Math.min(most, off)) * share;
  }
  return soft;
}

/**
 * Adds seeded gradient noise of three octaves; `amount` is half its height, `size` the lumps' size in 0–1 of the longer
 * side.
 */
export function addNoise(from: Picture, amount: number, size: number, seed: number): Picture {
  const { width, height, data } = from;
  const lump = size * Math.max(width, height);
  const out = new Float32Array(data.length);
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const v = data[j * width + i] + amount * layeredNoise((i + 0.5) / lump, (j + 0.5) / lump, seed, 3);
      out[j * width + i] = v < 0 ? 0 : v > 1 ? 1 : v;
    }
  }
  return { width, height, data: out };
}
