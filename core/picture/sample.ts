/** Bilinear height at (s, t) in 0–1, t downwards; pixels beyond the edge repeat the edge. */
import type { Picture } from './picture';

export function sample(picture: Picture, s: number, t: number): number {
  const { width, height, data } = picture;
  let x = s * width - 0.5;
  let y = t * height - 0.5;
  x = x < 0 ? 0 : x > width - 1 ? width - 1 : x;
  y = y < 0 ? 0 : y > height - 1 ? height - 1 : y;
  const i = x | 0;
  const j = y | 0;
  const fx = x - i;
  const fy = y - j;
  const right = i + 1 < width ? 1 : 0;
  const at = j * width + i;
  const below = j + 1 < height ? at + width : at;
  const top = data[at] + (data[at + right] - data[at]) * fx;
  const bottom = data[below] + (data[below + right] - data[below]) * fx;
  return top + (bottom - top) * fy;
}
