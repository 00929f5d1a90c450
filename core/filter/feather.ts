/**
 * Fades the picture to its ground between two radii of the ring, 0–1 of half its shorter side; beyond 1 lie the
 * corners.
 */
import type { Picture } from '#core/picture';
import { smoothstep } from './tone';

export interface FeatherOptions {
  shape: 'round' | 'square';
  start: number;
  end: number;
  ground: number;
}

export function feather(from: Picture, { shape, start, end, ground }: FeatherOptions): Picture {
  const { width, height, data } = from;
  const half = Math.min(width, height) / 2;
  const out = new Float32Array(data.length);
  for (let j = 0; j < height; j++) {
    const v = (j + 0.5 - height / 2) / half;
    for (let i = 0; i < width; i++) {
      const u = (i + 0.5 - width / 2) / half;
      const rho = shape === 'round' ? Math.sqrt(u * u + v * v) : Math.max(Math.abs(u), Math.abs(v));
      const at = j * width + i;
      out[at] = ground + (data[at] - ground) * (1 - smoothstep(Math.min(start, end - 1e-4), end, rho));
    }
  }
  return { width, height, data: out };
}
