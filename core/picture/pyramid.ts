/**
 * A picture with ever smaller copies of itself, each half the last by averaging 2 × 2, so that a fine alpha
 * stamped onto coarse clay is averaged and not picked at random (L. Williams, "Pyramidal parametrics", 1983).
 */
import type { Picture } from './picture';

export interface Pyramid {
  /** levels[0] is the picture itself. */
  levels: Picture[];
}

export function pyramid(picture: Picture): Pyramid {
  const levels = [picture];
  let at = picture;
  while (at.width > 8 && at.height > 8) {
    at = halve(at);
    levels.push(at);
  }
  return { levels };
}

/** Averages 2 × 2; an odd last row or column is averaged with itself. */
export function halve(from: Picture): Picture {
  const width = Math.ceil(from.width / 2);
  const height = Math.ceil(from.height / 2);
  const data = new Float32Array(width * height);
  for (let j = 0; j < height; j++) {
    const r0 = 2 * j * from.width;
    const r1 = Math.min(2 * j + 1, from.height - 1) * from.width;
    for (let i = 0; i < width; i++) {
      const c0 = 2 * i;
      const c1 = Math.min(2 * i + 1, from.width - 1);
      data[j * width + i] = (from.data[r0 + c0] + from.data[r0 + c1] + from.data[r1 + c0] + from.data[r1 + c1]) / 4;
    }
  }
  return { width, height, data };
}

/** The coarsest level whose pixels are still no larger than `spacing`; both in body units. */
export function levelFor(levels: Pyramid, pixel: number, spacing: number): Picture {
  const wanted = Math.floor(Math.log2(Math.max(1, spacing / pixel)));
  return levels.levels[Math.min(wanted, levels.levels.length - 1)];
}
