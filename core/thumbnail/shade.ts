/** Lights a height picture like matt clay from the upper left, for small pictures of brushes and slabs. */
import type { Picture } from '#core/picture';

/** Clay, its shadow and the cool light from the other side, in linear light. */
const CLAY = [0.605, 0.527, 0.432] as const;
const KEY = unit([-0.62, 0.62, 0.48]);
const COOL = unit([0.8, -0.5, 0.35]);
const COOL_LIGHT = [0.06, 0.085, 0.1] as const;

export interface Lit {
  /** Where the light comes from, degrees anticlockwise from the right. */
  light: number;
  /** What is lit, linear; null is clay. */
  ground: readonly [number, number, number] | null;
}
const UPPER_LEFT = 135;
const AS_EVER: Lit = { light: UPPER_LEFT, ground: null };

/** RGBA bytes, sRGB. `pixel` is the picture's pixel in the heights' units. */
export function shade(heights: Picture, pixel: number, { light: from, ground }: Lit = AS_EVER): Uint8ClampedArray {
  const [keyLight, coolLight] = [KEY, COOL].map((light) => turned(light, from - UPPER_LEFT));
  const stuff = ground ?? CLAY;
  const { width, height, data } = heights;
  const out = new Uint8ClampedArray(width * height * 4);
  const at = (i: number, j: number): number => {
    const h = data[Math.max(0, Math.min(height - 1, j)) * width + Math.max(0, Math.min(width - 1, i))];
    return Number.isNaN(h) ? 0 : h;
  };
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const dx = (at(i + 1, j) - at(i - 1, j)) / (2 * pixel);
      const dy = (at(i, j - 1) - at(i, j + 1)) / (2 * pixel);
      const n = unit([-dx, -dy, 1]);
      const key = Math.max(0, dot(n, keyLight));
      const cool = Math.max(0, dot(n, coolLight));
      const sky = 0.5 + 0.5 * n[2];
      for (let k = 0; k < 3; k++) {
        const light = stuff[k] * (0.16 * sky + 1.15 * key) + COOL_LIGHT[k] * cool;
        out[(j * width + i) * 4 + k] = 255 * Math.min(1, light) ** (1 / 2.2);
      }
      out[(j * width + i) * 4 + 3] = 255;
    }
  }
  return out;
}

function turned([x, y, z]: readonly [number, number, number], degrees: number): readonly [number, number, number] {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [x * c - y * s, x * s + y * c, z];
}

function unit(v: readonly [number, number, number]): readonly [number, number, number] {
  const length = Math.hypot(v[0], v[1], v[2]);
  return [v[0] / length, v[1] / length, v[2] / length];
}

function dot(a: readonly [number, number, number], b: readonly [number, number, number]): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}
