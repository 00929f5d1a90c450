/**
 * Pictures from outside: checked before they are decoded, decoded by libvips (EXR by three's reader) into rows of 8 or
 * 16 bit or float. Runs where it can be ended: what a damaged file makes a reader do is not known beforehand.
 */
import sharp from 'sharp';
import { exrChannels, exrWindow } from '#core/formats';
import { SHEET_MOST_PIXELS } from '#core/settings';
import { Problem } from '../problem';
import { boundedDrawing, isDrawing } from './drawing';

export interface SheetFile {
  width: number;
  height: number;
  /** What kind of picture it was, for people. */
  what: string;
}

export interface Decoded extends SheetFile {
  /** Interleaved, first row at the top; floats are 0–1. */
  data: Uint8Array | Uint16Array | Float32Array;
  channels: 1 | 3;
}

export const ACCEPTED = 'PNG, JPEG, WebP, TIFF, EXR and SVG pictures can be opened.';
const LABELS: Record<string, string> = { png: 'PNG', jpeg: 'JPEG', webp: 'WebP', tiff: 'TIFF', svg: 'SVG' };
/** Drawings without pixels of their own are drawn this large. */
const SVG_SIDE = 4096;
export const refuse = (sentence: string): Problem => new Problem(422, 'picture', sentence);

/** Throws a Problem with a sentence that names the file. */
export async function decodePicture(file: Uint8Array, name: string): Promise<Decoded> {
  let bytes = file;
  if (bytes.length === 0) throw refuse(`${name} is empty. ${ACCEPTED}`);
  if (bytes.length > 4 && Buffer.from(bytes.subarray(0, 4)).readUInt32LE() === 0x01312f76)
    return decodeExr(bytes, name);
  if (isDrawing(bytes)) bytes = boundedDrawing(bytes, name, SVG_SIDE);
  const meta = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => {
      throw refuse(`${name} isn’t a picture that can be read: it is broken or of another kind. ${ACCEPTED}`);
    });
  const label = LABELS[meta.format ?? ''];
  if (!label) throw refuse(`${name} is a ${String(meta.format).toUpperCase()} picture. ${ACCEPTED}`);
  const { width, height } = meta.autoOrient;
  checkSize(name, width, height);
  const options = { limitInputPixels: SHEET_MOST_PIXELS, failOn: 'truncated' as const };
  try {
    let at = sharp(bytes, options).autoOrient();
    const deep = meta.depth === 'ushort' || meta.depth === 'short' || meta.depth === 'uint' || meta.depth === 'int';
    const floats = meta.depth === 'float' || meta.depth === 'double';
    if (meta.hasAlpha) at = at.flatten({ background: await paperFor(bytes) });
    if (floats) {
      const { data, info } = await at.raw({ depth: 'float' }).toBuffer({ resolveWithObject: true });
      return fromFloats(
        new Float32Array(aligned(data)),
        info.width,
        info.height,
        info.channels,
        `${label}, 32-bit float`,
      );
    }
    const grey = meta.space === 'b-w' || meta.space === 'grey16';
    at = at.toColourspace(deep ? (grey ? 'grey16' : 'rgb16') : grey ? 'b-w' : 'srgb');
    if (deep) at = at.pipelineColourspace(grey ? 'grey16' : 'rgb16');
    const { data, info } = await at.raw({ depth: deep ? 'ushort' : 'uchar' }).toBuffer({ resolveWithObject: true });
    const values = deep ? new Uint16Array(aligned(data)) : new Uint8Array(data.buffer, data.byteOffset, data.length);
    const channels = info.channels >= 3 ? 3 : 1;
    return {
      data: pick(values, info.channels, channels),
      channels,
      width: info.width,
      height: info.height,
      what: `${label}, ${deep ? 16 : (meta.bitsPerSample ?? 8)} bit${meta.space === 'cmyk' ? ', CMYK' : ''}${meta.hasAlpha ? ', transparent' : ''}`,
    };
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw refuse(
      `${name} can’t be decoded: it is cut short or damaged. Save it again from where it came from; ${ACCEPTED}`,
    );
  }
}

function checkSize(name: string, width: number, height: number): void {
  if (!(width > 0 && height > 0)) throw refuse(`${name} says it has no pixels. ${ACCEPTED}`);
  if (width * height > SHEET_MOST_PIXELS) {
    throw refuse(
      `${name} has ${Math.round((width * height) / 1e6)} million pixels; at most ${SHEET_MOST_PIXELS / 1e6} million are read. Scan it at a lower resolution, or cut it in parts.`,
    );
  }
}

/** Transparent pictures lie on white when what is seen is dark, else on black. */
async function paperFor(bytes: Uint8Array): Promise<string> {
  const { data } = await sharp(bytes, { limitInputPixels: SHEET_MOST_PIXELS })
    .resize(64, 64, { fit: 'inside' })
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  let tone = 0;
  let seen = 0;
  for (let i = 0; i < data.length; i += 4) {
    tone += ((data[i] + data[i + 1] + data[i + 2]) / 765) * data[i + 3];
    seen += data[i + 3];
  }
  return tone < seen / 2 ? '#ffffff' : '#000000';
}

export function aligned(data: Buffer): ArrayBuffer {
  return data.buffer.slice(data.byteOffset, data.byteOffset + data.length) as ArrayBuffer;
}

/** Keeps the first channels. */
function pick<T extends Uint8Array | Uint16Array | Float32Array>(data: T, from: number, to: number): T {
  if (from === to) return data;
  const out = new (data.constructor as new (n: number) => T)((data.length / from) * to);
  for (let i = 0; i < data.length / from; i++) for (let k = 0; k < to; k++) out[i * to + k] = data[i * from + k];
  return out;
}

/** Floats beyond 0–1 are brought into it, lowest to highest; what is no number becomes the lowest. */
function fromFloats(values: Float32Array, width: number, height: number, from: number, what: string): Decoded {
  const channels = from >= 3 ? 3 : 1;
  const data = pick(values, from, channels);
  let low = Infinity;
  let high = -Infinity;
  for (const v of data) {
    if (!Number.isFinite(v)) continue;
    if (v < low) low = v;
    if (v > high) high = v;
  }
  if (!(high >= low)) throw refuse('The picture holds no numbers.');
  const within = low >= 0 && high <= 1;
  const scale = high > low ? 1 / (high - low) : 1;
  for (let i = 0; i < data.length; i++) {
    const v = Number.isFinite(data[i]) ? data[i] : low;
    data[i] = within ? v : (v - low) * scale;
  }
  return { data, channels, width, height, what };
}

async function decodeExr(bytes: Uint8Array, name: string): Promise<Decoded> {
  const { width, height, channels, data } = await readExr(bytes, name);
  // A file of heights alone is answered with planes beside them that it doesn't have.
  const own = exrChannels(bytes).some((name) => ['R', 'G', 'B'].includes(name)) ? channels : 1;
  return fromFloats(own === channels ? data : pick(data, channels, 1), width, height, own, 'EXR, float');
}

export interface ExrPixels {
  width: number;
  height: number;
  channels: number;
  /** Interleaved, first row at the top, as they stand in the file. */
  data: Float32Array;
}

/** Throws a Problem with a sentence that names the file. */
export async function readExr(bytes: Uint8Array, name: string): Promise<ExrPixels> {
  // Loaded when the first one comes.
  const [{ FloatType }, { EXRLoader }] = await Promise.all([
    import('three'),
    import('three/addons/loaders/EXRLoader.js'),
  ]);
  let read: { data: ArrayLike<number>; width: number; height: number };
  try {
    // The size stands in the header; it is looked at before anything is made of it.
    const window = exrWindow(bytes);
    if (!window) throw new Error('no data window');
    checkSize(name, window[0], window[1]);
    const loader = new EXRLoader();
    loader.setDataType(FloatType);
    read = loader.parse(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length) as ArrayBuffer,
    ) as unknown as typeof read;
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw refuse(`${name} can’t be read as EXR: it is cut short, damaged, or of a kind that isn’t known. ${ACCEPTED}`);
  }
  const { width, height } = read;
  const channels = Math.round(read.data.length / (width * height));
  const data = new Float32Array(read.data.length);
  // The reader answers the bottom row first.
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width * channels; i++)
      data[j * width * channels + i] = read.data[(height - 1 - j) * width * channels + i];
  }
  return { width, height, channels, data };
}
