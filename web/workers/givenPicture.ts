/** The picture that a step is given, in its colours, for steps that are set by handles and strokes on it. */
import { resize, squared } from '#core/filter';
import type { Raster } from '#core/picture';
import type { Step } from '#core/settings';

export interface GivenPicture {
  /** The step that it is given to. */
  stepId: string;
  /** Pixels per side: the picture lies in the middle of a square. */
  size: number;
  rgba: Uint8ClampedArray<ArrayBuffer>;
  shape: { width: number; height: number };
}

/** What is shown is never larger. */
export const GIVEN_SIDE = 1024;

/** Set by hand on what it is given, not on what comes of it. */
export function isHandled({ kind }: Pick<Step, 'kind'>): boolean {
  return kind === 'perspective' || kind === 'pickOut' || kind === 'shading';
}

/** A grey that what isn't picked out fades towards. */
const VEIL = 88;
const FADE = 0.72;

/** `picked` is the same picture with what isn't picked out black: that is faded. */
export function givenPicture(
  stepId: string,
  { width, height, planes }: Raster,
  size: number,
  picked: Raster | null,
): GivenPicture {
  const small = (data: Float32Array): Float32Array => resize(squared({ width, height, data }), size, size).data;
  const shown = planes.map(small);
  const left = picked?.planes.map(small);
  const rgba = new Uint8ClampedArray(size * size * 4);
  for (let i = 0; i < size * size; i++) {
    for (let k = 0; k < 3; k++) rgba[i * 4 + k] = shown[Math.min(k, shown.length - 1)][i] * 255;
    rgba[i * 4 + 3] = 255;
    if (!left) continue;
    const whole = sumAt(shown, i);
    const out = whole < 0.02 ? 0 : FADE * (1 - Math.min(1, Math.max(0, sumAt(left, i)) / whole));
    for (let k = 0; k < 3; k++) rgba[i * 4 + k] += (VEIL - rgba[i * 4 + k]) * out;
  }
  return { stepId, size, rgba, shape: { width, height } };
}

const sumAt = (planes: readonly Float32Array[], i: number): number => planes.reduce((sum, p) => sum + p[i], 0);
