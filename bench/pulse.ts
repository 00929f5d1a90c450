/** Asks a server whether it is well, again and again, from a thread of its own: what others ask doesn't hold it up. */
import { Worker } from 'node:worker_threads';

const SCRIPT = `
  const { parentPort, workerData: { address } } = require('node:worker_threads');
  const health = [];
  let going = true;
  (async () => {
    while (going) {
      const t = performance.now();
      await (await fetch(address + '/api/health')).text();
      health.push(performance.now() - t);
      await new Promise((d) => setTimeout(d, 5));
    }
    // The first ones load the client.
    parentPort.postMessage(health.slice(20).sort((a, b) => a - b));
  })();
  parentPort.on('message', () => { going = false; });`;

export interface Pulse {
  /** Milliseconds that answers took, the quickest first. */
  stop(): Promise<number[]>;
}

export async function startPulse(address: string): Promise<Pulse> {
  const thread = new Worker(SCRIPT, { eval: true, workerData: { address } });
  await new Promise((done) => setTimeout(done, 1000));
  return {
    async stop() {
      const answer = heard(thread);
      thread.postMessage(null);
      const health = await answer;
      await thread.terminate();
      return health as number[];
    },
  };
}

export function heard(thread: Worker): Promise<unknown> {
  return new Promise((done, fail) => {
    thread.once('message', done);
    thread.once('error', fail);
  });
}

/** The value that so large a share of the sorted ones stay under. */
export const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))];
