/** What can be read off a height picture: histogram, ground, likeness. */
import type { Picture } from './picture';

/** Counts of the greys 0–1 in `bins` even steps; NaN (empty) is not counted. */
export function histogram(picture: Picture, bins = 128): Uint32Array {
  const counts = new Uint32Array(bins);
  for (let i = 0; i < picture.data.length; i++) {
    const h = picture.data[i];
    if (Number.isNaN(h)) continue;
    counts[Math.max(0, Math.min(bins - 1, Math.floor(h * bins)))]++;
  }
  return counts;
}

/** Ground at the edge: the median grey of the outer 4 % on each side. */
export function edgeGround(picture: Picture): number {
  const greys = edgeGreys(picture);
  return greys[greys.length >> 1];
}

/** How far apart the greys of the outer 4 % lie, from the 5th to the 95th per cent, and the upper one of them. */
export function edgeSpread(picture: Picture): { spread: number; upper: number } {
  const greys = edgeGreys(picture);
  const upper = greys[Math.floor(greys.length * 0.95)];
  return { spread: upper - greys[Math.floor(greys.length * 0.05)], upper };
}

/** Greys of the outer 4 % on each side, ascending. */
function edgeGreys(picture: Picture): Float32Array {
  const { width, height, data } = picture;
  const band = Math.max(1, Math.round(Math.min(width, height) * 0.04));
  const greys: number[] = [];
  for (let j = 0; j < height; j++) {
    const inner = j >= band && j < height - band;
    for (let i = 0; i < width; i++) {
      if (inner && i === band) i = width - band;
      greys.push(data[j * width + i]);
    }
  }
  return Float32Array.from(greys).sort();
}

/** Mean grey inside the reach ring: the ground at the average, under a full falloff. */
export function ringMean(picture: Picture): number {
  let sum = 0;
  let count = 0;
  eachInRing(picture, (grey) => {
    sum += grey;
    count++;
  });
  return count > 0 ? sum / count : 0;
}

/** Share of the ring's pixels that differ from the ground by more than 1 % of the range. */
export function ringCover(picture: Picture, ground: number): number {
  let form = 0;
  let count = 0;
  eachInRing(picture, (grey) => {
    if (Math.abs(grey - ground) > 0.01) form++;
    count++;
  });
  return count > 0 ? form / count : 0;
}

function eachInRing(picture: Picture, visit: (grey: number) => void): void {
  const { width, height, data } = picture;
  for (let j = 0; j < height; j++) {
    const v = ((j + 0.5) / height) * 2 - 1;
    const reach = Math.sqrt(1 - v * v);
    const first = Math.ceil(((1 - reach) / 2) * width - 0.5);
    const last = Math.floor(((1 + reach) / 2) * width - 0.5);
    for (let i = Math.max(0, first); i <= Math.min(width - 1, last); i++) visit(data[j * width + i]);
  }
}

/** Greys of the given shares of the pixels, ascending; NaN (empty) is left out. */
export function percentiles(picture: Picture, shares: readonly number[]): number[] {
  const counts = histogram(picture, 4096);
  const total = counts.reduce((a, b) => a + b, 0);
  return shares.map((share) => {
    let sum = 0;
    for (let b = 0; b < counts.length; b++) {
      sum += counts[b];
      if (sum >= total * share) return b / (counts.length - 1);
    }
    return 1;
  });
}

/** Share of the grey range between the 0.5th and the 99.5th per cent of the pixels. */
export function usedRange(picture: Picture): number {
  const [low, high] = percentiles(picture, [0.005, 0.995]) as [number, number];
  return high - low;
}

/** Peak signal-to-noise ratio in dB against a full range of 1; infinite for equal pictures. */
export function psnr(a: Picture, b: Picture): number {
  if (a.data.length !== b.data.length)
    throw new Error(`Pictures differ in size: ${a.data.length} and ${b.data.length} pixels.`);
  let sum = 0;
  for (let i = 0; i < a.data.length; i++) sum += (a.data[i] - b.data[i]) ** 2;
  return 10 * Math.log10(a.data.length / sum);
}
