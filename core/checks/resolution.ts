/**
 * True resolution: how many pixels a side would hold all the detail there is. The power spectrum of rows and columns
 * (Hann window, Welch 1967) is weighted by frequency, as pictures fall off with it; detail ends where next to
 * nothing of the weighted power is left. An enlarged or blurred picture ends early.
 */
import FFT from 'fft.js';
import type { Picture } from '#core/picture';
import type { Check } from './check';

/** Share of the weighted power that may lie beyond. */
const TAIL = 0.008;
/** A picture with less than this of its pixels in true detail is larger than it needs to be. */
export const RESOLUTION_LIMIT = 0.45;
const LINES = 128;

/** Share of the pixel count a side that carries detail, 0–1; 1 for an even picture, which has nothing to lose. */
export function trueShare(picture: Picture): number {
  const { width, height } = picture;
  const size = 2 ** Math.floor(Math.log2(Math.min(width, height, 2048)));
  if (size < 16) return 1;
  const power = new Float64Array(size / 2);
  const fft = new FFT(size);
  const out = fft.createComplexArray();
  const line = new Float64Array(size);
  const add = (read: (k: number) => number): void => {
    let mean = 0;
    for (let k = 0; k < size; k++) mean += read(k) / size;
    for (let k = 0; k < size; k++) line[k] = (read(k) - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * k) / size));
    fft.realTransform(out, line);
    for (let f = 1; f < size / 2; f++) power[f] += out[2 * f] ** 2 + out[2 * f + 1] ** 2;
  };
  const left = (width - size) >> 1;
  const top = (height - size) >> 1;
  const step = Math.max(1, Math.floor(size / LINES));
  for (let n = 0; n < size; n += step) {
    add((k) => picture.data[(top + n) * width + left + k]);
    add((k) => picture.data[(top + k) * width + left + n]);
  }
  // 16 bits round; what lies under that is no detail.
  const floor = (size / step) * 2 * size * (1 / 65535) ** 2;
  let total = 0;
  for (let f = 1; f < power.length; f++) {
    power[f] = Math.max(0, power[f] - floor) * f * f;
    total += power[f];
  }
  if (total <= 0) return 1;
  let tail = 0;
  for (let f = power.length - 1; f > 0; f--) {
    tail += power[f];
    if (tail > total * TAIL) return Math.min(1, (f + 1) / power.length);
  }
  return 1;
}

export function checkResolution(picture: Picture): Check {
  const share = trueShare(picture);
  const ok = share >= RESOLUTION_LIMIT || picture.width <= 128;
  const percent = `${Math.round(share * 100)} %`;
  return {
    name: 'resolution',
    ok,
    value: share * 100,
    limit: RESOLUTION_LIMIT * 100,
    unit: '%',
    sentence: ok
      ? `${percent} of its pixels a side carry detail`
      : `Only ${percent} of its pixels a side carry detail: it was enlarged, or is soft. A smaller size would hold all of it.`,
  };
}
