/** Starts the server's threads, packed or from their sources. */
import { Worker, type ResourceLimits } from 'node:worker_threads';
import { packed } from './packed';

const SOURCES = { store: './store/pglite/worker.ts', reading: './reading/worker.ts' };

export function startThread(
  name: keyof typeof SOURCES,
  workerData: object,
  resourceLimits: ResourceLimits = {},
): Worker {
  const script = packed(name);
  if (script) return new Worker(script, { workerData, resourceLimits });
  const source = new URL(SOURCES[name], import.meta.url).href;
  return new Worker(new URL('./fromSources.mjs', import.meta.url), {
    workerData: { ...workerData, source },
    resourceLimits,
  });
}
