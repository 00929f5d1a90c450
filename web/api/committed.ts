/** Writing to the browser’s own store. */
import { promisifyRequest } from 'idb-keyval';

/**
 * Ends what was written. It is in the store from now on, even if the page is gone before the answer: a transaction that
 * ends by itself ends with its page, and is undone.
 */
export function committed(store: IDBObjectStore): Promise<void> {
  store.transaction.commit();
  return promisifyRequest(store.transaction);
}
