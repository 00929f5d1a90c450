/** How what is asked of the sculpting worker is put into the order of everything else. */
import type * as Comlink from 'comlink';
import type { OrderOptions } from './orders';
import type { SculptWorker } from './sculpt.worker';
import type { Change } from './sculpt/messages';

export interface SculptOrders {
  worker: Comlink.Remote<SculptWorker>;
  give<T>(call: () => Promise<T>): Promise<T>;
  /** One that changes what is there. */
  changing(call: () => Promise<Change>, options?: OrderOptions): Promise<void>;
}
