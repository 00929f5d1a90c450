/** Every check of a cast, measured once; those that found something come first. */
import type { Picture } from '#core/picture';
import type { Check } from './check';
import { checkMargin, measureMargin, type MarginReport } from './margin';
import { checkRingLoss } from './ringLoss';
import { checkGround, checkLift, checkOffClay, checkUndercut, checkUsedRange } from './tones';

export interface CastChecks {
  checks: Check[];
  margin: MarginReport;
}

export function castChecks(picture: Picture, ground: number, undercutShare: number, emptyShare: number): CastChecks {
  const margin = measureMargin(picture, ground);
  const checks = [
    checkOffClay(emptyShare),
    checkMargin(picture, margin),
    checkRingLoss(picture, 1, ground),
    checkUndercut(undercutShare),
    checkGround(picture),
    checkLift(picture, ground),
    checkUsedRange(picture),
  ];
  return { checks: [...checks.filter((c) => !c.ok), ...checks.filter((c) => c.ok)], margin };
}
