/** The worker that draws strips and swatches, and what it knows of alphas. */
import * as Comlink from 'comlink';
import type { AlphaHead } from '#core/stored';
import { alphaBytes, transfersOf } from '../api/alphaBytes';
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
      const sent = await alphaBytes(alpha);
      await worker.sendForm(alpha.blob, Comlink.transfer(sent, transfersOf(sent)));
    }
    return alpha.blob;
  }

  return { worker, know, end: () => thread.end() };
}
