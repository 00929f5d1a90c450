/**
 * Orders to a worker: one after the other, in the order in which they were given, whatever the worker's speed. What one
 * order is given for is settled when it is given; nothing here is decided by what has been answered so far.
 *
 * - An order with a `key` takes the place of the last one in the row when that has the same key and still waits: its
 *   effect would be gone at once. Both callers hear when the later one is done.
 * - While a stroke is drawn, orders that aren't part of it stand aside and follow right behind its end.
 */

/** The worker was closed before it had done this. */
export class OrdersClosed extends Error {
  constructor() {
    super('This was closed before it was done.');
  }
}

interface Order {
  key: string | null;
  run: () => Promise<unknown>;
  promise: Promise<unknown>;
  done: (value: unknown) => void;
  fail: (error: unknown) => void;
}

export interface OrderOptions {
  key?: string;
  /** Part of the stroke that is drawn: it doesn't stand aside. */
  ofStroke?: boolean;
}

export class Orders {
  /** Called when there is something to do, and when there is nothing left. */
  onBusy: (busy: boolean) => void = () => undefined;
  /** Called with what an order threw; whoever waits for it hears of it too. */
  onProblem: (error: unknown) => void = () => undefined;

  private readonly row: Order[] = [];
  private readonly aside: Order[] = [];
  private standing = false;
  private running: Order | null = null;
  private closed = false;

  give<T>(run: () => Promise<T>, { key, ofStroke = false }: OrderOptions = {}): Promise<T> {
    if (this.closed) return quietly(Promise.reject(new OrdersClosed()));
    const into = this.standing && !ofStroke ? this.aside : this.row;
    const last = into.at(-1);
    if (key !== undefined && last?.key === key) {
      last.run = run;
      return last.promise as Promise<T>;
    }
    const order = newOrder(key ?? null, run);
    into.push(order);
    this.next();
    return order.promise as Promise<T>;
  }

  /** From now on orders that aren't part of the stroke stand aside. */
  standAside(): void {
    this.standing = true;
  }

  /** The stroke's last order was given: those that stood aside follow it. */
  goOn(): void {
    this.standing = false;
    this.row.push(...this.aside.splice(0));
    this.next();
  }

  /** Whoever still waits is told that it won't be done. */
  close(): void {
    this.closed = true;
    const left = [...(this.running ? [this.running] : []), ...this.row.splice(0), ...this.aside.splice(0)];
    this.running = null;
    for (const order of left) order.fail(new OrdersClosed());
  }

  /** Every order fails with this from now on: the worker is gone. */
  fail(error: unknown): void {
    const left = [...(this.running ? [this.running] : []), ...this.row.splice(0), ...this.aside.splice(0)];
    this.running = null;
    for (const order of left) order.fail(error);
    if (left.length > 0) this.onProblem(error);
    this.onBusy(false);
  }

  private next(): void {
    if (this.running || this.closed) return;
    const order = this.row.shift();
    if (!order) return this.onBusy(false);
    this.running = order;
    this.onBusy(true);
    void this.carryOut(order);
  }

  private async carryOut(order: Order): Promise<void> {
    try {
      const value = await order.run();
      if (this.running === order) order.done(value);
    } catch (error) {
      if (this.running === order) {
        this.onProblem(error);
        order.fail(error);
      }
    }
    if (this.running !== order) return;
    this.running = null;
    this.next();
  }
}

function newOrder(key: string | null, run: Order['run']): Order {
  let done!: Order['done'];
  let fail!: Order['fail'];
  const promise = quietly(
    new Promise<unknown>((yes, no) => {
      done = yes;
      fail = no;
    }),
  );
  return { key, run, promise, done, fail };
}

/** Orders that nobody waits for may fail: they are told by `onProblem`. */
function quietly<T>(promise: Promise<T>): Promise<T> {
  promise.catch(() => undefined);
  return promise;
}
