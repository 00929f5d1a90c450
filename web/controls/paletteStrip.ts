/** Strips of colours as pictures, and pictures as strips. */
import { MOST_COLOURS, type Strip } from '#core/colour';

/** Sides of pictures whose colours are read. */
const MOST_SIDE = 16_384;

export async function pngStrip({ width, height, data }: Strip): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const rgba = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    rgba.set(data.subarray(i * 3, i * 3 + 3), i * 4);
    rgba[i * 4 + 3] = 255;
  }
  canvas.getContext('2d')!.putImageData(new ImageData(rgba, width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}

/** Throws a sentence where the browser can’t read it, or it is far too long. */
export async function stripOfPicture(file: File): Promise<Strip> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error(`“${file.name}” can’t be read as a picture.`);
  });
  const { width, height } = picture;
  if (height === 0 || width / height > 10 * MOST_COLOURS || width > MOST_SIDE)
    throw new Error(`“${file.name}” is ${width} × ${height}: too long for a palette.`);
  const { data } = pixelsOf(picture, width, height);
  const rgb = new Uint8Array(width * height * 3);
  for (let i = 0; i < width * height; i++) rgb.set(data.subarray(i * 4, i * 4 + 3), i * 3);
  return { width, height, data: rgb };
}

export function pixelsOf(picture: ImageBitmap, width: number, height: number): ImageData {
  const canvas = new OffscreenCanvas(width, height);
  const to = canvas.getContext('2d', { willReadFrequently: true })!;
  to.drawImage(picture, 0, 0, width, height);
  return to.getImageData(0, 0, width, height);
}
