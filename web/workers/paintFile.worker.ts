/** Reads and writes paintings as files, away from the page. */
import * as Comlink from 'comlink';
import { flattened, newLayer, type Layer } from '#core/paint';
import {
  oraFile,
  paintFile,
  readOra,
  textureOfPng,
  textureOfWords,
  checkSide,
  type PaintFile,
  type ReadPaint,
} from './paintFiles';

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
    if (head[0] === 0x89) {
      const texture = textureOfPng(name, new Uint8Array(await file.arrayBuffer()));
      return { size: texture.size, layers: [{ ...newLayer('picture', title), tiles: texture.tiles }], notes: [] };
    }
    const texture = await pictureOf(name, file);
    return { size: texture.size, layers: [{ ...newLayer('picture', title), tiles: texture.tiles }], notes: [] };
  },
};

/** What the browser itself reads: JPEG, WebP. */
async function pictureOf(name: string, file: Blob) {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error(`“${name}” can’t be read. A texture can be a PNG, JPEG, WebP or OpenRaster file.`);
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
