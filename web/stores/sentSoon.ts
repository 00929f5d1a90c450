/**
 * Small documents that are changed a little at a time: every change is kept in the browser at once and sent to the
 * server a moment later; what it doesn’t take yet waits. What another window changed meanwhile is kept beside it.
 */
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import { SCHEMAS, type Documents, type Listed } from '#core/stored';
import * as api from '../api/client';
import { plain } from '../api/plain';
import { sentence, useConnection } from './connection';
import { freeNameAmong } from './names';

const SEND_MS = 500;
const MOST_UNANSWERED = 12;
/** Of a name, so that a number can follow it. */
const LONGEST = 74;

type Small = 'palettes' | 'packs' | 'belts';

interface Unsent<C extends Small> {
  doc: Documents[C];
  revision: number | null;
  /** As it was sent and not answered: the server may have taken one of them, and the answer been lost. */
  sent?: Documents[C][];
}

export interface SentSoon<C extends Small> {
  collection: C;
  /** Where the browser keeps what isn’t sent. */
  key: string;
  /** A name for one that has none. */
  unnamed: string;
  /** The document of a row of the list. */
  documentOf(listed: Listed<C>): Documents[C];
  /** One became another, beside what another window made of it. */
  became?: (id: string, other: string) => void;
}

export function useSentSoon<C extends Small>({ collection, key, unnamed, documentOf, became }: SentSoon<C>) {
  const connection = useConnection();
  const unsent = useLocalStorage<Record<string, Unsent<C>>>(key, {});
  const stored = shallowRef<ReadonlyMap<string, { doc: Documents[C]; revision: number }>>(new Map());
  const problem = ref<string | null>(null);
  const loaded = ref(false);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending: Promise<void> | null = null;

  const docs = computed<Documents[C][]>(() => {
    const own = Object.values(unsent.value).map(({ doc }) => doc as Documents[C]);
    const rest = [...stored.value.values()].map(({ doc }) => doc).filter(({ id }) => !unsent.value[id]);
    return [...own, ...rest].sort((a, b) => a.card.name.localeCompare(b.card.name));
  });

  async function load(): Promise<void> {
    try {
      const { items } = await api.list(collection);
      stored.value = new Map(
        items.map((listed) => [listed.id, { doc: documentOf(listed), revision: listed.revision }]),
      );
      loaded.value = true;
    } catch (error) {
      if (!connection.noticed(error)) problem.value = sentence(error);
    }
    void send();
  }

  function soon(): void {
    clearTimeout(timer);
    timer = setTimeout(() => void send(), SEND_MS);
  }

  function put(doc: Documents[C]): void {
    const revision = unsent.value[doc.id]?.revision ?? stored.value.get(doc.id)?.revision ?? null;
    const { sent } = unsent.value[doc.id] ?? {};
    unsent.value = { ...unsent.value, [doc.id]: { doc: plain(doc), revision, ...(sent ? { sent } : {}) } };
    soon();
  }

  function docOf(id: string): Documents[C] | null {
    return (unsent.value[id]?.doc as Documents[C] | undefined) ?? stored.value.get(id)?.doc ?? null;
  }

  function freeName(wanted: string, except = ''): string {
    return freeNameAmong(
      docs.value.filter(({ id }) => id !== except).map(({ card }) => card.name),
      wanted.trim().slice(0, LONGEST) || unnamed,
    );
  }

  /** Takes one away; answers how that is taken back. */
  async function remove(id: string): Promise<() => Promise<void>> {
    const gone = docOf(id);
    if (!gone) return () => Promise.resolve();
    clearTimeout(timer);
    await sending;
    const { [id]: mine, ...rest } = unsent.value;
    if (stored.value.has(id)) await api.remove(collection, id);
    unsent.value = rest;
    stored.value = new Map([...stored.value].filter(([other]) => other !== id));
    return () => {
      // One of its own again: what was deleted has another’s place.
      const other = crypto.randomUUID();
      put({ ...((mine?.doc as Documents[C] | undefined) ?? gone), id: other });
      became?.(id, other);
      return Promise.resolve();
    };
  }

  /** Sends what waits, one after the other; a change that comes meanwhile is sent next. */
  function send(): Promise<void> {
    sending ??= sendAll().finally(() => {
      sending = null;
    });
    return sending;
  }

  async function sendAll(): Promise<void> {
    for (;;) {
      const [next] = Object.values(unsent.value) as Unsent<C>[];
      if (!next) return;
      const text = JSON.stringify(next.doc);
      const sent = [plain(next.doc), ...(next.sent ?? [])].slice(0, MOST_UNANSWERED);
      unsent.value = { ...unsent.value, [next.doc.id]: { ...next, sent } };
      try {
        const saved = await api.save(collection, next.doc, next.revision);
        stored.value = new Map(stored.value).set(saved.doc.id, { doc: saved.doc, revision: saved.revision });
        const now = unsent.value[next.doc.id];
        const rest = { ...unsent.value };
        delete rest[next.doc.id];
        // What changed since goes on waiting, on what is stored now.
        if (!now || JSON.stringify(now.doc) === text) unsent.value = rest;
        else unsent.value = { ...rest, [next.doc.id]: { doc: now.doc, revision: saved.revision } };
      } catch (error) {
        if (connection.noticed(error)) return;
        if (!(await settle(next, error))) return;
      }
    }
  }

  /** What another window changed, deleted or named the same is kept beside this one; false where that can’t be. */
  async function settle({ doc, revision }: Unsent<C>, error: unknown): Promise<boolean> {
    const conflict = api.conflictOf(error);
    const taken = error instanceof api.Refused && error.code === 'name-taken';
    if (!conflict && !taken) {
      problem.value = sentence(error);
      return false;
    }
    const { [doc.id]: mine, ...rest } = unsent.value;
    const latest = (mine?.doc as Documents[C] | undefined) ?? doc;
    const there = conflict ? await refresh(doc.id) : null;
    if (there && mine?.sent?.some((one) => same(there.doc, one as Documents[C]))) {
      // It was taken, and nobody heard of it: what changed since goes on from there.
      unsent.value = same(there.doc, latest) ? rest : { ...rest, [doc.id]: { doc: latest, revision: there.revision } };
      return true;
    }
    const name = freeName(latest.card.name, taken ? '' : doc.id);
    const again = conflict
      ? { ...latest, id: crypto.randomUUID(), card: { ...latest.card, name } }
      : { ...latest, card: { ...latest.card, name: name === latest.card.name ? `${name} 2` : name } };
    unsent.value = { ...rest, [again.id]: { doc: again, revision: conflict ? null : revision } };
    if (again.id !== doc.id) became?.(doc.id, again.id);
    return true;
  }

  async function refresh(id: string): Promise<{ doc: Documents[C]; revision: number } | null> {
    const found = await api.get(collection, id).catch(() => null);
    const next = new Map(stored.value);
    if (found) next.set(id, { doc: found.doc, revision: found.revision });
    else next.delete(id);
    stored.value = next;
    return found;
  }

  /** As the server keeps them. */
  function same(a: Documents[C], b: Documents[C]): boolean {
    const [one, other] = [a, b].map((doc) => JSON.stringify(SCHEMAS[collection].parse(doc)));
    return one === other;
  }

  connection.whenBack(load);
  void load();
  return { docs, docOf, put, remove, freeName, send, load, problem, loaded };
}
