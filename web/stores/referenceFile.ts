/**
 * A picture file as a reference: checked by its header before it is decoded, shrunk to what is kept, written as WebP.
 * Throws sentences that can be shown.
 */
import { imageSize } from 'image-size';
import { REFERENCE_MOST_PIXELS, REFERENCE_SIDE } from '#core/settings';

export interface ReferencePicture {
  bytes: Uint8Array<ArrayBuffer>;
  width: number;
  height: number;
}

const MOST_BYTES = 200 * 2 ** 20;

export async function referencePicture(file: File): Promise<ReferencePicture> {
  if (file.size === 0) throw new Error(`“${file.name}” is empty.`);
  if (file.size > MOST_BYTES)
    throw new Error(
      `“${file.name}” has ${Math.round(file.size / 2 ** 20)} MB; a reference may have at most ${MOST_BYTES / 2 ** 20} MB.`,
    );
  const bytes = new Uint8Array(await file.arrayBuffer());
  const size = sizeOf(bytes, file.name);
  if (size.width * size.height > REFERENCE_MOST_PIXELS) {
    throw new Error(
      `“${file.name}” has ${Math.round((size.width * size.height) / 1e6)} megapixels; a reference may have at most ${REFERENCE_MOST_PIXELS / 1e6}. Reduce it first.`,
    );
  }
  const picture = await createImageBitmap(file).catch(() => null);
  if (!picture)
    throw new Error(
      `“${file.name}” is broken or cut short, or of a kind that can’t be shown here. PNG, JPEG and WebP can be opened.`,
    );
  try {
    const scale = Math.min(1, REFERENCE_SIDE / Math.max(picture.width, picture.height));
    const width = Math.max(1, Math.round(picture.width * scale));
    const height = Math.max(1, Math.round(picture.height * scale));
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')!.drawImage(picture, 0, 0, width, height);
    const blob = await canvas.convertToBlob({ type: 'image/webp', quality: 0.9 });
    return { bytes: new Uint8Array(await blob.arrayBuffer()), width, height };
  } finally {
    picture.close();
  }
}

function sizeOf(bytes: Uint8Array, name: string): { width: number; height: number } {
  try {
    return imageSize(bytes);
  } catch {
    throw new Error(`“${name}” isn’t a picture. PNG, JPEG and WebP can be opened.`);
  }
}
