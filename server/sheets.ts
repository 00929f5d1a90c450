/**
 * Pictures from outside: checked before they are decoded, decoded by libvips (EXR by three's reader) into rows of 8 or
 * 16 bit or float, and read a window at a time. The last one decoded stays in memory for a while, since windows come in runs.
 */
import sharp from 'sharp';
import { FloatType } from 'three';
import { EXRLoader } from 'three/addons/loaders/EXRLoader.js';
import { resize } from '#core/filter';
import { SHEET_MOST_PIXELS } from '#core/settings';
import type { Database } from './database';
import { Problem } from './problem';
import { getBlob } from './queries/blobs';

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

export interface PixelWindow {
  x: number;
  y: number;
  width: number;
  height: number;
  /** The longer side of the answer has at most so many pixels. */
  side: number;
}

const ACCEPTED = 'PNG, JPEG, WebP, TIFF, EXR and SVG pictures are taken.';
const LABELS: Record<string, string> = { png: 'PNG', jpeg: 'JPEG', webp: 'WebP', tiff: 'TIFF', svg: 'SVG' };
/** Drawings without pixels of their own are drawn this large. */
const SVG_SIDE = 4096;
/** Windows may be read at up to this size. */
export const MOST_WINDOW_SIDE = 4096;

const refuse = (sentence: string): Problem => new Problem(422, 'picture', sentence);

/** Throws a Problem with a sentence that names the file. */
export async function decodePicture(bytes: Uint8Array, name: string): Promise<Decoded> {
  if (bytes.length === 0) throw refuse(`${name} is empty. ${ACCEPTED}`);
  if (bytes.length > 4 && Buffer.from(bytes.subarray(0, 4)).readUInt32LE() === 0x01312f76) return decodeExr(bytes, name);
  const meta = await sharp(bytes, { limitInputPixels: false }).metadata().catch(() => {
    throw refuse(`${name} isn’t a picture that can be read: it is broken or of another kind. ${ACCEPTED}`);
  });
  const label = LABELS[meta.format ?? ''];
  if (!label) throw refuse(`${name} is a ${String(meta.format).toUpperCase()} picture. ${ACCEPTED}`);
  const { width, height } = meta.autoOrient;
  checkSize(name, width, height);
  const scale = label === 'SVG' ? SVG_SIDE / Math.max(width, height) : 1;
  const options = { limitInputPixels: SHEET_MOST_PIXELS, failOn: 'truncated' as const, ...(label === 'SVG' ? { density: Math.max(1, Math.min(100_000, 72 * scale)) } : {}) };
  try {
    let at = sharp(bytes, options).autoOrient();
    const deep = meta.depth === 'ushort' || meta.depth === 'short' || meta.depth === 'uint' || meta.depth === 'int';
    const floats = meta.depth === 'float' || meta.depth === 'double';
    if (meta.hasAlpha) at = at.flatten({ background: await paperFor(bytes) });
    if (floats) {
      const { data, info } = await at.raw({ depth: 'float' }).toBuffer({ resolveWithObject: true });
      return fromFloats(new Float32Array(aligned(data)), info.width, info.height, info.channels, `${label}, 32-bit float`);
    }
    const grey = meta.space === 'b-w' || meta.space === 'grey16';
    at = at.toColourspace(deep ? (grey ? 'grey16' : 'rgb16') : grey ? 'b-w' : 'srgb');
    if (deep) at = at.pipelineColourspace(grey ? 'grey16' : 'rgb16');
    const { data, info } = await at.raw({ depth: deep ? 'ushort' : 'uchar' }).toBuffer({ resolveWithObject: true });
    const values = deep ? new Uint16Array(aligned(data)) : new Uint8Array(data.buffer, data.byteOffset, data.length);
    const channels = info.channels >= 3 ? 3 : 1;
    return {
      data: pick(values, info.channels, channels), channels, width: info.width, height: info.height,
      what: `${label}, ${deep ? 16 : meta.bitsPerSample ?? 8} bit${meta.space === 'cmyk' ? ', CMYK' : ''}${meta.hasAlpha ? ', transparent' : ''}`,
    };
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw refuse(`${name} can’t be decoded: it is cut short or damaged. Save it again from where it came from; ${ACCEPTED}`);
  }
}

function checkSize(name: string, width: number, height: number): void {
  if (!(width > 0 && height > 0)) throw refuse(`${name} says it has no pixels. ${ACCEPTED}`);
  if (width * height > SHEET_MOST_PIXELS) {
    throw refuse(`${name} has ${Math.round((width * height) / 1e6)} million pixels; at most ${SHEET_MOST_PIXELS / 1e6} million are read. Scan it at a lower resolution, or cut it in parts.`);
  }
}

/** Transparent pictures lie on white when what is seen is dark, else on black. */
async function paperFor(bytes: Uint8Array): Promise<string> {
  const { data } = await sharp(bytes, { limitInputPixels: SHEET_MOST_PIXELS }).resize(64, 64, { fit: 'inside' }).toColourspace('srgb').ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  let tone = 0;
  let seen = 0;
  for (let i = 0; i < data.length; i += 4) {
    tone += ((data[i]! + data[i + 1]! + data[i + 2]!) / 765) * data[i + 3]!;
    seen += data[i + 3]!;
  }
  return tone < seen / 2 ? '#ffffff' : '#000000';
}

function aligned(data: Buffer): ArrayBuffer {
  return data.buffer.slice(data.byteOffset, data.byteOffset + data.length) as ArrayBuffer;
}

/** Keeps the first channels. */
function pick<T extends Uint8Array | Uint16Array | Float32Array>(data: T, from: number, to: number): T {
  if (from === to) return data;
  const out = new (data.constructor as new (n: number) => T)((data.length / from) * to);
  for (let i = 0; i < data.length / from; i++) for (let k = 0; k < to; k++) out[i * to + k] = data[i * from + k]!;
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
    const v = Number.isFinite(data[i]!) ? data[i]! : low;
    data[i] = within ? v : (v - low) * scale;
  }
  return { data, channels, width, height, what };
}

function decodeExr(bytes: Uint8Array, name: string): Decoded {
  let read: { data: ArrayLike<number>; width: number; height: number };
  try {
    // The size stands in the header; it is looked at before anything is made of it.
    const window = exrWindow(bytes);
    if (window) checkSize(name, window[0], window[1]);
    const loader = new EXRLoader();
    loader.setDataType(FloatType);
    read = loader.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length) as ArrayBuffer) as unknown as typeof read;
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw refuse(`${name} can’t be read as EXR: it is cut short, damaged, or of a kind that isn’t known. ${ACCEPTED}`);
  }
  const { width, height } = read;
  const channels = Math.round(read.data.length / (width * height));
  const rows = new Float32Array(read.data.length);
  // The reader answers the bottom row first.
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width * channels; i++) rows[j * width * channels + i] = read.data[(height - 1 - j) * width * channels + i]!;
  }
  return fromFloats(rows, width, height, channels, 'EXR, float');
}

/** Width and height of the data window; null where the header has none. */
function exrWindow(bytes: Uint8Array): [number, number] | null {
  const head = Buffer.from(bytes.buffer, bytes.byteOffset, Math.min(bytes.length, 65536));
  const at = head.indexOf('dataWindow\0box2i\0', 0, 'latin1');
  if (at < 0 || at + 37 > head.length) return null;
  const box = at + 'dataWindow\0box2i\0'.length + 4;
  return [head.readInt32LE(box + 8) - head.readInt32LE(box) + 1, head.readInt32LE(box + 12) - head.readInt32LE(box + 4) + 1];
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
  const width = Math.max(1, Math.round((right - left) * scale));
  const height = Math.max(1, Math.round((bottom - top) * scale));
  const whole = right - left === from.width && bottom - top === from.height;
  const data = await resampled(whole ? from : cut(from, left, top, right - left, bottom - top), width, height, from.channels);
  const before: [number, number] = [Math.round(Math.max(0, -window.x) * scale), Math.round(Math.max(0, -window.y) * scale)];
  const after: [number, number] = [Math.round(Math.max(0, window.x + window.width - from.width) * scale), Math.round(Math.max(0, window.y + window.height - from.height) * scale)];
  return padded({ width, height, channels: from.channels, data }, before, after);
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
      const plane = { width: from.width, height: from.height, data: Float32Array.from({ length: from.width * from.height }, (_, i) => data[i * channels + k]!) };
      resize(plane, width, height).data.forEach((v, i) => (out[i * channels + k] = v));
    }
    return out;
  }
  const deep = data instanceof Uint16Array;
  if (same) return deep ? data : widened(data);
  const space = channels === 3 ? (deep ? 'rgb16' : 'srgb') : deep ? 'grey16' : 'b-w';
  let at = sharp(data, { raw: { width: from.width, height: from.height, channels }, limitInputPixels: false });
  if (deep) at = at.pipelineColourspace(space);
  const bytes = await at.toColourspace(space).resize(width, height, { fit: 'fill', kernel: 'cubic' }).raw({ depth: deep ? 'ushort' : 'uchar' }).toBuffer();
  return deep ? new Uint16Array(aligned(bytes)) : widened(bytes);
}

function widened(bytes: Uint8Array): Uint16Array {
  const out = new Uint16Array(bytes.length);
  for (let i = 0; i < out.length; i++) out[i] = bytes[i]! * 257;
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
      for (let k = 0; k < p.channels; k++) data[(j * width + i) * p.channels + k] = p.data[(row * p.width + column) * p.channels + k]!;
    }
  }
  return { width, height, channels: p.channels, data };
}

let last: { hash: string; decoded: Promise<Decoded> } | null = null;
let forgetting: NodeJS.Timeout | undefined;
const KEPT_MS = 180_000;

export function keepDecoded(hash: string, decoded: Promise<Decoded>): Promise<Decoded> {
  last = { hash, decoded };
  clearTimeout(forgetting);
  forgetting = setTimeout(() => (last = null), KEPT_MS);
  forgetting.unref();
  return decoded;
}

/** The picture kept under this name, decoded. */
export function sheetOf(db: Database, hash: string, name: string): Promise<Decoded> {
  if (last?.hash === hash) return keepDecoded(hash, last.decoded);
  const decoded = getBlob(db, hash).then((bytes) => decodePicture(bytes, name));
  decoded.catch(() => (last = null));
  return keepDecoded(hash, decoded);
}

/** An 8-bit picture for looking at, its longer side at most `side`. */
export async function previewOf(from: Decoded, side: number): Promise<Buffer> {
  const { data, width, height, channels } = await readWindow(from, { x: 0, y: 0, width: from.width, height: from.height, side });
  const scale = data instanceof Float32Array ? 255 : 1 / 257;
  const shown = new Uint8ClampedArray(data.length);
  for (let i = 0; i < data.length; i++) shown[i] = data[i]! * scale;
  return sharp(shown, { raw: { width, height, channels } }).jpeg({ quality: 92 }).toBuffer();
}
