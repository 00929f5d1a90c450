/** The falloff's weight of a place in the dab. */
import { FALLOFF_STEPS } from '#core/falloff';
import type { ResolvedBrush } from '#core/brush';

export function weigh(brush: ResolvedBrush, u: number, v: number): number {
  const rho = brush.square ? Math.max(Math.abs(u), Math.abs(v)) : Math.sqrt(u * u + v * v);
  const x = (rho < 1 ? rho : 1) * FALLOFF_STEPS;
  const i = x | 0;
  const a = brush.falloff[i]!;
  return a + (brush.falloff[i + 1]! - a) * (x - i);
}
