/** Begins a thread from its sources: a thread doesn't inherit what reads TypeScript. */
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

register();
await import(workerData.source);
