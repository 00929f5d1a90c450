/**
 * Makes a picture repeat without a seam: the strip beyond one side is blended into the strip at the other, so that the
 * last row is followed by the first as it was in the picture. The blend keeps the spread of the greys (Heitz and
 * Neyret,
 * "High-performance by-example noise", 2018: weights by their squares about the mean), so the strip isn't washed out.
 * The answer is smaller by the overlap, and brought back to the size.
 */
import { newPicture, type Picture } from '#core/picture';
import { resize } from './resize';
import { smoothstep } from './tone';

/** `overlap` is 0–0.5 of each side. */
export function seamless(from: Picture, overlap: number): Picture {
  const across = blendAcross(from, Math.max(1, Math.round(from.width * overlap)));
  const turned = transposed(across);
  const down = blendAcross(turned, Math.max(1, Math.round(turned.width * overlap)));
  // Resampled as a repeating picture: with a rim of its own copies, which is cut off again.
  return resizeWrapped(transposed(down), from.width, from.height);
}

function blendAcross(from: Picture, overlap: number): Picture {
  const { width, height, data } = from;
  const kept = width - overlap;
  const mean = data.reduce((a, b) => a + b, 0) / data.length;
  const out = newPicture(kept, height);
  for (let j = 0; j < height; j++) {
    const row = j * width;
    for (let i = 0; i < kept; i++) {
      const own = data[row + i];
      if (i >= overlap) {
        out.data[j * kept + i] = own;
        continue;
      }
      const w = smoothstep(0, 1, (i + 0.5) / overlap);
      const far = data[row + kept + i];
      const v = mean + ((own - mean) * w + (far - mean) * (1 - w)) / Math.sqrt(w * w + (1 - w) * (1 - w));
      // Blending stays between the two where both lie on one side of the mean.
      out.data[j * kept + i] = Math.max(0, Math.min(1, v));
    }
  }
  return out;
}

function transposed(from: Picture): Picture {
  const out = newPicture(from.height, from.width);
  for (let j = 0; j < from.height; j++)
    for (let i = 0; i < from.width; i++) out.data[i * from.height + j] = from.data[j * from.width + i];
  return out;
}

const RIM = 8;

function resizeWrapped(from: Picture, width: number, height: number): Picture {
  const wide = newPicture(from.width + 2 * RIM, from.height + 2 * RIM);
  for (let j = 0; j < wide.height; j++) {
    const row = (((j - RIM) % from.height) + from.height) % from.height;
    for (let i = 0; i < wide.width; i++)
      wide.data[j * wide.width + i] =
        from.data[row * from.width + ((((i - RIM) % from.width) + from.width) % from.width)];
  }
  // The rim's size after resampling need not be whole; sampling places are laid so that the middle lands exactly.
  const sx = width / from.width;
  const sy = height / from.height;
  const out = newPicture(width, height);
  const big = resize(wide, Math.round(wide.width * sx), Math.round(wide.height * sy));
  for (let j = 0; j < height; j++) {
    const y = ((j + 0.5) / sy + RIM) * (big.height / wide.height) - 0.5;
    for (let i = 0; i < width; i++) {
      const x = ((i + 0.5) / sx + RIM) * (big.width / wide.width) - 0.5;
      out.data[j * width + i] = bilinear(big, x, y);
    }
  }
  return out;
}

function bilinear({ width, height, data }: Picture, x: number, y: number): number {
  const i = Math.max(0, Math.min(width - 2, Math.floor(x)));
  const j = Math.max(0, Math.min(height - 2, Math.floor(y)));
  const at = j * width + i;
  const fx = x - i;
  const fy = y - j;
  const top = data[at] + (data[at + 1] - data[at]) * fx;
  const bottom = data[at + width] + (data[at + width + 1] - data[at + width]) * fx;
  return top + (bottom - top) * fy;
}
