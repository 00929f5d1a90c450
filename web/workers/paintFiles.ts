/**
 * Paintings as files. PNG holds displayed colours, 8 or 16 bits, not multiplied by cover; TIFF and EXR hold light times
 * cover as floats. OpenRaster holds each layer as a PNG (https://www.openraster.org: mimetype first and stored,
 * stack.xml from the topmost, mergedimage.png, a thumbnail): masks are worked into their layers, since it knows none.
 */
import {
  BlobReader,
  BlobWriter,
  TextReader,
  TextWriter,
  Uint8ArrayReader,
  Uint8ArrayWriter,
  ZipReader,
  ZipWriter,
} from '@zip.js/zip.js';
import { decode, encode } from 'fast-png';
import { XMLParser } from 'fast-xml-parser';
import { BLEND_MODES, toLinear, toSrgb, type BlendMode } from '#core/colour';
import { writeExr, writeTiff } from '#core/formats';
import {
  flattened,
  FULL,
  MOST_LAYERS,
  newLayer,
  small,
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

function png(of: Texture, depth: 8 | 16): Uint8Array<ArrayBuffer> {
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
      return png(of, 8);
    case 'png16':
      return png(of, 16);
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

const THUMBNAIL = 256;
const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`).replace(/[^\u0020-\uffff]/g, ' ');

export async function oraFile(size: number, layers: readonly Layer[]): Promise<Blob> {
  const zip = new ZipWriter(new BlobWriter('image/openraster'));
  // First and as it is, so that the kind of the file can be told from its first bytes.
  await zip.add('mimetype', new TextReader('image/openraster'), { level: 0, extendedTimestamp: false });
  const rows: string[] = [];
  for (const [i, layer] of layers.entries()) {
    const own = flattened([{ ...layer, hidden: false, opacity: 1, blend: 'normal', clipped: false }], size);
    await zip.add(`data/layer${i}.png`, new Uint8ArrayReader(png(own, 16)), { level: 0 });
    rows.push(
      `<layer name="${escaped(layer.name)}" src="data/layer${i}.png" x="0" y="0" opacity="${layer.opacity}" visibility="${layer.hidden ? 'hidden' : 'visible'}" composite-op="${operation(layer.blend)}"/>`,
    );
  }
  const stack = `<?xml version="1.0" encoding="UTF-8"?>\n<image version="0.0.3" w="${size}" h="${size}"><stack>\n${rows.reverse().join('\n')}\n</stack></image>\n`;
  await zip.add('stack.xml', new TextReader(stack));
  const all = flattened(layers, size);
  await zip.add('mergedimage.png', new Uint8ArrayReader(png(all, 8)), { level: 0 });
  const side = Math.min(THUMBNAIL, size);
  const data = new Uint8Array(small(all, side));
  const little = encode({ width: side, height: side, data, depth: 8, channels: 4 });
  await zip.add('Thumbnails/thumbnail.png', new Uint8ArrayReader(little), { level: 0 });
  return zip.close();
}

const operation = (mode: BlendMode): string => (mode === 'normal' ? 'svg:src-over' : `svg:${mode}`);

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
  if (!said) throw new Error(`“${name}” is no PNG, or is cut short.`);
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

/** Entries of an archive are at most this many bytes together. */
const MOST_BYTES = 2 ** 31;
interface OraLayer {
  name?: string;
  src?: string;
  x?: string;
  y?: string;
  opacity?: string;
  visibility?: string;
  'composite-op'?: string;
}

/** Throws a sentence where it isn’t OpenRaster, or holds more than a texture may. */
export async function readOra(name: string, file: Blob): Promise<ReadPaint> {
  const zip = new ZipReader(new BlobReader(file));
  const entries = await zip.getEntries().catch(() => {
    throw new Error(`“${name}” can’t be read as OpenRaster: it is broken or cut short.`);
  });
  if (entries.reduce((sum, { uncompressedSize }) => sum + uncompressedSize, 0) > MOST_BYTES)
    throw new Error(`“${name}” unpacks to more than two gigabytes.`);
  const find = (path: string) => entries.find((entry) => entry.filename === path && !entry.directory);
  const stack = find('stack.xml');
  if (!stack || stack.directory || stack.uncompressedSize > 2 ** 20)
    throw new Error(`“${name}” is no OpenRaster file: it has no stack.xml.`);
  const parser = new XMLParser({
    ignoreAttributes: false,
    attributeNamePrefix: '',
    isArray: (tag) => tag === 'layer' || tag === 'stack',
  });
  const { image } = parser.parse(await stack.getData(new TextWriter())) as {
    image?: { w?: string; h?: string; stack?: unknown[] };
  };
  const size = checkSide(name, Number(image?.w), Number(image?.h));
  const found = layersIn(image?.stack ?? []);
  if (found.length === 0) throw new Error(`“${name}” has no layers.`);
  if (found.length > MOST_LAYERS)
    throw new Error(`“${name}” has ${found.length} layers; at most ${MOST_LAYERS} are taken.`);
  const notes: string[] = [];
  const layers: Layer[] = [];
  for (const [i, one] of found.reverse().entries()) {
    const entry = one.src === undefined ? undefined : find(one.src);
    const title = one.name ?? `Layer ${i + 1}`;
    if (!entry || entry.directory) {
      notes.push(`The picture of “${title}” is missing; the layer is empty.`);
      layers.push(newLayer(`ora-${i}`, title));
      continue;
    }
    const bytes = await entry.getData(new Uint8ArrayWriter()).catch(() => {
      throw new Error(`“${name}”: the picture of “${title}” is broken.`);
    });
    if (pngSize(bytes)?.some((side) => side !== size) || Number(one.x ?? 0) !== 0 || Number(one.y ?? 0) !== 0)
      throw new Error(`“${name}”: “${title}” doesn’t cover the whole texture.`);
    const mode = (one['composite-op'] ?? 'svg:src-over').replace(/^svg:/, '').replace(/^src-over$/, 'normal');
    const known = (BLEND_MODES as readonly string[]).includes(mode);
    if (!known) notes.push(`“${title}” blends by ${mode}, which isn’t known; it is Normal here.`);
    const opacity = Number(one.opacity ?? 1);
    layers.push({
      ...newLayer(`ora-${i}`, title.slice(0, 80)),
      tiles: textureOfPng(title, bytes).tiles,
      hidden: one.visibility === 'hidden',
      opacity: opacity >= 0 && opacity <= 1 ? opacity : 1,
      blend: known ? (mode as BlendMode) : 'normal',
    });
  }
  return { size, layers, notes };
}

/** Layers of a stack from the topmost, those of stacks inside it among them. */
function layersIn(stacks: readonly unknown[]): OraLayer[] {
  return stacks.flatMap((stack) => {
    const { layer = [], stack: inner = [] } = (stack ?? {}) as { layer?: OraLayer[]; stack?: unknown[] };
    return [...layer, ...layersIn(inner)];
  });
}
