/**
 * The relief of a cast inside its picture file, so that it comes back with it: a text chunk of a PNG, the description
 * of a TIFF, an attribute of an EXR, each as a decimal number that reads back to the same one.
 *
 * Sources: "Portable Network Graphics Specification", W3C; "TIFF Revision 6.0", tag 270; "OpenEXR File Layout".
 */

import { crc32 } from './crc32';

export const RELIEF_KEY = 'relief';

/** Puts its relief behind the header of a PNG. */
export function withPngRelief(png: Uint8Array, relief: number): Uint8Array<ArrayBuffer> {
  return withPngText(png, { [RELIEF_KEY]: String(relief) });
}

/** Puts text chunks behind the header of a PNG: plain ones, and those in UTF-8 where Latin letters don’t do. */
export function withPngText(png: Uint8Array, says: Readonly<Record<string, string>>): Uint8Array<ArrayBuffer> {
  const chunks = textChunks(says);
  // Signature, then the header chunk of 25 bytes.
  const at = 8 + 25;
  const out = new Uint8Array(png.length + chunks.reduce((sum, { length }) => sum + length, 0));
  out.set(png.subarray(0, at));
  let to = at;
  for (const chunk of chunks) {
    out.set(chunk, to);
    to += chunk.length;
  }
  out.set(png.subarray(at), to);
  return out;
}

export const textChunks = (says: Readonly<Record<string, string>>): Uint8Array[] =>
  Object.entries(says).map(([key, value]) => textChunk(key, value));

function textChunk(key: string, value: string): Uint8Array {
  const plain = /^[\u0020-\u007e\u00a1-\u00ff\n]*$/.test(value);
  const text = plain
    ? latin(`${key}\0${value}`)
    : // Not packed, of no language.
      Uint8Array.from([...latin(`${key}\0\0\0\0\0`), ...new TextEncoder().encode(value)]);
  const chunk = new Uint8Array(12 + text.length);
  const view = new DataView(chunk.buffer);
  view.setUint32(0, text.length);
  chunk.set(latin(plain ? 'tEXt' : 'iTXt'), 4);
  chunk.set(text, 8);
  view.setUint32(8 + text.length, crc32(chunk.subarray(4, 8 + text.length)));
  return chunk;
}

export function reliefText(relief: number): string {
  return `${RELIEF_KEY}=${relief}`;
}

/** The relief that a PNG, TIFF or EXR file says it has; null where it says none, or none that can be. */
export function reliefIn(bytes: Uint8Array): number | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  try {
    const found = isPng(bytes)
      ? pngText(bytes, view)
      : isTiff(bytes)
        ? tiffText(bytes, view)
        : isExr(bytes)
          ? exrText(bytes, view)
          : null;
    const relief = found === null || found.trim() === '' ? NaN : Number(found);
    return relief > 0 && relief <= 100 ? relief : null;
  } catch {
    // A file that ends in the middle of what it says about itself says nothing.
    return null;
  }
}

const isPng = (b: Uint8Array): boolean => b[0] === 0x89 && b[1] === 0x50 && b[2] === 0x4e && b[3] === 0x47;
const isTiff = (b: Uint8Array): boolean =>
  (b[0] === 0x49 && b[1] === 0x49 && b[2] === 42) || (b[0] === 0x4d && b[1] === 0x4d && b[3] === 42);
export const isExr = (b: Uint8Array): boolean => b[0] === 0x76 && b[1] === 0x2f && b[2] === 0x31 && b[3] === 0x01;

function pngText(bytes: Uint8Array, view: DataView): string | null {
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = view.getUint32(at);
    const type = text(bytes, at + 4, at + 8);
    if (type === 'IDAT' || at + 12 + length > bytes.length) return null;
    if (type === 'tEXt') {
      const [key, value] = text(bytes, at + 8, at + 8 + length).split('\0');
      if (key === RELIEF_KEY) return value ?? null;
    }
    at += 12 + length;
  }
  return null;
}

function tiffText(bytes: Uint8Array, view: DataView): string | null {
  const little = bytes[0] === 0x49;
  const directory = view.getUint32(4, little);
  const count = view.getUint16(directory, little);
  for (let i = 0; i < count; i++) {
    const entry = directory + 2 + i * 12;
    if (view.getUint16(entry, little) !== 270) continue;
    const length = view.getUint32(entry + 4, little);
    const at = length <= 4 ? entry + 8 : view.getUint32(entry + 8, little);
    return (
      new RegExp(`(?:^|\\s)${RELIEF_KEY}=([\\d.e+-]+)`).exec(
        text(bytes, at, Math.min(bytes.length, at + length)),
      )?.[1] ?? null
    );
  }
  return null;
}

function exrText(bytes: Uint8Array, view: DataView): string | null {
  const found = exrAttribute(bytes, view, RELIEF_KEY, 'string');
  return found && text(bytes, found.at, found.at + found.size);
}

/** Names of the channels of an EXR, in the file's order; none where the header can't be read. */
export function exrChannels(bytes: Uint8Array): string[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const names: string[] = [];
  try {
    const found = exrAttribute(bytes, view, 'channels', 'chlist');
    for (let at = found?.at ?? bytes.length; at < bytes.length && bytes[at] !== 0 && names.length < MOST_ATTRIBUTES;) {
      const from = at;
      while (at < bytes.length && bytes[at] !== 0) at++;
      names.push(text(bytes, from, at));
      at += 17;
    }
  } catch {
    // As far as it could be read.
  }
  return names;
}

/** Width and height of an EXR’s data window; null where its header has none, or doesn’t end within the file. */
export function exrWindow(bytes: Uint8Array): [number, number] | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  try {
    const all = [...exrAttributes(bytes, view)];
    const found = all.find(({ name, type }) => name === 'dataWindow' && type === 'box2i');
    if (!found) return null;
    return [
      view.getInt32(found.at + 8, true) - view.getInt32(found.at, true) + 1,
      view.getInt32(found.at + 12, true) - view.getInt32(found.at + 4, true) + 1,
    ];
  } catch {
    return null;
  }
}

const MOST_ATTRIBUTES = 200;

interface Attribute {
  name: string;
  type: string;
  at: number;
  size: number;
}

/** Throws where the header is cut short. */
function* exrAttributes(bytes: Uint8Array, view: DataView): Generator<Attribute> {
  let at = 8;
  const word = (): string => {
    const from = at;
    while (at < bytes.length && bytes[at] !== 0) at++;
    if (at >= bytes.length) throw new Error('The header is cut short.');
    return text(bytes, from, at++);
  };
  for (let n = 0; n < MOST_ATTRIBUTES; n++) {
    const name = word();
    if (name === '') return;
    const type = word();
    const size = view.getUint32(at, true);
    at += 4;
    yield { name, type, at, size };
    at += size;
  }
}

function exrAttribute(bytes: Uint8Array, view: DataView, wanted: string, kind: string): Attribute | null {
  for (const one of exrAttributes(bytes, view)) if (one.name === wanted && one.type === kind) return one;
  return null;
}

function text(bytes: Uint8Array, from: number, to: number): string {
  let out = '';
  for (let i = from; i < Math.min(to, from + 4096, bytes.length); i++) out += String.fromCharCode(bytes[i]);
  return out;
}

function latin(word: string): Uint8Array {
  return Uint8Array.from(word, (c) => c.charCodeAt(0));
}
