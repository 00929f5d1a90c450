/** Which casts are older than what their sources are now. */
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { readByCast } from '#core/lineage';
import type { AlphaHead } from '#core/stored';
import * as api from '../api/client';
import { useConnection } from './connection';
import { useLibrary } from './library';

export const useUpstream = defineStore('upstream', () => {
  const library = useLibrary();
  const connection = useConnection();
  /** What was found out: whether a cast of this patch, from this revision to that, reads something else. */
  const known = shallowRef<ReadonlyMap<string, boolean>>(new Map());
  let looking: Promise<void> | null = null;

  /** Null where the source is as it was, or gone. */
  function keyOf({ lineage: { sourceId, sourceRevision, patchId } }: AlphaHead): string | null {
    const from = library.source(sourceId);
    if (!from || sourceRevision === null || from.revision === sourceRevision || from.kind === 'sheet') return null;
    return `${from.id} ${patchId ?? ''} ${sourceRevision} ${from.revision}`;
  }

  /** Casts of sources that changed since, as far as it is known. */
  const changed = computed(() =>
    library.alphas.filter((alpha) => {
      const key = keyOf(alpha);
      return key !== null && known.value.get(key) === true;
    }),
  );
  const ids = computed(() => new Set(changed.value.map(({ id }) => id)));

  /** Looks at what isn’t known yet; whoever asks while it looks waits for it. */
  function look(): Promise<void> {
    looking ??= lookAll().finally(() => (looking = null));
    return looking;
  }

  /** Whatever is saved meanwhile is looked at as well. */
  async function lookAll(): Promise<void> {
    for (;;) {
      const next = library.alphas.find((alpha) => {
        const key = keyOf(alpha);
        return key !== null && !known.value.has(key);
      });
      if (!next) return;
      const key = keyOf(next)!;
      try {
        known.value = new Map(known.value).set(key, await differs(next));
      } catch (error) {
        // It is looked at again once the server is back, or when it is asked for.
        connection.noticed(error);
        return;
      }
    }
  }

  async function differs({ lineage: { sourceId, sourceRevision, patchId } }: AlphaHead): Promise<boolean> {
    const now = await api.get('sources', sourceId!);
    if (now.revision === sourceRevision) return false;
    try {
      const then = await api.revision('sources', sourceId!, sourceRevision!);
      return readByCast(then, patchId) !== readByCast(now.doc, patchId);
    } catch (error) {
      // That save is thinned out: it may have changed.
      if (error instanceof api.Refused) return true;
      throw error;
    }
  }

  connection.whenBack(look);
  return { changed, ids, look };
});
