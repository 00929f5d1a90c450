/** Checks of a cast's tones: used range, ground and lift, undercut, and how much of the frame lies beside the clay. */
import { edgeSpread, ringCover, ringMean, usedRange, type Picture } from '#core/picture';
import type { Check } from './check';

export const USED_RANGE_LIMIT = 0.5;
export const GROUND_LIMIT = 0.03;
export const LIFT_LIMIT = 0.05;
/** A form that covers this much of the ring is a texture, and should not lift as a whole. */
const TEXTURE_COVER = 0.85;
export const UNDERCUT_LIMIT = 0.005;
export const OFF_CLAY_LIMIT = 0.002;
export const FILLED_LIMIT = 0.02;

const percent = (share: number): string => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`;

/** Tones that lie close together make a brush that looks flat. */
export function checkUsedRange(picture: Picture): Check {
  const value = usedRange(picture);
  const ok = value >= USED_RANGE_LIMIT;
  return {
    name: 'used-range',
    ok,
    value: value * 100,
    limit: USED_RANGE_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? `${percent(value)} of the tones are used`
      : `Only ${percent(value)} of the tones are used: a few high or low places take the rest, and the form comes out flat.`,
  };
}

/** A border that isn't level leaves a step where the stamp ends. */
export function checkGround(picture: Picture): Check {
  const { spread } = edgeSpread(picture);
  const ok = spread <= GROUND_LIMIT;
  return {
    name: 'ground',
    ok,
    value: spread * 100,
    limit: GROUND_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? 'The border is level'
      : `The border isn’t level: its tones lie ${percent(spread)} apart, and the stamp would end in a step.`,
  };
}

/** Lift left = ∫(h − ground)·f ÷ ∫f under a full falloff, asked of textures, which fill the ring. */
export function checkLift(picture: Picture, ground: number): Check {
  const value = ringMean(picture) - ground;
  const ok = Math.abs(value) <= LIFT_LIMIT || ringCover(picture, ground) < TEXTURE_COVER;
  return {
    name: 'lift',
    ok,
    value: value * 100,
    limit: LIFT_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? `Net lift ${percent(value)}`
      : `The whole stamp would ${value > 0 ? 'rise' : 'sink'} by ${percent(Math.abs(value))} of its depth under the texture.`,
  };
}

export function checkUndercut(share: number): Check {
  const ok = share <= UNDERCUT_LIMIT;
  return {
    name: 'undercut',
    ok,
    value: share * 100,
    limit: UNDERCUT_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? 'Nothing is hidden from above'
      : `${percent(share)} of the surface is hidden from above and can’t be told by heights.`,
  };
}

/** `share` of the frame's pixels that lie beside the clay. */
export function checkOffClay(share: number): Check {
  const ok = share <= OFF_CLAY_LIMIT;
  return {
    name: 'off-clay',
    ok,
    value: share * 100,
    limit: OFF_CLAY_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? 'The frame lies on the clay'
      : `${percent(share)} of the frame lies beside the clay and stays black.`,
  };
}

/** `share` of the frame's pixels where a scan has nothing: holes, and what lies beyond its edge. */
export function checkFilled(share: number): Check {
  const ok = share <= FILLED_LIMIT;
  return {
    name: 'filled',
    ok,
    value: share * 100,
    limit: FILLED_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? share > 0
        ? `${percent(share)} of the frame was missing from the scan and is filled smoothly`
        : 'The scan fills the frame'
      : `${percent(share)} of the frame is missing from the scan. It is filled smoothly, and has no detail there.`,
  };
}
