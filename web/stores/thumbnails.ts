/**
 * Pictures of brushes that the server hasn't rendered: drafts and the slab's own brushes. Stored by content in the
 * browser from visit to visit, so that a belt is there at once.
 */
import * as Comlink from 'comlink';
import { createStore, get, set } from 'idb-keyval';
import { LRUCache } from 'lru-cache';
import { defineStore } from 'pinia';
import { worksOf, type Brush } from '#core/settings';
import type { BrushAlphas } from '#core/stored';
import { THUMBNAIL_VERSION } from '#core/thumbnail';
import { alphaBytes, transfersOf } from '../api/alphaBytes';
import { getBlob } from '../api/client';
import { namedBlobs } from '../api/namedBlobs';
import { plain } from '../api/plain';
import type { ThumbnailWorker } from '../workers/thumbnail.worker';

const MOST = 200;

export const useThumbnails = defineStore('thumbnails', () => {
  const pictures = createStore('mold-stamp-pictures', 'pictures');
  const urls = new LRUCache<string, Promise<string>>({
    max: MOST,
    dispose: (url) => void url.then((u) => URL.revokeObjectURL(u)).catch(() => undefined),
  });
  let worker: Comlink.Remote<ThumbnailWorker> | null = null;

  /** An object URL of the brush's picture. */
  function of(brush: Brush, alphas: BrushAlphas): Promise<string> {
    if (brush.thumbnail.own) return Promise.resolve(brush.thumbnail.own);
    const key = JSON.stringify([worksOf(brush), brush.thumbnail, ...namedBlobs(alphas)]);
    const known = urls.get(key);
    if (known) return known;
    const made = urlOf(key, () => render(plain(brush), alphas));
    made.catch(() => {
      if (urls.peek(key) === made) urls.delete(key);
    });
    urls.set(key, made);
    return made;
  }

  async function urlOf(key: string, make: () => Promise<Blob>): Promise<string> {
    const name = `${THUMBNAIL_VERSION} ${key}`;
    const stored = await get<Blob>(name, pictures).catch(() => undefined);
    const picture = stored ?? (await make());
    if (!stored) void set(name, picture, pictures).catch(() => undefined);
    return URL.createObjectURL(picture);
  }

  async function render(brush: Brush, alphas: BrushAlphas): Promise<Blob> {
    worker ??= Comlink.wrap<ThumbnailWorker>(
      new Worker(new URL('../workers/thumbnail.worker.ts', import.meta.url), { type: 'module' }),
    );
    const [form, tooth] = [
      alphas.form && (await alphaBytes(alphas.form)),
      alphas.tooth && (await alphaBytes(alphas.tooth)),
    ];
    const [head] = alphas.parts;
    const part = head ? { head: plain(head), bytes: await getBlob(head.mesh) } : null;
    return worker.render(
      brush,
      Comlink.transfer({ form, tooth }, [...transfersOf(form), ...transfersOf(tooth)]),
      part && Comlink.transfer(part, [part.bytes]),
    );
  }

  return { of };
});
