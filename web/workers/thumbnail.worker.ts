/** Renders brush pictures away from the page. */
import * as Comlink from 'comlink';
import { resolveBrush } from '#core/brush';
import { fromUint16, pyramid } from '#core/picture';
import type { Brush } from '#core/settings';
import { brushThumbnail, THUMBNAIL_SIZE } from '#core/thumbnail';

const api = {
  async render(brush: Brush, alpha: { size: number; greys: ArrayBuffer; relief: number } | null): Promise<Blob> {
    const form = alpha && { pyramid: pyramid(fromUint16(new Uint16Array(alpha.greys), alpha.size)), relief: alpha.relief };
    const rgba = brushThumbnail(resolveBrush(brush, form));
    const canvas = new OffscreenCanvas(THUMBNAIL_SIZE, THUMBNAIL_SIZE);
    canvas.getContext('2d')!.putImageData(new ImageData(rgba as Uint8ClampedArray<ArrayBuffer>, THUMBNAIL_SIZE), 0, 0);
    return canvas.convertToBlob({ type: 'image/png' });
  },
};

export type ThumbnailWorker = typeof api;
Comlink.expose(api);
