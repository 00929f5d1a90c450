/** Every check of a cast, measured once; those that found something come first. */
import type { Picture } from '#core/picture';
import type { Check } from './check';
import { checkMargin, measureMargin, type MarginReport } from './margin';
import { checkRingLoss } from './ringLoss';
import { checkSeam } from './seam';
import { checkFilled, checkGround, checkLift, checkOffClay, checkUndercut, checkUsedRange } from './tones';

export interface CastChecks {
  checks: Check[];
  margin: MarginReport;
}

export interface Surface {
  /** Share of its area that is hidden from above. */
  undercut: number;
  /** Share of the frame where there is none. */
  empty: number;
  of: 'clay' | 'scan';
  /** It fills its frame and is to tile: its sides don’t stand for themselves. */
  repeats?: boolean;
}

export function castChecks(picture: Picture, ground: number, surface: Surface): CastChecks {
  const margin = measureMargin(picture, ground);
  const checks = [
    surface.of === 'clay' ? checkOffClay(surface.empty) : checkFilled(surface.empty),
    ...(surface.repeats ? [checkSeam(picture)] : [checkMargin(picture, margin), checkRingLoss(picture, 1, ground)]),
    checkUndercut(surface.undercut),
    ...(surface.repeats ? [] : [checkGround(picture)]),
    checkLift(picture, ground),
    checkUsedRange(picture),
  ];
  return { checks: [...checks.filter((c) => !c.ok), ...checks.filter((c) => c.ok)], margin };
}
