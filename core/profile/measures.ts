/**
 * Numbers of a brush's stamp.
 *
 * Lift left = ∫(h − ground)·f ÷ ∫f, the mean under the falloff. The disc is the part of it that lies under everything:
 * the grey that only a twentieth of the ring is below, over the ground; under it where nearly all of the ring is, a
 * dent. The rim step is the largest height that is left at the footprint's rim. Ripple is how much the falloff's own
 * mean height goes up and down along a run at the spacing.
 */
import type { ResolvedBrush } from '#core/brush';
import { formAt, displacementAt, shareAt, weightAt } from './cut';

export interface StampMeasures {
  /** Shares of the full height. */
  lift: number;
  disc: number;
  rimStep: number;
  /** Share of a run's own height; 0 for dabs that stand apart. */
  ripple: number;
}

const GRID = 96;
const RIM_STEPS = 360;
/** A hair inside the rim, where the footprint still holds. */
const INSIDE = 0.9999;

export function stampMeasures(brush: ResolvedBrush): StampMeasures {
  let sum = 0;
  let weights = 0;
  const greys: number[] = [];
  for (let j = 0; j < GRID; j++) {
    const v = ((j + 0.5) / GRID) * 2 - 1;
    for (let i = 0; i < GRID; i++) {
      const u = ((i + 0.5) / GRID) * 2 - 1;
      const weight = weightAt(brush, u, v);
      if (weight <= 0) continue;
      const form = formAt(brush, u, v);
      sum += form * weight;
      weights += weight;
      greys.push(form);
    }
  }
  greys.sort((a, b) => a - b);
  return {
    lift: weights > 0 ? sum / weights : 0,
    disc: discOf(greys),
    rimStep: rimStep(brush),
    ripple: ripple(brush, brush.spacing),
  };
}

/** What nearly all greys have over the ground, or under it; ascending. */
function discOf(greys: readonly number[]): number {
  const low = greys[Math.floor(greys.length * 0.05)] ?? 0;
  const high = greys[Math.floor(greys.length * 0.95)] ?? 0;
  return low > 0 ? low : Math.min(0, high);
}

export function rimStep(brush: ResolvedBrush): number {
  let most = 0;
  for (let k = 0; k < RIM_STEPS; k++) {
    const angle = (2 * Math.PI * k) / RIM_STEPS;
    const [x, y] = [Math.cos(angle), Math.sin(angle)];
    const out = brush.square ? INSIDE / Math.max(Math.abs(x), Math.abs(y)) : INSIDE;
    most = Math.max(most, Math.abs(shareAt(brush, x * out, y * out)));
  }
  return most;
}

/** Dabs further apart than this share of the diameter are a row, and no stroke. */
const APART = 0.75;
const ROWS = 24;
const STEPS = 48;

export function ripple(brush: ResolvedBrush, spacing: number): number {
  if (spacing > APART) return 0;
  const step = 2 * spacing;
  // A stretch in the middle of a run that is long enough to have forgotten its ends.
  const last = Math.ceil(2 / step) * 2 * step;
  const from = Math.round(last / step / 2) * step;
  let low = Infinity;
  let high = 0;
  for (let i = 0; i < STEPS; i++) {
    let sum = 0;
    for (let j = 0; j < ROWS; j++)
      sum += displacementAt(brush, from + (step * i) / STEPS, ((j + 0.5) / ROWS) * 2 - 1, step, last, weightAt);
    low = Math.min(low, sum);
    high = Math.max(high, sum);
  }
  return high > 0 ? (high - low) / high : 0;
}

/** The widest spacing, in whole per cent and no wider than now, whose ripple keeps within a limit. */
export function calmSpacing(brush: ResolvedBrush, limit: number): number {
  let low = 1;
  let high = Math.max(1, Math.round(brush.spacing * 100));
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (ripple(brush, middle / 100) <= limit) low = middle;
    else high = middle - 1;
  }
  return low;
}
