/** The worker that draws strips and swatches, and what it knows of alphas. */
import * as Comlink from 'comlink';
import type { AlphaHead } from '#core/stored';
import { getBlob } from '../api/client';
import type { StripWorker } from '../workers/strip.worker';
import { startThread } from '../workers/thread';

export function useStripThread() {
  const thread = startThread<StripWorker>(
    new Worker(new URL('../workers/strip.worker.ts', import.meta.url), { type: 'module' }),
  );
  const { worker } = thread;

  /** Makes an alpha known; answers what it is called there. */
  async function know(alpha: AlphaHead | null): Promise<string | null> {
    if (!alpha) return null;
    if (!(await worker.knows(alpha.blob))) {
      const bytes = await getBlob(alpha.blob);
      await worker.sendForm(
        alpha.blob,
        { format: alpha.format, size: alpha.size, relief: alpha.relief },
        Comlink.transfer(bytes, [bytes]),
      );
    }
    return alpha.blob;
  }

  return { worker, know, end: () => thread.end() };
}
