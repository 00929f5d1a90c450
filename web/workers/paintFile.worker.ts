/** Reads and writes paintings as files, away from the page. */
import * as Comlink from 'comlink';
import { flattened, newLayer, type Layer } from '#core/paint';
import { paintFile, textureOfPng, textureOfWords, checkSide, type PaintFile, type ReadPaint } from './paintFiles';
import { oraFile, readOra } from './openRaster';
import { textureOfExr, textureOfTiff } from './paintPictures';

const api = {
  async write(kind: PaintFile, size: number, layers: readonly Layer[]): Promise<Uint8Array<ArrayBuffer>> {
    const bytes = await paintFile(kind, flattened(layers, size));
    return Comlink.transfer(bytes, [bytes.buffer]);
  },
  ora: (size: number, layers: readonly Layer[]): Promise<Blob> => oraFile(size, layers),
  /** Layers of an OpenRaster file, or a picture as one. Throws a sentence that can be shown. */
  async read(name: string, file: Blob): Promise<ReadPaint> {
    const head = new Uint8Array(await file.slice(0, 24).arrayBuffer());
    if (head[0] === 0x50 && head[1] === 0x4b) return readOra(name, file);
    const title = name.replace(/\.[^.]+$/, '').slice(0, 80) || 'Picture';
    const texture = await pictureOf(name, file, head);
    return { size: texture.size, layers: [{ ...newLayer('picture', title), tiles: texture.tiles }], notes: [] };
  },
};

/** PNG, TIFF and EXR with all their bits; what else the browser itself reads, JPEG and WebP, with eight. */
async function pictureOf(name: string, file: Blob, head: Uint8Array) {
  const bytes = async (): Promise<Uint8Array<ArrayBuffer>> => new Uint8Array(await file.arrayBuffer());
  if (head[0] === 0x89) return textureOfPng(name, await bytes());
  if (head[0] === 0x76 && head[1] === 0x2f) return textureOfExr(name, await bytes());
  if ((head[0] === 0x49 && head[1] === 0x49) || (head[0] === 0x4d && head[1] === 0x4d))
    return textureOfTiff(name, await bytes());
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error(`“${name}” can’t be read. A texture can be a PNG, TIFF, EXR, JPEG, WebP or OpenRaster file.`);
  });
  const size = checkSide(name, picture.width, picture.height);
  const canvas = new OffscreenCanvas(size, size);
  const to = canvas.getContext('2d')!;
  to.drawImage(picture, 0, 0);
  const { data } = to.getImageData(0, 0, size, size);
  return textureOfWords(size, (pixel, channel) => data[pixel * 4 + channel] * 257);
}

export type PaintFileWorker = typeof api;
Comlink.expose(api);
