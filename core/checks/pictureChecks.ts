/** Every check of an alpha made from a picture; those that found something come first. */
import { edgeGround, percentiles, ringMean, type Picture } from '#core/picture';
import { checkBackground, checkSpecks, measureBackground, type BackgroundReport } from './background';
import { checkBanding } from './banding';
import type { Check } from './check';
import { checkMargin, measureMargin, type MarginReport } from './margin';
import { checkResolution } from './resolution';
import { checkRingLoss, ringLoss } from './ringLoss';
import { checkSeam } from './seam';
import { checkGround, checkLift, checkUsedRange } from './tones';

export interface PictureChecks {
  checks: Check[];
  margin: MarginReport;
  background: BackgroundReport;
  ground: number;
  ringLoss: number;
  /** Greys under which 0.3 % and over which 0.3 % of the pixels lie. */
  used: [number, number];
}

/**
 * A picture that repeats fills its square: its ground is the average, and it is asked for its seam, not for margin,
 * ring or clean ground.
 */
export function pictureChecks(
  picture: Picture,
  tiles = false,
  ground = tiles ? ringMean(picture) : edgeGround(picture),
): PictureChecks {
  const margin = measureMargin(picture, ground);
  const background = tiles ? { dirt: 0, specks: [], dirty: [] } : measureBackground(picture, ground);
  const checks = tiles
    ? [
        checkSeam(picture),
        checkLift(picture, ground),
        checkUsedRange(picture),
        checkBanding(picture),
        checkResolution(picture),
      ]
    : [
        checkMargin(picture, margin),
        checkRingLoss(picture, 1, ground),
        checkBackground(background),
        checkSpecks(background),
        checkGround(picture),
        checkLift(picture, ground),
        checkUsedRange(picture),
        checkBanding(picture),
        checkResolution(picture),
      ];
  const used = percentiles(picture, [0.003, 0.997]) as [number, number];
  return {
    checks: [...checks.filter((c) => !c.ok), ...checks.filter((c) => c.ok)],
    margin,
    background,
    ground,
    ringLoss: ringLoss(picture, 1, ground),
    used,
  };
}
