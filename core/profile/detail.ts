/**
 * How much of an alpha's ups and downs a body's vertices can hold at a brush's size: the spread of the alpha averaged
 * to what its vertices can show, which is no finer than two of their distances, over its whole spread. Of a plain form,
 * what is left of the falloff's peak where it lies midway between two vertices.
 */
import type { ResolvedBrush } from '#core/brush';
import { FALLOFF_STEPS } from '#core/falloff';
import type { Picture } from '#core/picture';
import { weightAt } from './cut';

/** Up and down again takes two steps from vertex to vertex. */
const FINEST = 2;

/** 0–1. `spacing` is the mean distance from vertex to vertex, body units. */
export function detailShown(brush: ResolvedBrush, spacing: number): number {
  const levels = brush.alpha?.levels;
  if (!levels) return peakHeld(brush, spacing / 2 / brush.radius);
  const side = brush.mapping === 'wrapped' ? brush.tile : (2 * brush.radius) / brush.fit;
  const pixel = side / levels[0].width;
  const level = Math.min(levels.length - 1, Math.max(0, Math.log2((FINEST * spacing) / pixel)));
  const below = Math.floor(level);
  const whole = spread(levels[0]);
  const spreadAt = (l: number): number => spread(levels[Math.min(levels.length - 1, l)]);
  return whole > 0
    ? Math.min(1, (spreadAt(below) + (spreadAt(below + 1) - spreadAt(below)) * (level - below)) / whole)
    : 1;
}

/** `off` is how far the nearest vertex is from the middle, radii. */
function peakHeld(brush: ResolvedBrush, off: number): number {
  let whole = 0;
  let heaviest = 0;
  for (let i = 0; i <= FALLOFF_STEPS; i++) {
    const rho = i / FALLOFF_STEPS;
    const weight = weightAt(brush, rho, 0);
    whole = Math.max(whole, weight);
    if (rho >= off) heaviest = Math.max(heaviest, weight);
  }
  return whole > 0 ? heaviest / whole : 1;
}

function spread({ data }: Picture): number {
  let sum = 0;
  let squares = 0;
  for (const h of data) {
    sum += h;
    squares += h * h;
  }
  const mean = sum / data.length;
  return Math.sqrt(Math.max(0, squares / data.length - mean * mean));
}
