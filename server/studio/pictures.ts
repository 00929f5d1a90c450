/** Small pictures of what is kept, and the alpha as a 16-bit PNG. Rendered by core, encoded by libvips. */
import { promisify } from 'node:util';
import { deflate } from 'node:zlib';
import sharp from 'sharp';
import { alphaForm, alphaHeights, resolveBrush, vectorChannels, withColours, type AlphaForm } from '#core/brush';
import { readMesh, RELIEF_KEY, reliefText, withPngRelief, writeExr, writeTiff } from '#core/formats';
import { growPattern } from '#core/pattern';
import { toUint16, type Picture } from '#core/picture';
import { seatOf, stood } from '#core/part';
import type { AlphaHead, PartHead } from '#core/stored';
import { paints, SLAB_SIDE, type Brush, type Slab, type Source } from '#core/settings';
import { brushThumbnail, meshPicture, shade, THUMBNAIL_SIZE } from '#core/thumbnail';
import { Problem } from '../problem';
import type { Blobs } from './blobs';
import { decodePicture } from './decode';
import type { Desk } from './desk';
import { previewOf } from './window';

/** An alpha's stored bytes, in a buffer of their own. */
async function alphaBytes(blobs: Blobs, alpha: AlphaHead): Promise<ArrayBuffer> {
  return exact(await blobs(alpha.blob));
}

function exact(bytes: Uint8Array): ArrayBuffer {
  return bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
}

/** Reads an alpha's bytes; says so in a sentence where they are not what the alpha needs. */
async function readAlpha<T>(blobs: Blobs, alpha: AlphaHead, read: (bytes: ArrayBuffer) => T): Promise<T> {
  const bytes = await alphaBytes(blobs, alpha);
  try {
    return read(bytes);
  } catch (error) {
    throw new Problem(422, 'alpha-size', `“${alpha.card.name}” can’t be read. ${(error as Error).message}`);
  }
}

/** Of a picture of one’s own, so that a small file can’t unfold into a huge one; and what lies under a clear one. */
const MOST_OWN_PIXELS = 2048 * 2048;
const OWN_GROUND = '#b0afac';

const deflated = promisify(deflate);
const squeeze = (bytes: Uint8Array): Promise<Uint8Array> => deflated(bytes, { level: 6 });

/** The alpha as a file: 16-bit PNG of its heights. */
export async function alphaPng(blobs: Blobs, alpha: AlphaHead): Promise<Uint8Array> {
  const greys = toUint16(await readAlpha(blobs, alpha, (bytes) => alphaHeights(alpha, bytes)));
  return withPngRelief(await encodePng16(greys, alpha.size), alpha.relief);
}

/** Written by libvips. */
export function encodePng16(greys: Uint16Array, size: number): Promise<Buffer> {
  return sharp(greys, { raw: { width: size, height: size, channels: 1 } })
    .toColourspace('grey16')
    .png({ compressionLevel: 6 })
    .toBuffer();
}

/** 32-bit float TIFF of its heights. */
export async function alphaTiff(blobs: Blobs, alpha: AlphaHead): Promise<Uint8Array> {
  const { width, height, data } = await readAlpha(blobs, alpha, (bytes) => alphaHeights(alpha, bytes));
  return writeTiff(width, height, data, squeeze, reliefText(alpha.relief));
}

/** Float EXR: Y for heights, R, G and B for offsets right, up and out. */
export async function alphaExr(blobs: Blobs, alpha: AlphaHead): Promise<Uint8Array> {
  const channels = await readAlpha(blobs, alpha, (bytes): Record<string, Float32Array> => {
    if (alpha.format !== 'vector32f') return { Y: alphaHeights(alpha, bytes).data };
    const [x, y, z] = vectorChannels(alpha, bytes);
    return { R: x.data, G: y.data, B: z.data };
  });
  return writeExr(
    { width: alpha.size, height: alpha.size, channels, says: { [RELIEF_KEY]: String(alpha.relief) } },
    squeeze,
  );
}

/** The colours that were cast beside its heights, as PNG. */
export async function alphaColours(blobs: Blobs, { card, lineage }: AlphaHead): Promise<Uint8Array> {
  if (!lineage.colours) throw new Problem(404, 'no-colours', `“${card.name}” has no colours beside its heights.`);
  const { blob, size } = lineage.colours;
  return sharp(await blobs(blob), { raw: { width: size, height: size, channels: 4 } })
    .png()
    .toBuffer();
}

export async function alphaPicture(desk: Desk, alpha: AlphaHead): Promise<Buffer> {
  const { pyramid } = await readForm(desk, alpha);
  // The smallest copy that is still larger than the picture.
  const { width, height, data } =
    pyramid.levels.findLast((level) => level.width >= THUMBNAIL_SIZE) ?? pyramid.levels[0];
  return greyPicture({ width, height, data });
}

async function readForm({ blobs, recent }: Desk, alpha: AlphaHead): Promise<AlphaForm> {
  const form = await recent.forms.of(`${alpha.blob} ${alpha.format} ${alpha.size}`, () =>
    readAlpha(blobs, alpha, (bytes) => alphaForm(alpha, bytes)),
  );
  return { ...form, relief: alpha.relief };
}

/** The alphas that a brush names; null where it names none, or they are gone. */
export interface BrushForms {
  form: AlphaHead | null;
  tooth: AlphaHead | null;
  /** The first part of its set, where it sets parts down. */
  part: PartHead | null;
}

/** Null where it can’t be read: its stroke is drawn then. */
async function ownPicture(url: string): Promise<Buffer | null> {
  try {
    return await sharp(Buffer.from(url.slice(url.indexOf(',') + 1), 'base64'), { limitInputPixels: MOST_OWN_PIXELS })
      .resize(THUMBNAIL_SIZE, THUMBNAIL_SIZE, { fit: 'cover' })
      .flatten({ background: OWN_GROUND })
      .png()
      .toBuffer();
  } catch {
    return null;
  }
}

export async function brushPicture(desk: Desk, brush: Brush, { form, tooth, part }: BrushForms): Promise<Buffer> {
  const own = brush.thumbnail.own && (await ownPicture(brush.thumbnail.own));
  if (own) return own;
  if (part && brush.touch.action === 'insert') return partPicture(desk, part);
  const of = (alpha: AlphaHead | null): Promise<AlphaForm> | null => alpha && readForm(desk, alpha);
  const colours = paints(brush) ? form?.lineage.colours : null;
  const shape = await of(form);
  const coloured =
    shape && colours ? withColours(shape, colours.size, new Uint8Array(await desk.blobs(colours.blob))) : shape;
  return encode(brushThumbnail(resolveBrush(brush, coloured, await of(tooth)), brush.thumbnail), THUMBNAIL_SIZE);
}

/** A part as it is seen from where its up points. */
export async function partPicture({ blobs }: Desk, part: PartHead): Promise<Buffer> {
  const mesh = stood(readMesh(exact(await blobs(part.mesh))), seatOf(part.seat));
  return encode(meshPicture(mesh, 2 * THUMBNAIL_SIZE), 2 * THUMBNAIL_SIZE);
}

export async function sourcePicture(desk: Desk, source: Source): Promise<Buffer> {
  const { blobs } = desk;
  switch (source.kind) {
    case 'slab':
      return slabPicture(blobs, source);
    case 'sheet':
      return sharp(
        await previewOf(await decodePicture(await blobs(source.file.blob), source.file.name), 2 * THUMBNAIL_SIZE),
      )
        .resize(THUMBNAIL_SIZE, THUMBNAIL_SIZE, { fit: 'cover' })
        .png()
        .toBuffer();
    case 'scan':
      return encode(meshPicture(readMesh(exact(await blobs(source.mesh))), 2 * THUMBNAIL_SIZE), 2 * THUMBNAIL_SIZE);
    case 'lettering': {
      // Fonts are loaded when the first one is wanted.
      const { letteringPicture } = await import('./fonts');
      return greyPicture(await letteringPicture(desk, source, THUMBNAIL_SIZE * 2));
    }
    case 'pattern':
      return greyPicture(growPattern(source.grow, THUMBNAIL_SIZE * 2));
  }
}

function greyPicture({ width, height, data }: Picture): Promise<Buffer> {
  return sharp(
    Uint8Array.from(data, (h) => h * 255),
    { raw: { width, height, channels: 1 } },
  )
    .resize(THUMBNAIL_SIZE, THUMBNAIL_SIZE)
    .png()
    .toBuffer();
}

/** A slab seen from above, from every few vertices of its grid. */
async function slabPicture(blobs: Blobs, source: Slab): Promise<Buffer> {
  const row = source.cells + 1;
  const step = Math.max(1, Math.floor(source.cells / THUMBNAIL_SIZE));
  const size = Math.floor(source.cells / step);
  const heights = { width: size, height: size, data: new Float32Array(size * size) };
  if (source.blob) {
    const bytes = await blobs(source.blob);
    if (bytes.length !== row * row * 12)
      throw new Problem(
        422,
        'slab-size',
        `“${source.card.name}” needs ${row * row} vertices; its data holds ${bytes.length / 12}.`,
      );
    const positions = new Float32Array(bytes.buffer, bytes.byteOffset, row * row * 3);
    for (let j = 0; j < size; j++) {
      for (let i = 0; i < size; i++)
        heights.data[j * size + i] = positions[((source.cells - j * step) * row + i * step) * 3 + 2];
    }
  }
  return encode(shade(heights, SLAB_SIDE / size), size);
}

function encode(rgba: Uint8ClampedArray, size: number): Promise<Buffer> {
  return sharp(rgba, { raw: { width: size, height: size, channels: 4 } })
    .resize(THUMBNAIL_SIZE, THUMBNAIL_SIZE)
    .removeAlpha()
    .png()
    .toBuffer();
}
