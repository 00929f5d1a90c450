/**
 * TIFF and EXR as textures, by the `tiff` package and three's reader. Whole numbers are displayed colours; floats are
 * in linear light, which EXR multiplies by cover, and TIFF where it says so.
 */
import { decode } from 'tiff';
import { FloatType } from 'three';
import { EXRLoader } from 'three/addons/loaders/EXRLoader.js';
import { toLinear } from '#core/colour';
import { exrWindow, halfToFloat } from '#core/formats';
import { FULL, TILE, tileAt, touchTile, wordAt, type Texture } from '#core/paint';
import { checkSide } from './paintFiles';

/** Light, not multiplied, and cover, 0–1, of a pixel. */
type At = (pixel: number, into: Float64Array) => void;

/** Throws a sentence. */
export function textureOfTiff(name: string, bytes: Uint8Array<ArrayBuffer>): Texture {
  const broken = new Error(
    `“${name}” can’t be read as TIFF: it is broken, cut short, or packed in a way that isn’t known.`,
  );
  let head: ReturnType<typeof decode>[number];
  try {
    head = decode(bytes, { ignoreImageData: true, pages: [0] })[0];
  } catch {
    throw broken;
  }
  const size = checkSide(name, head.width, head.height);
  if (head.type > 3) throw new Error(`“${name}” isn’t in grey, RGB or a palette. Save it as RGB.`);
  const { sampleFormat, bitsPerSample } = head;
  if (sampleFormat === 2 || (sampleFormat === 1 && bitsPerSample === 32)) {
    const kind = sampleFormat === 2 ? 'whole numbers with a sign' : '32-bit whole numbers';
    throw new Error(`“${name}” holds ${kind}, which aren’t colours. Save it with 8 or 16 bits, or as floats.`);
  }
  const multiplied = head.alpha && head.associatedAlpha;
  let page: typeof head;
  try {
    page = decode(multiplied ? withPlainAlpha(bytes) : bytes, { pages: [0] })[0];
  } catch {
    throw broken;
  }
  const { components, palette } = page;
  const half = sampleFormat === 3 && bitsPerSample === 16;
  const data = half ? Float32Array.from(page.data, halfToFloat) : page.data;
  const floats = half || data instanceof Float32Array || data instanceof Float64Array;
  const most = data instanceof Uint16Array ? FULL : page.bitsPerSample === 1 ? 1 : 255;
  const cover = page.alpha ? components - 1 : -1;
  const grey = components - (page.alpha ? 1 : 0) < 3;
  if (data.length < size * size * components) throw broken;
  return textureOfPixels(size, (pixel, into) => {
    const from = pixel * components;
    const alpha = cover < 0 ? 1 : clamped(data[from + cover] / (floats ? 1 : most));
    const by = multiplied && alpha > 0 ? 1 / alpha : 1;
    for (let k = 0; k < 3; k++) {
      const value = palette
        ? (palette[data[from]]?.[k] ?? 0) / FULL
        : data[from + (grey ? 0 : k)] / (floats ? 1 : most);
      const seen = clamped((head.type === 0 && !palette ? 1 - value : value) * by);
      into[k] = floats ? seen : toLinear(seen);
    }
    into[3] = alpha;
  });
}

/** Throws a sentence. */
export function textureOfExr(name: string, bytes: Uint8Array<ArrayBuffer>): Texture {
  const window = exrWindow(bytes);
  const broken = new Error(`“${name}” can’t be read as EXR: it is broken or cut short.`);
  if (!window) throw broken;
  const size = checkSide(name, ...window);
  let read: { data: ArrayLike<number> };
  try {
    const loader = new EXRLoader();
    loader.setDataType(FloatType);
    read = loader.parse(bytes.slice().buffer) as typeof read;
  } catch {
    throw broken;
  }
  const { data } = read;
  const channels = data.length / (size * size);
  if (channels !== 1 && channels !== 4) throw broken;
  // The reader’s rows begin at the bottom.
  return textureOfPixels(size, (pixel, into) => {
    const row = size - 1 - Math.floor(pixel / size);
    const from = (row * size + (pixel % size)) * channels;
    const alpha = channels === 4 ? clamped(data[from + 3]) : 1;
    for (let k = 0; k < 3; k++) into[k] = alpha > 0 ? clamped(data[from + (channels === 4 ? k : 0)] / alpha) : 0;
    into[3] = alpha;
  });
}

/** What is no number, as floats may be, counts as nothing. */
const clamped = (value: number): number => (value > 0 ? (value < 1 ? value : 1) : 0);

function textureOfPixels(size: number, at: At): Texture {
  const out: Texture = { size, tiles: new Map() };
  const pixel = new Float64Array(4);
  for (let top = 0; top < size; top += TILE)
    for (let left = 0; left < size; left += TILE)
      for (let y = top; y < top + TILE; y++)
        for (let x = left; x < left + TILE; x++) {
          at(y * size + x, pixel);
          if (pixel[3] === 0) continue;
          const words = touchTile(out, tileAt(out, x, y));
          const word = wordAt(x, y);
          for (let k = 0; k < 3; k++) words[word + k] = Math.round(pixel[k] * pixel[3] * FULL);
          words[word + 3] = Math.round(pixel[3] * FULL);
        }
  return out;
}

const EXTRA_SAMPLES = 338;

/**
 * A copy that says its colours aren’t multiplied by cover: the package divides them by it otherwise, and rounds floats
 * to whole numbers on the way. Source: “TIFF Revision 6.0”, tag 338.
 */
function withPlainAlpha(bytes: Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  const out = bytes.slice();
  const view = new DataView(out.buffer);
  const little = out[0] === 0x49;
  const entries = view.getUint32(4, little);
  const count = view.getUint16(entries, little);
  for (let i = 0; i < count; i++) {
    const at = entries + 2 + i * 12;
    if (view.getUint16(at, little) === EXTRA_SAMPLES) view.setUint16(at + 8, 2, little);
  }
  return out;
}
