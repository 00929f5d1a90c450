/** Small pictures of what is kept, and the alpha as a 16-bit PNG. Rendered by core, encoded by libvips. */
import sharp from 'sharp';
import { resolveBrush, type AlphaForm } from '#core/brush';
import { fromUint16, pyramid } from '#core/picture';
import { SLAB_SIDE, type Alpha, type Brush, type Source } from '#core/settings';
import { brushThumbnail, shade, THUMBNAIL_SIZE } from '#core/thumbnail';
import type { Database } from './database';
import { Problem } from './problem';
import { getBlob } from './queries/blobs';
import { getDocument } from './queries/documents';

/** The greys of an alpha as stored: little-endian, as is every machine this runs on. */
export async function alphaGreys(db: Database, alpha: Alpha): Promise<Uint16Array> {
  const bytes = await getBlob(db, alpha.blob);
  if (bytes.length !== alpha.size * alpha.size * 2) {
    throw new Problem(422, 'alpha-size', `The picture of “${alpha.card.name}” has ${bytes.length} bytes; ${alpha.size} × ${alpha.size} pixels need ${alpha.size ** 2 * 2}.`);
  }
  return new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2);
}

export async function alphaPng(db: Database, alpha: Alpha): Promise<Buffer> {
  const greys = await alphaGreys(db, alpha);
  return sharp(greys, { raw: { width: alpha.size, height: alpha.size, channels: 1 } }).toColourspace('grey16').png({ compressionLevel: 6 }).toBuffer();
}

export async function alphaPicture(db: Database, alpha: Alpha): Promise<Buffer> {
  const fine = await alphaGreys(db, alpha);
  const greys = new Uint8Array(fine.length);
  for (let i = 0; i < fine.length; i++) greys[i] = fine[i]! >> 8;
  return sharp(greys, { raw: { width: alpha.size, height: alpha.size, channels: 1 } }).resize(THUMBNAIL_SIZE).png().toBuffer();
}

export async function alphaForm(db: Database, id: string | null): Promise<AlphaForm | null> {
  if (id === null) return null;
  const { doc } = await getDocument(db, 'alphas', id);
  return { pyramid: pyramid(fromUint16(await alphaGreys(db, doc), doc.size)), relief: doc.relief };
}

export async function brushPicture(db: Database, brush: Brush): Promise<Buffer> {
  return encode(brushThumbnail(resolveBrush(brush, await alphaForm(db, brush.form.alphaId))), THUMBNAIL_SIZE);
}

/** A slab seen from above, from every few vertices of its grid. */
export async function sourcePicture(db: Database, source: Source): Promise<Buffer> {
  const row = source.cells + 1;
  const step = Math.max(1, Math.floor(source.cells / THUMBNAIL_SIZE));
  const size = Math.floor(source.cells / step);
  const heights = { width: size, height: size, data: new Float32Array(size * size) };
  if (source.blob) {
    const bytes = await getBlob(db, source.blob);
    if (bytes.length !== row * row * 12) throw new Problem(422, 'slab-size', `“${source.card.name}” needs ${row * row} vertices; its data holds ${bytes.length / 12}.`);
    const positions = new Float32Array(bytes.buffer, bytes.byteOffset, row * row * 3);
    for (let j = 0; j < size; j++) {
      for (let i = 0; i < size; i++) heights.data[j * size + i] = positions[((source.cells - j * step) * row + i * step) * 3 + 2]!;
    }
  }
  return encode(shade(heights, SLAB_SIDE / size), size);
}

function encode(rgba: Uint8ClampedArray, size: number): Promise<Buffer> {
  return sharp(rgba, { raw: { width: size, height: size, channels: 4 } }).resize(THUMBNAIL_SIZE, THUMBNAIL_SIZE).removeAlpha().png().toBuffer();
}
