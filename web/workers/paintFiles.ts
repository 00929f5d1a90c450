/**
 * Paintings as files. PNG holds displayed colours, 8 or 16 bits, not multiplied by cover; TIFF and EXR hold light times
 * cover as floats.
 */
import { decode, encode } from 'fast-png';
import { toLinear, toSrgb } from '#core/colour';
import { writeExr, writeTiff } from '#core/formats';
import {
  FULL,
  TEXTURE_SIZES,
  TILE,
  tilesAcross,
  touchTile,
  tileAt,
  wordAt,
  type Layer,
  type Texture,
} from '#core/paint';

export const PAINT_FILES = ['png8', 'png16', 'tiff', 'exr'] as const;
export type PaintFile = (typeof PAINT_FILES)[number];
export const PAINT_ENDINGS: Record<PaintFile | 'ora', string> = {
  png8: 'png',
  png16: 'png',
  tiff: 'tiff',
  exr: 'exr',
  ora: 'ora',
};

/** Displayed values of light, 0–65535. */
const SHOWN = Uint16Array.from({ length: FULL + 1 }, (_, i) => Math.round(toSrgb(i / FULL) * FULL));
const LIGHT = Float32Array.from({ length: FULL + 1 }, (_, i) => toLinear(i / FULL));

/** Red, green, blue and cover, 16 bits, not multiplied, row by row from the top. */
export function wordsOf(of: Texture): Uint16Array {
  const { size } = of;
  const out = new Uint16Array(size * size * 4);
  eachTile(of, (words, from, to) => {
    const alpha = words[from + 3];
    if (alpha === 0) return;
    for (let k = 0; k < 3; k++) out[to + k] = SHOWN[Math.min(FULL, Math.round((words[from + k] / alpha) * FULL))];
    out[to + 3] = alpha;
  });
  return out;
}

/** Light times cover, and cover, 0–1. */
function floatsOf(of: Texture): Float32Array {
  const out = new Float32Array(of.size * of.size * 4);
  eachTile(of, (words, from, to) => {
    for (let k = 0; k < 4; k++) out[to + k] = words[from + k] / FULL;
  });
  return out;
}

function eachTile({ size, tiles }: Texture, visit: (words: Uint16Array, from: number, to: number) => void): void {
  const across = tilesAcross({ size });
  for (const [tile, words] of tiles) {
    const [left, top] = [(tile % across) * TILE, Math.floor(tile / across) * TILE];
    for (let i = 0; i < TILE * TILE; i++) visit(words, i * 4, ((top + (i >> 6)) * size + left + (i % TILE)) * 4);
  }
}

export function pngOf(of: Texture, depth: 8 | 16): Uint8Array<ArrayBuffer> {
  const words = wordsOf(of);
  const data = depth === 16 ? words : Uint8Array.from(words, (word) => Math.round(word / 257));
  return encode({ width: of.size, height: of.size, data, depth, channels: 4 }) as Uint8Array<ArrayBuffer>;
}

async function deflated(bytes: Uint8Array<ArrayBuffer>): Promise<Uint8Array> {
  const stream = new Blob([bytes]).stream().pipeThrough(new CompressionStream('deflate'));
  return new Uint8Array(await new Response(stream).arrayBuffer());
}

export async function paintFile(kind: PaintFile, of: Texture): Promise<Uint8Array<ArrayBuffer>> {
  const { size } = of;
  switch (kind) {
    case 'png8':
      return pngOf(of, 8);
    case 'png16':
      return pngOf(of, 16);
    case 'tiff':
      return writeTiff(size, size, floatsOf(of), deflated);
    case 'exr': {
      const floats = floatsOf(of);
      const plane = (k: number): Float32Array =>
        Float32Array.from({ length: size * size }, (_, i) => floats[i * 4 + k]);
      return writeExr(
        { width: size, height: size, channels: { R: plane(0), G: plane(1), B: plane(2), A: plane(3) } },
        deflated,
      );
    }
  }
}

/** What a file of colours holds: layers from the lowest. */
export interface ReadPaint {
  size: number;
  layers: Layer[];
  /** What was left out or changed, in sentences. */
  notes: string[];
}

const MOST_SIDE = Math.max(...TEXTURE_SIZES);

/** Refuses what can’t be a texture, before it is unpacked. */
export function checkSide(name: string, width: number, height: number): number {
  if (width > MOST_SIDE || height > MOST_SIDE)
    throw new Error(
      `“${name}” has ${width} × ${height} pixels; a texture has at most ${MOST_SIDE} a side, so that it fits the memory of a graphics card.`,
    );
  if (width !== height) throw new Error(`“${name}” has ${width} × ${height} pixels; a texture is square.`);
  if (!(TEXTURE_SIZES as readonly number[]).includes(width))
    throw new Error(`“${name}” is ${width} pixels a side; a texture is ${TEXTURE_SIZES.join(', ')}.`);
  return width;
}

/** Width and height as the header of a PNG says. */
export function pngSize(bytes: Uint8Array): readonly [number, number] | null {
  if (bytes.length < 24 || bytes[0] !== 0x89 || bytes[1] !== 0x50) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  return [view.getUint32(16), view.getUint32(20)];
}

/** The texture of a PNG, of one of the sizes that textures have. Throws a sentence. */
export function textureOfPng(name: string, bytes: Uint8Array): Texture {
  const said = pngSize(bytes);
  if (!said) throw new Error(`“${name}” isn’t a PNG, or is cut short.`);
  const size = checkSide(name, ...said);
  let read: ReturnType<typeof decode>;
  try {
    read = decode(bytes);
  } catch {
    throw new Error(`“${name}” can’t be read as PNG: it is broken or cut short.`);
  }
  const { data, channels, depth, palette } = read;
  const most = 2 ** depth - 1;
  const at = (i: number, k: number): number => {
    if (palette) return Math.round((((palette[data[i]] ?? [0, 0, 0])[k] ?? 255) / 255) * FULL);
    const colour = channels < 3 ? 0 : k;
    const index = k === 3 ? (channels === 2 ? 1 : channels === 4 ? 3 : -1) : colour;
    return index < 0 ? FULL : Math.round((data[i * channels + index] / most) * FULL);
  };
  return textureOfWords(size, at);
}

/** `at` answers displayed colours and cover, not multiplied, 0–65535, of each pixel row by row. */
export function textureOfWords(size: number, at: (pixel: number, channel: number) => number): Texture {
  const out: Texture = { size, tiles: new Map() };
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const alpha = at(y * size + x, 3);
      if (alpha === 0) continue;
      const words = touchTile(out, tileAt(out, x, y));
      const word = wordAt(x, y);
      for (let k = 0; k < 3; k++) words[word + k] = Math.round(LIGHT[at(y * size + x, k)] * alpha);
      words[word + 3] = alpha;
    }
  return out;
}
