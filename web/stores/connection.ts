/** Whether the server answers, and what waits to be sent to it. */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { Refused, request, ServerAway } from '../api/client';

const RETRY_MS = 2000;

export const useConnection = defineStore('connection', () => {
  const away = ref(false);
  /** Run when the server is back. */
  const onBack: (() => Promise<void>)[] = [];
  let timer: ReturnType<typeof setTimeout> | undefined;

  /** Looks at an error; when the server was away, begins to knock until it answers. */
  function noticed(error: unknown): boolean {
    if (!(error instanceof ServerAway)) return false;
    away.value = true;
    timer ??= setTimeout(() => void knock(), RETRY_MS);
    return true;
  }

  async function knock(): Promise<void> {
    timer = undefined;
    try {
      await request('/health');
    } catch (error) {
      if (!noticed(error)) reportError(error);
      return;
    }
    away.value = false;
    // One that fails is no reason for the others not to run.
    for (const run of onBack) await run().catch((error: unknown) => noticed(error) || reportError(error));
  }

  return { away, noticed, whenBack: (run: () => Promise<void>) => void onBack.push(run) };
});

/** What to tell a person about an error. */
export function sentence(error: unknown): string {
  if (error instanceof Refused || error instanceof ServerAway) return error.message;
  return error instanceof Error ? error.message : String(error);
}
