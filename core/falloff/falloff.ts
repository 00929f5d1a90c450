/**
 * Falloff: the weight f(ρ) of a dab from its centre (ρ = 0) to its rim (ρ = 1).
 *
 * Full 1; Plateau 1 up to `hold`, then a smooth step to 0; Dome √(1 − ρ²); Bell (1 − ρ²)²; Cone 1 − ρ;
 * Needle (1 − ρ)³; own curve: see `curve.ts`. Outside the ring the weight is 0, except that Full and
 * a square footprint's corners are cut by the footprint, not by the falloff.
 */
import type { FalloffSettings } from '#core/settings';
import { curveAt, prepareCurve } from './curve';

/** Weight at ρ; ρ is clamped to [0, 1]. */
export function falloffAt(settings: FalloffSettings, rho: number): number {
  return falloffFunction(settings)(rho);
}

export function falloffFunction(settings: FalloffSettings): (rho: number) => number {
  const inside = (f: (rho: number) => number) => (rho: number) => f(rho < 0 ? 0 : rho > 1 ? 1 : rho);
  switch (settings.kind) {
    case 'full':
      return () => 1;
    case 'plateau': {
      const hold = settings.hold;
      return inside((rho) => {
        if (rho <= hold) return 1;
        const t = (rho - hold) / (1 - hold);
        return 1 - t * t * (3 - 2 * t);
      });
    }
    case 'dome':
      return inside((rho) => Math.sqrt(1 - rho * rho));
    case 'bell':
      return inside((rho) => (1 - rho * rho) ** 2);
    case 'cone':
      return inside((rho) => 1 - rho);
    case 'needle':
      return inside((rho) => (1 - rho) ** 3);
    case 'own': {
      const curve = prepareCurve(settings.nodes);
      return inside((rho) => curveAt(curve, rho));
    }
  }
}

/** Spans of a falloff table. */
export const FALLOFF_STEPS = 4096;

/**
 * The falloff as a table over ρ: entry i holds f(i / FALLOFF_STEPS), and the last is repeated for
 * interpolation. Linear reading is within 0.006 of the formula everywhere (worst at Dome's upright rim).
 */
export function falloffTable(settings: FalloffSettings): Float32Array {
  const f = falloffFunction(settings);
  const table = new Float32Array(FALLOFF_STEPS + 2);
  for (let i = 0; i <= FALLOFF_STEPS; i++) table[i] = f(i / FALLOFF_STEPS);
  table[FALLOFF_STEPS + 1] = table[FALLOFF_STEPS];
  return table;
}
