/**
 * Profile: the heights that a dab, or a run of dabs at the set spacing, leaves on flat clay along a cut through its
 * middle.
 *
 * Δ(u, v) = full · (h(u, v) − ground) · f(ρ) · strength, with `full` the body units of a full height; outside the
 * alpha's square and outside the footprint nothing is moved. The cut runs along the dab's own u, as a stroke does that
 * turns with its direction.
 */
import { PLAIN_RELIEF, type ResolvedBrush } from '#core/brush';
import { FALLOFF_STEPS } from '#core/falloff';
import { sample } from '#core/picture';
import type { Action } from '#core/settings';

/** Places along a cut, in radii from the first dab's middle, and what is there. */
export interface Cut {
  at: Float32Array;
  /** Body units over the untouched clay. */
  height: Float32Array;
}

/** Body units that a full height is worth. */
export function fullHeight(brush: ResolvedBrush): number {
  const relief = brush.alpha ? brush.relief : PLAIN_RELIEF;
  const side =
    brush.alpha && brush.mapping === 'wrapped' ? brush.tile : (2 * brush.radius) / (brush.alpha ? brush.fit : 1);
  return brush.height ?? brush.depth * relief * side;
}

/** Whether the height that one dab leaves on flat clay follows from the settings alone. */
export function shapes(action: Action): boolean {
  return action === 'lift' || action === 'build' || action === 'crease' || action === 'inflate';
}

/** Which way a dab goes from the clay: a crease cuts, everything else raises. */
export function sense(brush: ResolvedBrush): 1 | -1 {
  return brush.action === 'crease' ? -1 : 1;
}

/** Weight of the falloff at a place of the dab, radii; 0 outside the footprint. */
export function weightAt(brush: ResolvedBrush, u: number, v: number): number {
  const rho = brush.square ? Math.max(Math.abs(u), Math.abs(v)) : Math.hypot(u, v);
  if (rho > 1) return 0;
  const x = rho * FALLOFF_STEPS;
  const i = Math.floor(x);
  return brush.falloff[i] + (brush.falloff[i + 1] - brush.falloff[i]) * (x - i);
}

/** h − ground at a place of the dab, radii; a plain form is full height everywhere. */
export function formAt(brush: ResolvedBrush, u: number, v: number): number {
  const picture = brush.alpha?.levels[0];
  if (!picture) return 1;
  const x = u * brush.fit;
  const y = v * brush.fit;
  return Math.abs(x) > 1 || Math.abs(y) > 1 ? 0 : sample(picture, (x + 1) / 2, (1 - y) / 2) - brush.ground;
}

/** Share of the full height that one dab lifts at a place. */
export function shareAt(brush: ResolvedBrush, u: number, v: number): number {
  const weight = weightAt(brush, u, v);
  return weight === 0 ? 0 : formAt(brush, u, v) * weight * brush.strength;
}

/** One dab, from a little before its ring to a little behind it. */
export function dabCut(brush: ResolvedBrush, steps = 320): Cut {
  const full = fullHeight(brush) * sense(brush);
  return cut(-1.15, 1.15, steps, (x) => shareAt(brush, x, 0) * full);
}

/**
 * A run of dabs, as long as `radii` from the first middle to the last; Even keeps the strongest, otherwise they add.
 */
export function runCut(brush: ResolvedBrush, radii = 6, steps = 480): Cut {
  const full = fullHeight(brush) * sense(brush);
  const step = 2 * Math.max(0.005, brush.spacing);
  const last = Math.floor(radii / step) * step;
  return cut(-1.15, last + 1.15, steps, (x) => displacementAt(brush, x, 0, step, last) * full);
}

/** Share of the full height at a place of a run whose dabs lie `step` radii apart, from 0 to `last`. */
export function displacementAt(
  brush: ResolvedBrush,
  x: number,
  v: number,
  step: number,
  last: number,
  of = shareAt,
): number {
  let out = 0;
  for (let at = Math.max(0, Math.ceil((x - 1) / step) * step); at <= Math.min(last, x + 1) + 1e-9; at += step) {
    const here = of(brush, x - at, v);
    if (!brush.even) out += here;
    else if (Math.abs(here) > Math.abs(out)) out = here;
  }
  return out;
}

function cut(from: number, to: number, steps: number, height: (x: number) => number): Cut {
  const at = Float32Array.from({ length: steps + 1 }, (_, i) => from + ((to - from) * i) / steps);
  return { at, height: at.map(height) };
}
