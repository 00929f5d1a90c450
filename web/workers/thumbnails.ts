/** Pictures of brushes that the server hasn't rendered: drafts and the slab's own brushes. Kept by content. */
import * as Comlink from 'comlink';
import type { Alpha, Brush } from '#core/settings';
import { getBlob } from '../api/client';
import type { ThumbnailWorker } from './thumbnail.worker';

const rendered = new Map<string, Promise<string>>();
const MOST = 200;
let worker: Comlink.Remote<ThumbnailWorker> | null = null;

/** An object URL of the brush's picture. */
export function thumbnail(brush: Brush, alpha: Alpha | null): Promise<string> {
  const key = JSON.stringify([brush.form, brush.touch, brush.stroke, alpha?.blob]);
  const known = rendered.get(key);
  if (known) return known;
  const made = render(JSON.parse(JSON.stringify(brush)) as Brush, alpha);
  made.catch(() => rendered.delete(key));
  rendered.set(key, made);
  if (rendered.size > MOST) {
    const [oldest, url] = rendered.entries().next().value!;
    rendered.delete(oldest);
    void url.then((u) => URL.revokeObjectURL(u));
  }
  return made;
}

async function render(brush: Brush, alpha: Alpha | null): Promise<string> {
  worker ??= Comlink.wrap<ThumbnailWorker>(new Worker(new URL('./thumbnail.worker.ts', import.meta.url), { type: 'module' }));
  const bytes = alpha && await getBlob(alpha.blob);
  const kind = alpha && { format: alpha.format, size: alpha.size, relief: alpha.relief };
  const blob = await worker.render(brush, kind && bytes && Comlink.transfer({ kind, bytes }, [bytes]));
  return URL.createObjectURL(blob);
}
