/** Keeps what lies within outlines; the rest becomes `ground`, over a soft edge. */
import type { Picture } from '#core/picture';
import { blur } from './blur';
import { cover } from './cover';

/** Outlines are x, y pairs 0–1 of width and height. */
export function cut(from: Picture, outlines: readonly (readonly number[])[], softPx: number, ground = 0): Picture {
  const { width, height, data } = from;
  const inPixels = outlines.map((o) => o.map((v, k) => v * (k % 2 === 0 ? width : height)));
  const matte = blur(cover(inPixels, width, height), softPx / 2);
  const out = new Float32Array(data.length);
  for (let i = 0; i < out.length; i++) out[i] = ground + (data[i] - ground) * matte.data[i];
  return { width, height, data: out };
}
