/** Patterns laid in rows: scales and weave. */
import { smoothstep } from '#core/filter';
import type { Picture } from '#core/picture';
import { latticePair, wrappedNoise } from '#core/random';
import type { GrowOf } from '#core/settings';
import { clamp01, fill, modulo, periodOf, spreadOut } from './field';

/**
 * Rows of scales, every second one half a scale aside; each row lies over the roots of the next and rises to its free
 * edge.
 */
export function scales({ across, overlap, point, uneven, seed, tiles }: GrowOf<'scales'>, size: number): Picture {
  // An even number of rows, so that the shift closes on itself.
  const rows = 2 * Math.max(1, Math.round((across * (1 + overlap / 100)) / 2));
  const periodX = periodOf(across, tiles);
  const periodY = periodOf(rows, tiles);
  const length = 1 + (overlap / 100) * 1.6;
  const sharp = point / 100;
  return spreadOut(
    fill(size, (x, y) => {
      const row = Math.floor(y * rows);
      // The row whose scale begins farthest up lies on top.
      for (let r = row - 3; r <= row; r++) {
        const shift = modulo(r, 2) === 0 ? 0 : 0.5;
        const column = Math.floor(x * across - shift);
        const [a, b] = latticePair(modulo(column, periodX), modulo(r, periodY), seed);
        const wide = 1 - (uneven / 100) * 0.25 * a;
        const u = ((x * across - shift - column - 0.5) * 2) / wide;
        const t = (y * rows - r) / (length * (1 - (uneven / 100) * 0.3 * b));
        if (t < 0 || t > 1 || Math.abs(u) > 1) continue;
        // The free edge: half an ellipse, drawn out to a point.
        const side = Math.abs(u);
        const edge = (1 - sharp) * (0.55 + 0.45 * Math.sqrt(Math.max(0, 1 - side * side))) + sharp * (1 - 0.62 * side);
        const inside = edge - t;
        if (inside <= 0) continue;
        const rim = smoothstep(0, 0.14, inside);
        return (
          (0.22 + 0.62 * (t / edge) - 0.16 * side * side + (uneven / 100) * 0.16 * (b - 0.5)) * (0.55 + 0.45 * rim)
        );
      }
      return 0;
    }),
    0,
    1,
  );
}

/** Threads of warp and weft; each passes over so many, then under as many. */
export function weave(
  { across, fill: thread, over, round, fray, seed, tiles }: GrowOf<'weave'>,
  size: number,
): Picture {
  const turn = 2 * over;
  // As many threads as close the pattern when it tiles.
  const threads = tiles ? Math.max(turn, Math.round(across / turn) * turn) : Math.max(2, across);
  const half = (thread / 100) * 0.5;
  const fine = threads * 8;
  const finePeriod = periodOf(fine, tiles);
  const body = (off: number): number => {
    const t = Math.abs(off) / half;
    if (t >= 1) return -1;
    const cord = Math.sqrt(1 - t * t);
    return (round / 100) * cord + (1 - round / 100) * Math.min(1, (1 - t) * 5);
  };
  return spreadOut(
    fill(size, (x, y) => {
      const u = x * threads;
      const v = y * threads;
      const i = Math.floor(u);
      const j = Math.floor(v);
      // Each thread swings up and down along its way as the other family passes.
      const swing = (along: number, shift: number): number => Math.sin((Math.PI * (along - shift)) / over);
      const warp = body(u - i - 0.5);
      const weft = body(v - j - 0.5);
      const grain = (a: number, b: number, s: number): number =>
        (fray / 100) * 0.28 * wrappedNoise(a, b, finePeriod, finePeriod, seed + s);
      const up = warp < 0 ? -1 : 0.4 + 0.34 * swing(v, i) + 0.26 * warp + grain(u * 8, v * 2, 3);
      const across2 = weft < 0 ? -1 : 0.4 - 0.34 * swing(u, j) + 0.26 * weft + grain(u * 2, v * 8, 7);
      return clamp01(Math.max(up, across2, 0));
    }),
    0,
    1,
  );
}
