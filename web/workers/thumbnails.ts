/** Pictures of brushes that the server hasn't rendered: drafts and the slab's own brushes. Kept by content. */
import * as Comlink from 'comlink';
import { createStore, get, set } from 'idb-keyval';
import { THUMBNAIL_VERSION } from '#core/thumbnail';
import type { AlphaKind } from '#core/brush';
import type { AlphaHead, BrushAlphas } from '#core/kept';
import { worksOf, type Brush } from '#core/settings';
import { getBlob } from '../api/client';
import { plain } from '../api/plain';
import type { ThumbnailWorker } from './thumbnail.worker';

const rendered = new Map<string, Promise<string>>();
const MOST = 200;
const store = createStore('mold-stamp-pictures', 'pictures');
let worker: Comlink.Remote<ThumbnailWorker> | null = null;

/** An object URL of the brush's picture. */
export function thumbnail(brush: Brush, alphas: BrushAlphas): Promise<string> {
  const key = JSON.stringify([worksOf(brush), alphas.form?.blob, alphas.tooth?.blob]);
  const known = rendered.get(key);
  if (known) return known;
  const made = kept(key, () => render(plain(brush), alphas));
  made.catch(() => rendered.delete(key));
  rendered.set(key, made);
  if (rendered.size > MOST) {
    const [oldest, url] = rendered.entries().next().value!;
    rendered.delete(oldest);
    void url.then((u) => URL.revokeObjectURL(u));
  }
  return made;
}

/** Kept in the browser from visit to visit, so that a belt is there at once. */
async function kept(key: string, make: () => Promise<Blob>): Promise<string> {
  const name = `${THUMBNAIL_VERSION} ${key}`;
  const known = await get<Blob>(name, store).catch(() => undefined);
  const picture = known ?? (await make());
  if (!known) void set(name, picture, store).catch(() => undefined);
  return URL.createObjectURL(picture);
}

async function render(brush: Brush, alphas: BrushAlphas): Promise<Blob> {
  worker ??= Comlink.wrap<ThumbnailWorker>(
    new Worker(new URL('./thumbnail.worker.ts', import.meta.url), { type: 'module' }),
  );
  const form = await kindAndBytes(alphas.form);
  const tooth = await kindAndBytes(alphas.tooth);
  return worker.render(
    brush,
    Comlink.transfer(
      { form, tooth },
      [form, tooth].flatMap((a) => (a ? [a.bytes] : [])),
    ),
  );
}

async function kindAndBytes(alpha: AlphaHead | null): Promise<{ kind: AlphaKind; bytes: ArrayBuffer } | null> {
  return (
    alpha && {
      kind: { format: alpha.format, size: alpha.size, relief: alpha.relief },
      bytes: await getBlob(alpha.blob),
    }
  );
}
