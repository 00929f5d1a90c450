/**
 * How much of each pixel closed outlines cover, exactly for straight sides: signed areas summed along each row, as font
 * rasterisers do (Levien, "font-rs", 2016). Outlines drawn the same way
 * round join, those the other way round are holes.
 */
import { newPicture, type Picture } from '#core/picture';

/** Outlines as x, y pairs in pixels, closed by themselves. */
export function cover(outlines: readonly ArrayLike<number>[], width: number, height: number): Picture {
  const sums = new Float32Array(width * height + 2);
  for (const outline of outlines) {
    const n = outline.length / 2;
    for (let k = 0; k < n; k++) {
      const next = (k + 1) % n;
      edge(sums, width, height, outline[2 * k], outline[2 * k + 1], outline[2 * next], outline[2 * next + 1]);
    }
  }
  const out = newPicture(width, height);
  for (let j = 0; j < height; j++) {
    let sum = 0;
    for (let i = 0; i < width; i++) {
      sum += sums[j * width + i];
      const v = Math.abs(sum);
      out.data[j * width + i] = v > 1 ? 1 : v;
    }
  }
  return out;
}

/** Adds the signed area to the right of one side of an outline, row by row. */
function edge(sums: Float32Array, width: number, height: number, x0: number, y0: number, x1: number, y1: number): void {
  if (y0 === y1) return;
  const sign = y0 < y1 ? 1 : -1;
  const top = Math.min(y0, y1);
  const bottom = Math.max(y0, y1);
  const slope = (x1 - x0) / (y1 - y0);
  const xTop = y0 < y1 ? x0 : x1;
  for (let j = Math.max(0, Math.floor(top)); j < Math.min(height, Math.ceil(bottom)); j++) {
    const from = Math.max(top, j);
    const to = Math.min(bottom, j + 1);
    const h = to - from;
    if (h <= 0) continue;
    const xa = xTop + (from - top) * slope;
    const xb = xTop + (to - top) * slope;
    row(sums, j * width, width, Math.min(xa, xb), Math.max(xa, xb), h * sign);
  }
}

/** Spreads `h` of covered height over the pixels between xa and xb of one row. */
function row(sums: Float32Array, at: number, width: number, xa: number, xb: number, h: number): void {
  if (xb <= 0) {
    sums[at] += h;
    return;
  }
  if (xa >= width) return;
  const first = Math.floor(xa);
  const last = Math.floor(xb);
  let before = 0;
  for (let i = Math.max(first, 0); i <= Math.min(last, width - 1); i++) {
    // Area to the right of the side within pixels up to i.
    const upTo = areaLeft(xa, xb, i + 1) * h;
    sums[at + i] += upTo - before;
    before = upTo;
  }
  if (last + 1 < width) sums[at + last + 1] += h - before;
}

/** Mean, over the side's height, of how much of the pixel that ends at x lies right of the side; 1 beyond it. */
function areaLeft(xa: number, xb: number, x: number): number {
  if (xb - xa < 1e-9) return Math.max(0, Math.min(1, x - xa));
  const integral = (t: number): number => {
    // ∫ clamp(t − s, 0, 1) over s in [xa, xb], by its two ramps.
    const ramp = (u: number): number => (u <= xa ? 0 : u >= xb ? (xb - xa) * (u - (xa + xb) / 2) : (u - xa) ** 2 / 2);
    return ramp(t) - ramp(t - 1);
  };
  return integral(x) / (xb - xa);
}
