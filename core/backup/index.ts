/** Backups: what the file holds, what a copy is called, and which copies are kept. */
export * from './copies';
export * from './manifest';
