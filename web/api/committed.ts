/** Writing to the browser’s own store. */
import { promisifyRequest } from 'idb-keyval';

/**
 * Ends what was written, as soon as the store has begun it: a transaction that would end by itself is undone with its
 * page. One that still waits behind others is undone all the same (`stash`).
 */
export function committed(store: IDBObjectStore): Promise<void> {
  store.transaction.commit();
  return promisifyRequest(store.transaction);
}
