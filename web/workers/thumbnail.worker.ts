/** Renders brush pictures away from the page. */
import * as Comlink from 'comlink';
import { colouredForm, resolveBrush } from '#core/brush';
import { readMesh } from '#core/formats';
import type { PartHead } from '#core/stored';
import type { Brush } from '#core/settings';
import { brushThumbnail, THUMBNAIL_SIZE } from '#core/thumbnail';
import type { AlphaBytes } from '../api/alphaBytes';

const api = {
  async render(
    brush: Brush,
    alphas: Record<'form' | 'tooth', AlphaBytes | null>,
    /** The first part of its set. */
    part: { head: PartHead; bytes: ArrayBuffer } | null,
  ): Promise<Blob> {
    const { form, tooth } = alphas;
    const rgba = brushThumbnail(
      resolveBrush(
        brush,
        form && colouredForm(form.kind, form.bytes, form.colours),
        tooth && colouredForm(tooth.kind, tooth.bytes, null),
        (id) => (part?.head.id === id ? { head: part.head, mesh: readMesh(part.bytes) } : null),
      ),
      brush.thumbnail,
    );
    const canvas = new OffscreenCanvas(THUMBNAIL_SIZE, THUMBNAIL_SIZE);
    canvas.getContext('2d')!.putImageData(new ImageData(rgba as Uint8ClampedArray<ArrayBuffer>, THUMBNAIL_SIZE), 0, 0);
    return canvas.convertToBlob({ type: 'image/png' });
  },
};

export type ThumbnailWorker = typeof api;
Comlink.expose(api);
