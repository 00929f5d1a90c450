/** A worker and the line to it. Ended, nothing that still waits for an answer keeps the page's objects alive. */
import * as Comlink from 'comlink';
import { ServerAway } from '../api/client';

export interface Thread<T> {
  worker: Comlink.Remote<T>;
  /** Fails when the script can't be loaded, or throws outside of a call: then no call is ever answered. */
  broken: Promise<never>;
  end(): void;
}

export function startThread<T>(thread: Worker): Thread<T> {
  const worker = Comlink.wrap<T>(thread);
  const broken = new Promise<never>((_, fail) => {
    thread.addEventListener('error', (e) => fail(e.message ? new Error(e.message) : new ServerAway()), { once: true });
  });
  broken.catch(() => undefined);
  let ended = false;
  return {
    worker,
    broken,
    end() {
      if (ended) return;
      ended = true;
      // Comlink's list of those who wait is held for good unless the line is given back.
      worker[Comlink.releaseProxy]();
      thread.terminate();
    },
  };
}
