/**
 * Starts the server's threads. Packed, a thread's script lies beside the server's; from its sources it is one of them.
 */
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker, type ResourceLimits } from 'node:worker_threads';

const SOURCES = { store: './store/pglite/worker.ts', reading: './reading/worker.ts' };

export function startThread(
  name: keyof typeof SOURCES,
  workerData: object,
  resourceLimits: ResourceLimits = {},
): Worker {
  const packed = new URL(`./${name}.mjs`, import.meta.url);
  if (existsSync(fileURLToPath(packed))) return new Worker(packed, { workerData, resourceLimits });
  const source = new URL(SOURCES[name], import.meta.url).href;
  return new Worker(new URL('./fromSources.mjs', import.meta.url), {
    workerData: { ...workerData, source },
    resourceLimits,
  });
}
