/** Marks changed by hand: joined, split along a line, drawn with a lasso, found under the pointer. */
import clipping from 'polygon-clipping';
import simplify from 'simplify-js';
import type { Outline } from '#core/settings';

type Ring = [number, number][];

const ringOf = (outline: readonly number[]): Ring =>
  Array.from({ length: outline.length / 2 }, (_, k) => [outline[2 * k], outline[2 * k + 1]]);
const outlineFrom = (ring: Ring): Outline => ring.slice(0, -1).flatMap(([x, y]) => [x, y]);
const outers = (polygons: [number, number][][][]): Outline[] =>
  polygons.map((p) => outlineFrom(p[0])).filter((o) => o.length >= 6);

/** One mark of several: outlines that overlap become one. */
export function joinOutlines(marks: readonly (readonly Outline[])[]): Outline[] {
  const [first, ...rest] = marks.flat().map((o) => [ringOf(o)]);
  return first ? outers(clipping.union(first, ...rest)) : [];
}

/**
 * Both sides of the line through two points, one of them empty when the line misses. Points in the outlines' own unit.
 */
export function splitOutlines(
  outlines: readonly Outline[],
  x0: number,
  y0: number,
  x1: number,
  y1: number,
): [Outline[], Outline[]] {
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (length === 0) return [[...outlines], []];
  const FAR = 10;
  const tx = ((x1 - x0) / length) * FAR;
  const ty = ((y1 - y0) / length) * FAR;
  const side = (sign: number): Ring => [
    [x0 - tx, y0 - ty],
    [x1 + tx, y1 + ty],
    [x1 + tx - ty * sign, y1 + ty + tx * sign],
    [x0 - tx - ty * sign, y0 - ty + tx * sign],
  ];
  const all = outlines.map((o) => [ringOf(o)]);
  const cut = (sign: number): Outline[] => outers(clipping.intersection(all, [side(sign)]));
  return [cut(1), cut(-1)];
}

/** A lasso's way as an outline; null when it encloses next to nothing. */
export function lassoOutline(points: readonly (readonly [number, number])[]): Outline | null {
  const slim = simplify(
    points.map(([x, y]) => ({ x, y })),
    0.0007,
    true,
  );
  if (slim.length < 3) return null;
  // A way that crosses itself becomes its outer outlines; the largest is meant.
  const whole = outers(clipping.union([slim.map(({ x, y }): [number, number] => [x, y])]));
  const largest = whole.sort((a, b) => Math.abs(areaOf(b)) - Math.abs(areaOf(a)))[0];
  return largest && Math.abs(areaOf(largest)) > 1e-5 ? largest : null;
}

/** Signed area. */
export function areaOf(outline: readonly number[]): number {
  let sum = 0;
  const n = outline.length / 2;
  for (let k = 0; k < n; k++) {
    const next = (k + 1) % n;
    sum += outline[2 * k] * outline[2 * next + 1] - outline[2 * next] * outline[2 * k + 1];
  }
  return sum / 2;
}

/** Even–odd. */
export function isInside(outlines: readonly (readonly number[])[], x: number, y: number): boolean {
  let inside = false;
  for (const o of outlines) {
    const n = o.length / 2;
    for (let k = 0, last = n - 1; k < n; last = k++) {
      const yk = o[2 * k + 1];
      const yl = o[2 * last + 1];
      if (yk > y !== yl > y && x < ((o[2 * last] - o[2 * k]) * (y - yk)) / (yl - yk) + o[2 * k]) inside = !inside;
    }
  }
  return inside;
}

export interface Bounds {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

export function boundsOf(outlines: readonly (readonly number[])[]): Bounds {
  const out = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (const o of outlines) {
    for (let k = 0; k < o.length; k += 2) {
      out.x0 = Math.min(out.x0, o[k]);
      out.x1 = Math.max(out.x1, o[k]);
      out.y0 = Math.min(out.y0, o[k + 1]);
      out.y1 = Math.max(out.y1, o[k + 1]);
    }
  }
  return out;
}
