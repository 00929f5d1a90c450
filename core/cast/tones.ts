/**
 * Heights to greys: g = (z − floor)/(crown − floor), clamped to 0–1; empty pixels become black.
 * The relief, (crown − floor) ÷ frame side, keeps the true depth beside the picture.
 */
import { curveAt, prepareCurve } from '#core/falloff';
import { newPicture, type Picture } from '#core/picture';
import type { CurveNode } from '#core/settings';

export interface Range {
  /** Body units. */
  floor: number;
  crown: number;
}

export interface Tones extends Range {
  picture: Picture;
  relief: number;
}

/** Forms flatter than this share of the frame's side are no form. */
export const FLATTEST = 1e-6;

export class FlatCastError extends Error {
  readonly code = 'flat-cast';

  constructor(readonly height: number) {
    super(
      `Everything in the frame lies at one height (${height.toFixed(3)}), so the alpha would be one grey. ` +
        'Lift or carve a form inside the frame first, or set floor and crown by hand.',
    );
  }
}

/** Lowest and highest height in the picture; null when it is empty throughout. */
export function heightRange(heights: Picture): Range | null {
  let floor = Infinity;
  let crown = -Infinity;
  for (let i = 0; i < heights.data.length; i++) {
    const h = heights.data[i];
    if (h < floor) floor = h;
    if (h > crown) crown = h;
  }
  return floor <= crown ? { floor, crown } : null;
}

/**
 * Floor and crown are found from the heights where they are null. `tone` takes heights (0 at the floor, 1 at the
 * crown) to greys; a straight one is left out. Throws FlatCastError when nothing is left between floor and crown.
 */
export function castTones(
  heights: Picture,
  side: number,
  floor: number | null,
  crown: number | null,
  tone: readonly CurveNode[] = [],
): Tones {
  const range = heightRange(heights);
  const low = floor ?? range?.floor ?? 0;
  const high = crown ?? range?.crown ?? 0;
  if (!(high - low > FLATTEST * side)) throw new FlatCastError(low);
  const picture = newPicture(heights.width, heights.height);
  const scale = 1 / (high - low);
  const table = isStraight(tone) ? null : toneTable(tone);
  for (let i = 0; i < heights.data.length; i++) {
    const h = (heights.data[i] - low) * scale;
    // NaN, an empty pixel, fails every comparison and stays black.
    if (!table) picture.data[i] = h >= 1 ? 1 : h > 0 ? h : 0;
    else if (h === h) picture.data[i] = readTone(table, h >= 1 ? 1 : h > 0 ? h : 0);
  }
  return { picture, floor: low, crown: high, relief: (high - low) / side };
}

export function isStraight(tone: readonly CurveNode[]): boolean {
  return tone.every((node) => Math.abs(node.y - node.x) < 1e-6);
}

const TONE_STEPS = 4096;

function toneTable(tone: readonly CurveNode[]): Float32Array {
  const curve = prepareCurve(tone);
  return Float32Array.from({ length: TONE_STEPS + 2 }, (_, i) => curveAt(curve, Math.min(1, i / TONE_STEPS)));
}

function readTone(table: Float32Array, h: number): number {
  const x = h * TONE_STEPS;
  const i = x | 0;
  return table[i] + (table[i + 1] - table[i]) * (x - i);
}
