/** Gradient noise that repeats after `period` whole steps both ways, for pictures that tile. About −1 to 1, mean 0. */
const SQRT2 = Math.SQRT2;

export function wrappedNoise(x: number, y: number, periodX: number, periodY: number, seed: number): number {
  const i = Math.floor(x);
  const j = Math.floor(y);
  const fx = x - i;
  const fy = y - j;
  const i0 = wrap(i, periodX);
  const i1 = wrap(i + 1, periodX);
  const j0 = wrap(j, periodY);
  const j1 = wrap(j + 1, periodY);
  const u = fx * fx * fx * (fx * (fx * 6 - 15) + 10);
  const v = fy * fy * fy * (fy * (fy * 6 - 15) + 10);
  const a = slope(i0, j0, seed, fx, fy);
  const b = slope(i1, j0, seed, fx - 1, fy);
  const c = slope(i0, j1, seed, fx, fy - 1);
  const d = slope(i1, j1, seed, fx - 1, fy - 1);
  const top = a + (b - a) * u;
  return SQRT2 * (top + (c + (d - c) * u - top) * v);
}

/** Octaves of half the size; each `keep` as high as the one before. */
export function wrappedLayers(
  x: number,
  y: number,
  period: number,
  seed: number,
  octaves: number,
  keep: number,
): number {
  let sum = 0;
  let height = 1;
  let most = 0;
  let scale = 1;
  for (let o = 0; o < octaves; o++) {
    sum += height * wrappedNoise(x * scale, y * scale, period * scale, period * scale, seed + o * 1013);
    most += height;
    height *= keep;
    scale *= 2;
  }
  return sum / most;
}

/** Two numbers in [0, 1) for a place of a lattice. */
export function latticePair(i: number, j: number, seed: number): [number, number] {
  const h = mixed(i, j, seed);
  return [(h & 0xffff) / 65536, (h >>> 16) / 65536];
}

function wrap(i: number, period: number): number {
  const m = i % period;
  return m < 0 ? m + period : m;
}

function mixed(i: number, j: number, seed: number): number {
  let h = Math.imul(i, 0x27d4eb2d) ^ Math.imul(j, 0x165667b1) ^ Math.imul(seed, 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

/** Sixteen directions, as many as are needed to hide the lattice. */
const COS = Float64Array.from({ length: 16 }, (_, k) => Math.cos((k + 0.5) * (Math.PI / 8)));
const SIN = Float64Array.from({ length: 16 }, (_, k) => Math.sin((k + 0.5) * (Math.PI / 8)));

function slope(i: number, j: number, seed: number, x: number, y: number): number {
  const k = mixed(i, j, seed) & 15;
  return COS[k] * x + SIN[k] * y;
}
