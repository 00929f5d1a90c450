/** Requests that are being answered: the server closes when they are. */
import type { Middleware } from 'koa';

export class InFlight {
  private readonly going = new Set<Promise<unknown>>();

  count(): Middleware {
    return (_ctx, next) => {
      const mine = next().finally(() => this.going.delete(mine));
      this.going.add(mine);
      return mine;
    };
  }

  /** All that came so far, and what comes meanwhile, is answered. */
  async ended(): Promise<void> {
    while (this.going.size > 0) await Promise.allSettled(this.going);
  }
}
