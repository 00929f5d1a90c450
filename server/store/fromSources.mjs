/** Begins the database's thread from its sources: a thread doesn't inherit what reads TypeScript. */
import { register } from 'tsx/esm/api';

register();
await import('./worker.ts');
