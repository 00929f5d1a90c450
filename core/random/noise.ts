/**
 * Seeded gradient noise in the plane (K. Perlin, "Improving noise", 2002, with gradients from an integer hash),
 * summed over octaves of half the size and half the height. About −1 to 1, mean 0.
 */

export function noise2(x: number, y: number, seed: number): number {
  const i = Math.floor(x);
  const j = Math.floor(y);
  const fx = x - i;
  const fy = y - j;
  const u = fade(fx);
  const v = fade(fy);
  const a = gradient(i, j, seed, fx, fy);
  const b = gradient(i + 1, j, seed, fx - 1, fy);
  const c = gradient(i, j + 1, seed, fx, fy - 1);
  const d = gradient(i + 1, j + 1, seed, fx - 1, fy - 1);
  const top = a + (b - a) * u;
  return Math.SQRT2 * (top + (c + (d - c) * u - top) * v);
}

export function layeredNoise(x: number, y: number, seed: number, octaves: number): number {
  let sum = 0;
  let height = 1;
  let scale = 1;
  let most = 0;
  for (let o = 0; o < octaves; o++) {
    sum += height * noise2(x * scale, y * scale, seed + o * 1013);
    most += height;
    height /= 2;
    scale *= 2;
  }
  return sum / most;
}

function fade(t: number): number {
  return t * t * t * (t * (t * 6 - 15) + 10);
}

function gradient(i: number, j: number, seed: number, x: number, y: number): number {
  let h = Math.imul(i, 0x27d4eb2d) ^ Math.imul(j, 0x165667b1) ^ Math.imul(seed, 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b);
  h ^= h >>> 13;
  const angle = ((h >>> 0) / 4294967296) * 2 * Math.PI;
  return Math.cos(angle) * x + Math.sin(angle) * y;
}
