/** Writes drafts of slabs to the browser's own store, away from the page: they are large. */
import * as Comlink from 'comlink';
import { createStore, set } from 'idb-keyval';
import type { SlabDraft } from './drafts';

const store = createStore('mold-stamp', 'drafts');

const api = {
  async keep(id: string, draft: SlabDraft): Promise<void> {
    await set(`slab:${id}`, draft, store);
  },
};

export type DraftWorker = typeof api;
Comlink.expose(api);
