/** Writes drafts of slabs to the browser's own store, away from the page: they are large. */
import * as Comlink from 'comlink';
import { createStore } from 'idb-keyval';
import { committed } from './committed';
import type { SlabDraft } from './drafts';

const store = createStore('mold-stamp', 'drafts');

const api = {
  async keep(id: string, draft: SlabDraft): Promise<void> {
    await store('readwrite', (drafts) => {
      drafts.put(draft, `slab:${id}`);
      return committed(drafts);
    });
  },
};

export type DraftWorker = typeof api;
Comlink.expose(api);
