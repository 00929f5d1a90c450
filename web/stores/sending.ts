/**
 * Things that are made in one go and then stay as they are: kept by the server, and until it has them in the browser.
 * Whatever is kept is in the list at once; it is sent on its own, again and again until the server took it.
 */
import { computed, ref, shallowRef } from 'vue';
import { headOf, type Documents, type Heads } from '#core/stored';
import * as api from '../api/client';
import type { Outbox, Pending } from '../api/outbox';
import { useConnection } from './connection';
import { freeNameAmong } from './names';

/** Of a name, so that a number can follow it. */
const LONGEST = 74;

type Sent = 'bodies' | 'trials';

export interface Sending<C extends Sent, W extends Pending, R extends { id: string; name: string }> {
  collection: C;
  box: Outbox<W>;
  /** How one is called in a sentence. */
  what: string;
  /** The document to be saved; sends first what it names. */
  documentOf(one: W, name: string): Promise<Documents[C]>;
  rowOf(one: W): R;
  rowOfStored(head: Heads[C]): R;
}

export function useSending<C extends Sent, W extends Pending, R extends { id: string; name: string }>({
  collection,
  box,
  what,
  documentOf,
  rowOf,
  rowOfStored,
}: Sending<C, W, R>) {
  const connection = useConnection();
  const stored = shallowRef<R[]>([]);
  const pending = shallowRef<R[]>([]);
  const own = computed(() => [
    ...stored.value,
    ...pending.value.filter((w) => !stored.value.some((k) => k.id === w.id)),
  ]);
  /** Why the server would not take one; it goes on waiting. */
  const problem = ref<string | null>(null);
  let sending: Promise<void> | null = null;

  async function load(): Promise<void> {
    pending.value = (await box.all().catch(() => [])).map(rowOf);
    await orAway(async () => {
      stored.value = (await api.list(collection)).items.map(rowOfStored);
    });
    void send();
  }

  async function orAway(act: () => Promise<void>): Promise<void> {
    try {
      await act();
    } catch (error) {
      if (!connection.noticed(error)) throw error;
    }
  }

  function freeName(wanted: string, exceptId = ''): string {
    return freeNameAmong(
      own.value.filter((o) => o.id !== exceptId).map((o) => o.name),
      wanted,
    );
  }

  /** Where the browser has no room the server takes it at once, or a sentence says that nothing could. */
  async function keep(one: W): Promise<R> {
    const named = {
      ...one,
      name: freeName(one.name.trim().slice(0, LONGEST) || `${what[0].toUpperCase()}${what.slice(1)}`),
    };
    try {
      await box.keep(named);
    } catch {
      await sendOne(named).catch((error: unknown) => {
        throw new Error(
          `There was no room for “${named.name}”: the browser is full, and ${error instanceof api.ServerAway ? 'the server can’t be reached' : 'the server did not take it'}. Nothing was changed.`,
        );
      });
      return rowOf(named);
    }
    pending.value = [...pending.value, rowOf(named)];
    void send();
    return rowOf(named);
  }

  /** Sends what waits, one after the other; called again while it runs, it goes on to what came meanwhile. */
  function send(): Promise<void> {
    sending ??= orAway(sendAll)
      .catch((error: unknown) => {
        problem.value = `The ${what} is kept in this browser; it could not be sent: ${error instanceof Error ? error.message : String(error)}`;
      })
      .finally(() => (sending = null));
    return sending;
  }

  async function sendAll(): Promise<void> {
    const refused = new Map<string, string>();
    for (;;) {
      const next = pending.value.find((w) => !refused.has(w.id));
      if (!next) break;
      const { id } = next;
      const one = stored.value.some((k) => k.id === id) ? null : await box.one(id);
      try {
        if (one) await sendOne(one);
      } catch (error) {
        if (error instanceof api.ServerAway) throw error;
        // It goes on waiting; those behind it are sent all the same.
        refused.set(id, `“${next.name}”: ${error instanceof Error ? error.message : String(error)}`);
        continue;
      }
      await box.drop(id);
      pending.value = pending.value.filter((w) => w.id !== id);
    }
    problem.value = refused.size
      ? `The ${what} is kept in this browser; the server would not take it. ${[...refused.values()].join(' ')}`
      : null;
  }

  async function sendOne(one: W): Promise<void> {
    try {
      const saved = await api.save(collection, await documentOf(one, freeName(one.name, one.id)), null);
      stored.value = [...stored.value, rowOfStored(headOf(collection, saved.doc))];
    } catch (error) {
      // It came there by another window, or in an answer that was lost.
      if (!api.conflictOf(error)) throw error;
      stored.value = (await api.list(collection)).items.map(rowOfStored);
    }
  }

  /** Takes one off the list; answers how that is taken back. */
  async function forget(id: string): Promise<() => Promise<void>> {
    // One that is on its way arrives first.
    await sending;
    const waits = pending.value.some((w) => w.id === id) ? await box.one(id) : null;
    if (waits) {
      await box.drop(id);
      pending.value = pending.value.filter((w) => w.id !== id);
      return async () => void (await keep(waits));
    }
    await api.remove(collection, id);
    stored.value = stored.value.filter((k) => k.id !== id);
    return async () => {
      const { doc } = await api.restore(collection, id);
      stored.value = [...stored.value, rowOfStored(headOf(collection, doc))];
    };
  }

  connection.whenBack(load);
  return { own, problem, load, keep, forget };
}
