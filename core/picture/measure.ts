/** What can be read off a height picture: histogram, ground, likeness. */
import type { Picture } from './picture';

/** Counts of the greys 0–1 in `bins` even steps; NaN (empty) is not counted. */
export function histogram(picture: Picture, bins = 128): Uint32Array {
  const counts = new Uint32Array(bins);
  for (let i = 0; i < picture.data.length; i++) {
    const h = picture.data[i]!;
    if (Number.isNaN(h)) continue;
    counts[Math.max(0, Math.min(bins - 1, Math.floor(h * bins)))]!++;
  }
  return counts;
}

/** Ground at the edge: the median grey of the outer 4 % on each side. */
export function edgeGround(picture: Picture): number {
  const { width, height, data } = picture;
  const band = Math.max(1, Math.round(Math.min(width, height) * 0.04));
  const greys: number[] = [];
  for (let j = 0; j < height; j++) {
    const inner = j >= band && j < height - band;
    for (let i = 0; i < width; i++) {
      if (inner && i === band) i = width - band;
      greys.push(data[j * width + i]!);
    }
  }
  return Float32Array.from(greys).sort()[greys.length >> 1]!;
}

/** Share of the grey range between the 0.5th and the 99.5th per cent of the pixels. */
export function usedRange(picture: Picture): number {
  const counts = histogram(picture, 1024);
  const total = picture.data.length;
  const level = (share: number): number => {
    let sum = 0;
    for (let b = 0; b < counts.length; b++) {
      sum += counts[b]!;
      if (sum >= total * share) return b / (counts.length - 1);
    }
    return 1;
  };
  return level(0.995) - level(0.005);
}

/** Peak signal-to-noise ratio in dB against a full range of 1; infinite for equal pictures. */
export function psnr(a: Picture, b: Picture): number {
  if (a.data.length !== b.data.length) throw new Error(`Pictures differ in size: ${a.data.length} and ${b.data.length} pixels.`);
  let sum = 0;
  for (let i = 0; i < a.data.length; i++) sum += (a.data[i]! - b.data[i]!) ** 2;
  return 10 * Math.log10(a.data.length / sum);
}
