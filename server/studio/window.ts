/** Windows of a decoded picture, reduced to the size that is wanted. */
import sharp from 'sharp';
import { resize } from '#core/filter';
import { aligned, type Decoded } from './decode';

/** Windows may be read at up to this size. */
export const MOST_WINDOW_SIDE = 4096;

export interface PixelWindow {
  x: number;
  y: number;
  width: number;
  height: number;
  /** The longer side of the answer has at most so many pixels. */
  side: number;
}

export interface Pixels {
  width: number;
  height: number;
  channels: 1 | 3;
  data: Uint16Array | Float32Array;
}

/** A window of a decoded picture; what lies beyond its sides repeats them. */
export async function readWindow(from: Decoded, window: PixelWindow): Promise<Pixels> {
  const left = Math.max(0, Math.min(from.width - 1, Math.round(window.x)));
  const top = Math.max(0, Math.min(from.height - 1, Math.round(window.y)));
  const right = Math.max(left + 1, Math.min(from.width, Math.round(window.x + window.width)));
  const bottom = Math.max(top + 1, Math.min(from.height, Math.round(window.y + window.height)));
  const scale = Math.min(1, window.side / Math.max(window.width, window.height));
  // The answer is never larger than what was asked for, however far from the picture the window lies.
  const answer = {
    width: Math.max(1, Math.round(window.width * scale)),
    height: Math.max(1, Math.round(window.height * scale)),
  };
  const width = Math.min(answer.width, Math.max(1, Math.round((right - left) * scale)));
  const height = Math.min(answer.height, Math.max(1, Math.round((bottom - top) * scale)));
  const whole = right - left === from.width && bottom - top === from.height;
  const data = await resampled(
    whole ? from : cut(from, left, top, right - left, bottom - top),
    width,
    height,
    from.channels,
  );
  const x = Math.min(answer.width - width, Math.max(0, Math.round((left - window.x) * scale)));
  const y = Math.min(answer.height - height, Math.max(0, Math.round((top - window.y) * scale)));
  return padded(
    { width, height, channels: from.channels, data },
    [x, y],
    [answer.width - width - x, answer.height - height - y],
  );
}

interface Cut {
  data: Decoded['data'];
  width: number;
  height: number;
}

function cut({ data, channels, width: from }: Decoded, left: number, top: number, width: number, height: number): Cut {
  const out = new (data.constructor as new (n: number) => Decoded['data'])(width * height * channels);
  const row = width * channels;
  for (let j = 0; j < height; j++) {
    const at = ((top + j) * from + left) * channels;
    out.set(data.subarray(at, at + row), j * row);
  }
  return { data: out, width, height };
}

/** By libvips, floats by core: libvips takes floats for 8-bit tones. 8 bits are carried on as 16. */
async function resampled(from: Cut, width: number, height: number, channels: 1 | 3): Promise<Pixels['data']> {
  const { data } = from;
  const same = from.width === width && from.height === height;
  if (data instanceof Float32Array) {
    if (same) return data;
    const out = new Float32Array(width * height * channels);
    for (let k = 0; k < channels; k++) {
      const plane = {
        width: from.width,
        height: from.height,
        data: Float32Array.from({ length: from.width * from.height }, (_, i) => data[i * channels + k]),
      };
      resize(plane, width, height).data.forEach((v, i) => (out[i * channels + k] = v));
    }
    return out;
  }
  const deep = data instanceof Uint16Array;
  if (same) return deep ? data : widened(data);
  const space = channels === 3 ? (deep ? 'rgb16' : 'srgb') : deep ? 'grey16' : 'b-w';
  let at = sharp(data, { raw: { width: from.width, height: from.height, channels }, limitInputPixels: false });
  if (deep) at = at.pipelineColourspace(space);
  const bytes = await at
    .toColourspace(space)
    .resize(width, height, { fit: 'fill', kernel: 'cubic' })
    .raw({ depth: deep ? 'ushort' : 'uchar' })
    .toBuffer();
  return deep ? new Uint16Array(aligned(bytes)) : widened(bytes);
}

function widened(bytes: Uint8Array): Uint16Array {
  const out = new Uint16Array(bytes.length);
  for (let i = 0; i < out.length; i++) out[i] = bytes[i] * 257;
  return out;
}

function padded(p: Pixels, before: [number, number], after: [number, number]): Pixels {
  if (before[0] + before[1] + after[0] + after[1] === 0) return p;
  const width = p.width + before[0] + after[0];
  const height = p.height + before[1] + after[1];
  const data = new (p.data.constructor as new (n: number) => Pixels['data'])(width * height * p.channels);
  for (let j = 0; j < height; j++) {
    const row = Math.max(0, Math.min(p.height - 1, j - before[1]));
    for (let i = 0; i < width; i++) {
      const column = Math.max(0, Math.min(p.width - 1, i - before[0]));
      for (let k = 0; k < p.channels; k++)
        data[(j * width + i) * p.channels + k] = p.data[(row * p.width + column) * p.channels + k];
    }
  }
  return { width, height, channels: p.channels, data };
}

/** An 8-bit picture for looking at, its longer side at most `side`. */
export async function previewOf(from: Decoded, side: number): Promise<Buffer> {
  const { data, width, height, channels } = await readWindow(from, {
    x: 0,
    y: 0,
    width: from.width,
    height: from.height,
    side,
  });
  const scale = data instanceof Float32Array ? 255 : 1 / 257;
  const shown = new Uint8ClampedArray(data.length);
  for (let i = 0; i < data.length; i++) shown[i] = data[i] * scale;
  return sharp(shown, { raw: { width, height, channels } }).jpeg({ quality: 92 }).toBuffer();
}
