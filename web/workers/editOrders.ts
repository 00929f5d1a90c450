/** What is asked of the sculpting worker about edits of the whole, and about the set forms that lie on a slab. */
import * as Comlink from 'comlink';
import type { Beside } from '#core/session';
import type { SetForm } from '#core/settings';
import { getBlob, ServerAway } from '../api/client';
import { plain } from '../api/plain';
import type { SculptOrders } from './sculptOrders';
import type { Change, EditOrder } from './sculpt/messages';

export interface OrdersOfEdits extends SculptOrders {
  /** Shows what an order did before the rest of it is told. */
  apply(change: Change): void;
}

/** Set forms whose parts are gone; the others lie on the clay. */
export class PartMissing extends Error {
  constructor(count: number) {
    super(
      `${count === 1 ? 'A set form can’t be shown: its part is' : `${count} set forms can’t be shown: their parts are`} gone from the server. Take ${count === 1 ? 'it' : 'them'} off, or lay the part again.`,
    );
  }
}

export class EditOrders {
  /** Parts whose heights the worker has. */
  private readonly parts = new Set<string>();

  constructor(private readonly o: OrdersOfEdits) {}

  /** Shows what an edit would do; while one is worked out only the latest waits. */
  tryEdit(order: EditOrder): Promise<void> {
    const sent = plain(order);
    return this.o.changing(() => this.o.worker.tryEdit(sent), { key: 'try' });
  }

  keepEdit(): Promise<void> {
    return this.o.changing(() => this.o.worker.keepEdit());
  }

  dropEdit(): Promise<void> {
    return this.o.changing(() => this.o.worker.dropEdit(), { key: 'try' });
  }

  makeEdit(order: EditOrder): Promise<void> {
    const sent = plain(order);
    return this.o.changing(() => this.o.worker.makeEdit(sent));
  }

  /**
   * Set forms that lie on the clay from now on; while they are laid only the latest places wait. Parts that can't be
   * fetched are left out, and that is told.
   */
  showSetForms(setForms: readonly SetForm[], beside: Beside | null = null): Promise<void> {
    const next = plain([...setForms]);
    const wanted = [
      ...new Set(next.flatMap(({ part }) => (part && !this.parts.has(part.heights) ? [part.heights] : []))),
    ];
    const fetched = wanted.map((heights) => ({ heights, bytes: settled(getBlob(heights)) }));
    return this.o.changing(
      async () => {
        for (const { heights, bytes } of fetched) {
          const got = await bytes;
          if (!('value' in got) || this.parts.has(heights)) continue;
          await this.o.worker.setPart(heights, Comlink.transfer(got.value, [got.value]));
          this.parts.add(heights);
        }
        const here = next.filter(({ part }) => !part || this.parts.has(part.heights));
        const change = await this.o.worker.showSetForms(here, beside);
        if (here.length === next.length) return change;
        this.o.apply(change);
        const why = (await Promise.all(fetched.map((f) => f.bytes))).find((got) => 'error' in got);
        throw why && 'error' in why && why.error instanceof ServerAway
          ? why.error
          : new PartMissing(next.length - here.length);
      },
      { key: 'setForms' },
    );
  }

  /** Whether the heights of a part are with the worker, so that its set forms can lie on the clay. */
  hasPart(heights: string): boolean {
    return this.parts.has(heights);
  }

  bakeSetForms(beside: Beside): Promise<void> {
    return this.o.changing(() => this.o.worker.bakeSetForms(beside));
  }

  /** What lies beside the clay changed; it is a step like any other. */
  changeBeside(beside: Beside): Promise<void> {
    return this.o.changing(() => this.o.worker.changeBeside(beside), { key: `beside ${beside.id}` });
  }
}

/** What became of it, so that it can be looked at later. */
function settled<T>(promise: Promise<T>): Promise<{ value: T } | { error: unknown }> {
  return promise.then(
    (value) => ({ value }),
    (error: unknown) => ({ error }),
  );
}
