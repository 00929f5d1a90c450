/**
 * The inbox, looked at while the page is seen: what is whole is taken in like a file that was dropped, one after the
 * other, and the server is told what came of it. Another page that is open takes what this one doesn’t.
 */
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import * as api from '../api/client';
import { useArrivals } from './arrivals';
import { useConnection } from './connection';

const LOOK_MS = 3000;

export const useInbox = defineStore('inbox', () => {
  const arrivals = useArrivals();
  const connection = useConnection();
  const state = shallowRef<api.InboxState | null>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let looking: Promise<void> | null = null;

  const growing = computed(() => state.value?.files.filter((f) => f.state === 'growing') ?? []);
  const refused = computed(() => state.value?.files.filter((f) => f.state === 'refused') ?? []);

  /** Looks now; whoever asks while it is looked at waits for that. */
  function look(): Promise<void> {
    looking ??= lookOnce().finally(() => (looking = null));
    return looking;
  }

  async function lookOnce(): Promise<void> {
    try {
      state.value = await api.getInbox();
      for (const file of state.value.files) if (file.state === 'whole') await take(file);
    } catch (error) {
      if (!connection.noticed(error)) throw error;
    }
  }

  async function take(file: api.InboxFile): Promise<void> {
    let own: File;
    try {
      own = await api.claimInboxFile(file);
    } catch (error) {
      // Another page has it, or it is written anew: that is seen at the next look.
      if (error instanceof api.Refused) return;
      throw error;
    }
    const why = await arrivals.takeIn(own);
    // Without the server nothing came of it: it is taken when the server is back.
    if (!connection.away) await api.settleInboxFile(file, why);
  }

  /** Looks again and again, as long as the page is seen. */
  function follow(): void {
    clearTimeout(timer);
    const next = (): void => {
      timer = setTimeout(follow, LOOK_MS);
    };
    if (document.hidden || connection.away) return next();
    look().then(next, (error: unknown) => {
      reportError(error);
      next();
    });
  }

  return { state, growing, refused, look, follow, stop: () => clearTimeout(timer) };
});
