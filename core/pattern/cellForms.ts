/** Patterns of cells about scattered points (Worley, "A cellular texture basis function", 1996): cells and cracks. */
import { smoothstep } from '#core/filter';
import type { Picture } from '#core/picture';
import { latticePair, wrappedLayers } from '#core/random';
import type { GrowOf } from '#core/settings';
import { fill, modulo, periodOf, spreadOut } from './field';

interface Near {
  /** Distance to the nearest point, in cells. */
  first: number;
  /** Distance to the border with the next cell, in cells. */
  border: number;
  /** A number of the cell's own, 0–1. */
  own: number;
}

/**
 * `loose` 0 leaves the points on a grid. The border is half-way between the two nearest points, measured straight to it
 * (Quilez).
 */
function nearest(x: number, y: number, period: number, loose: number, seed: number): Near {
  const i0 = Math.floor(x);
  const j0 = Math.floor(y);
  const at = (i: number, j: number): [number, number] => {
    const [a, b] = latticePair(modulo(i, period), modulo(j, period), seed);
    return [i + 0.5 + (a - 0.5) * loose - x, j + 0.5 + (b - 0.5) * loose - y];
  };
  let best = Infinity;
  let bi = i0;
  let bj = j0;
  let bx = 0;
  let by = 0;
  for (let j = j0 - 1; j <= j0 + 1; j++) {
    for (let i = i0 - 1; i <= i0 + 1; i++) {
      const [dx, dy] = at(i, j);
      const d = dx * dx + dy * dy;
      if (d >= best) continue;
      best = d;
      bi = i;
      bj = j;
      bx = dx;
      by = dy;
    }
  }
  let border = Infinity;
  for (let j = bj - 2; j <= bj + 2; j++) {
    for (let i = bi - 2; i <= bi + 2; i++) {
      if (i === bi && j === bj) continue;
      const [dx, dy] = at(i, j);
      const ex = dx - bx;
      const ey = dy - by;
      border = Math.min(border, ((bx + dx) * ex + (by + dy) * ey) / (2 * Math.hypot(ex, ey)));
    }
  }
  return { first: Math.sqrt(best), border, own: latticePair(modulo(bi, period), modulo(bj, period), seed + 77)[0] };
}

export function cells({ across, loose, dome, gap, seed, tiles }: GrowOf<'cells'>, size: number): Picture {
  const period = periodOf(across, tiles);
  const half = (gap / 100) * 0.5;
  return spreadOut(
    fill(size, (x, y) => {
      const { border, own } = nearest(x * across, y * across, period, loose / 100, seed);
      const edge = half > 0 ? smoothstep(half * 0.4, half * 1.6, border) : 1;
      const t = Math.min(1, border / 0.45);
      const round = Math.sqrt(Math.max(0, 1 - (1 - t) * (1 - t)));
      const rise = 1 - dome / 100 + (dome / 100) * round;
      return edge * rise * (0.85 + 0.15 * own);
    }),
    0,
    1,
  );
}

export function cracks({ across, width, ragged, branch, seed, tiles }: GrowOf<'cracks'>, size: number): Picture {
  const period = periodOf(across, tiles);
  const finer = Math.max(across + 1, Math.round(across * 2.4));
  const finerPeriod = periodOf(finer, tiles);
  const half = (width / 100) * 0.35;
  const bend = (ragged / 100) * 0.35;
  return spreadOut(
    fill(size, (x, y) => {
      const wx = bend * wrappedLayers(x * across * 2, y * across * 2, period * 2, seed + 31, 3, 0.55);
      const wy = bend * wrappedLayers(x * across * 2, y * across * 2, period * 2, seed + 63, 3, 0.55);
      const { border, own } = nearest(x * across + wx, y * across + wy, period, 0.95, seed);
      // The plates' edges are worn round before the crack drops.
      let height = smoothstep(0, half * 2.2, border) * (0.88 + 0.12 * own);
      if (branch > 0) {
        const fine = nearest(x * finer + wx * 1.7, y * finer + wy * 1.7, finerPeriod, 0.95, seed + 5);
        // Only some of the finer cracks open, each in part.
        const open = Math.max(0, (branch / 100) * 1.3 - fine.own);
        height *= 1 - Math.min(0.75, open) * (1 - smoothstep(0, half * 1.6, fine.border));
      }
      return height;
    }),
    0,
    1,
  );
}
