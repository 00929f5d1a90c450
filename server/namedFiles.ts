/** Files from outside that a document names. */
import type { Judged } from './reading/judged';
import type { Store } from './store/port';
import type { Studio } from './studio/studio';

/** Files that a document names were looked at when they came; one that came as bare bytes is looked at now. */
export async function tryFiles(store: Store, studio: Studio, { collection, id, files }: Judged): Promise<void> {
  if (files.length === 0) return;
  const tried = new Set(await store.blobsNamedBy(collection, id));
  for (const { kind, blob, name } of files) {
    if (tried.has(blob) || !(await store.blobs.has(blob))) continue;
    await (kind === 'picture' ? studio.sheet(blob, name) : studio.font(blob, name));
  }
}
