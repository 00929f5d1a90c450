/**
 * Pictures from outside: checked before they are decoded, decoded by libvips (EXR by three's reader) into rows of 8 or
 * 16 bit or float. Runs where it can be ended: what a damaged file makes a reader do is not known beforehand.
 */
import sharp, { type Sharp } from 'sharp';
import { exrChannels, exrWindow } from '#core/formats';
import { SHEET_MOST_PIXELS } from '#core/settings';
import { Problem } from '../problem';
import { unreadKind } from './kinds';
import { oddSamples, readSamples, sampleKind, type Samples } from './samples';
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
  const unread = unreadKind(bytes);
  if (unread) throw refuse(`${name} is ${unread}. ${ACCEPTED}`);
  if (isDrawing(bytes)) bytes = boundedDrawing(bytes, name, SVG_SIDE);
  const odd = oddSamples(bytes);
  if (odd) {
    checkSize(name, odd.width, odd.height);
    return fromSamples(bytes, name, sampleKind(odd));
  }
  const meta = await sharp(bytes, { limitInputPixels: false })
    .metadata()
    .catch(() => {
      // These have no signature: only what can't be read as anything else is taken at its name.
      if (/\.tga$/i.test(name)) throw refuse(`${name} is a TGA picture. ${ACCEPTED}`);
      throw refuse(`${name} isn’t a picture that can be read: it is broken or of another kind. ${ACCEPTED}`);
    });
  const label = LABELS[meta.format ?? ''];
  if (!label) throw refuse(`${name} is a ${String(meta.format).toUpperCase()} picture. ${ACCEPTED}`);
  const { width, height } = meta.autoOrient;
  checkSize(name, width, height);
  const grey = meta.space === 'b-w' || meta.space === 'grey16';
  // Greys are heights: a profile, which is for looking at them, would move them.
  const options = { limitInputPixels: SHEET_MOST_PIXELS, failOn: 'truncated' as const, ignoreIcc: grey };
  try {
    const at = sharp(bytes, options).autoOrient();
    const depth = meta.depth ?? 'uchar';
    if (depth === 'float' || depth === 'uint' || depth === 'int' || depth === 'char') {
      const own = at.pipelineColourspace(meta.space).toColourspace(meta.space);
      const { data, info } = await own.raw({ depth: 'float' }).toBuffer({ resolveWithObject: true });
      const values = new Float32Array(aligned(data));
      // Whole numbers without a sign fill their own range, as those of 16 bits do.
      if (depth === 'uint') for (let i = 0; i < values.length; i++) values[i] /= 0xffffffff;
      const kind =
        depth === 'float' ? '32-bit float' : `${meta.bitsPerSample ?? 32} bit${depth === 'uint' ? '' : ' with a sign'}`;
      return fromFloats(values, info.width, info.height, info.channels, `${label}, ${kind}`);
    }
    const deep = depth === 'ushort';
    const said = `${label}, ${deep ? 16 : (meta.bitsPerSample ?? 8)} bit${meta.space === 'cmyk' ? ', CMYK' : ''}${meta.hasAlpha ? ', transparent' : ''}`;
    if (meta.hasAlpha) return await onPaper(at, { deep, grey, paper: await paperFor(bytes), what: said });
    const space = deep ? (grey ? 'grey16' : 'rgb16') : grey ? 'b-w' : 'srgb';
    const own = (deep ? at.pipelineColourspace(space) : at).toColourspace(space);
    const { data, info } = await own.raw({ depth: deep ? 'ushort' : 'uchar' }).toBuffer({ resolveWithObject: true });
    const values = deep ? new Uint16Array(aligned(data)) : new Uint8Array(data.buffer, data.byteOffset, data.length);
    const channels = info.channels >= 3 ? 3 : 1;
    return {
      data: pick(values, info.channels, channels),
      channels,
      width: info.width,
      height: info.height,
      what: said,
    };
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw refuse(
      `${name} can’t be decoded: it is cut short or damaged. Save it again from where it came from; ${ACCEPTED}`,
    );
  }
}

/** A transparent picture laid on its paper, in whole numbers of its own depth. */
async function onPaper(
  from: Sharp,
  { deep, grey, paper, what }: { deep: boolean; grey: boolean; paper: 0 | 1; what: string },
): Promise<Decoded> {
  const own = deep ? from.pipelineColourspace('rgb16').toColourspace('rgb16') : from.toColourspace('srgb');
  const { data, info } = await own
    .ensureAlpha()
    .raw({ depth: deep ? 'ushort' : 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const read = deep ? new Uint16Array(aligned(data)) : new Uint8Array(data.buffer, data.byteOffset, data.length);
  const most = deep ? 65535 : 255;
  const channels = grey ? 1 : 3;
  const pixels = info.width * info.height;
  const out = deep ? new Uint16Array(pixels * channels) : new Uint8Array(pixels * channels);
  for (let i = 0; i < pixels; i++) {
    const cover = read[i * 4 + 3] / most;
    for (let k = 0; k < channels; k++)
      out[i * channels + k] = Math.round(read[i * 4 + k] * cover + paper * most * (1 - cover));
  }
  return { data: out, channels, width: info.width, height: info.height, what };
}

/** Throws a Problem that names the kind of sample. */
function fromSamples(bytes: Uint8Array, name: string, kind: string): Decoded {
  let read: Samples;
  try {
    read = readSamples(bytes);
  } catch {
    throw refuse(
      `${name} is a TIFF of ${kind}, packed in a way that can’t be read, or cut short. Save it uncompressed, or as 32-bit float.`,
    );
  }
  const { width, height, data, channels, cover } = read;
  const planes = cover ? channels - 1 : channels;
  const out = new Float32Array(width * height * planes);
  for (let i = 0; i < width * height; i++)
    for (let k = 0; k < planes; k++) {
      const value = read.inverted ? -data[i * channels + k] : data[i * channels + k];
      // What is clear has no height; it becomes the lowest.
      out[i * planes + k] = cover && !(data[i * channels + planes] > 0) ? NaN : value;
    }
  return fromFloats(out, width, height, planes, read.what);
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
async function paperFor(bytes: Uint8Array): Promise<0 | 1> {
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
  return tone < seen / 2 ? 1 : 0;
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
  return { data, channels, width, height, what: within ? what : `${what}, from ${told(low)} to ${told(high)}` };
}

const told = (value: number): string => String(Number(value.toPrecision(4))).replace('-', '−');

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
