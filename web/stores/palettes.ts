/**
 * Palettes: every change is kept in the browser at once and sent to the server a moment later; what it doesn’t take yet
 * waits. Beside them, the colours that were chosen last.
 */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { MOST_PALETTE_COLOURS, MOST_PALETTE_GROUPS, newPalette, PaletteSchema, type OwnPalette } from '#core/settings';
import * as api from '../api/client';
import { plain } from '../api/plain';
import { sentence, useConnection } from './connection';
import { freeNameAmong } from './names';

const MOST_CHOSEN = 16;
const SEND_MS = 500;

interface Unsent {
  doc: OwnPalette;
  revision: number | null;
}
type Row = Pick<OwnPalette, 'id' | 'card' | 'groups'>;

export const usePalettes = defineStore('palettes', () => {
  const connection = useConnection();
  /** The latest first. */
  const history = useLocalStorage<string[]>('colours-chosen', []);
  const openId = useLocalStorage<string>('palette-open', '');
  const unsent = useLocalStorage<Record<string, Unsent>>('palettes-unsent', {});
  const stored = shallowRef<ReadonlyMap<string, { doc: OwnPalette; revision: number }>>(new Map());
  const problem = ref<string | null>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let sending: Promise<void> | null = null;

  const all = computed<Row[]>(() => {
    const own = Object.values(unsent.value).map(({ doc }) => doc);
    const rest = [...stored.value.values()].map(({ doc }) => doc).filter(({ id }) => !unsent.value[id]);
    return [...own, ...rest].sort((a, b) => a.card.name.localeCompare(b.card.name));
  });
  const open = computed<Row | null>(() => all.value.find(({ id }) => id === openId.value) ?? all.value[0] ?? null);
  const colours = computed(() => open.value?.groups.flatMap((group) => group.colours) ?? []);
  const offers = computed(() => [...new Set([...colours.value.map(({ colour }) => colour), ...history.value])]);

  /** A colour was chosen by hand, not drifted to. */
  function chose(colour: string): void {
    history.value = [colour, ...history.value.filter((one) => one !== colour)].slice(0, MOST_CHOSEN);
  }

  /** Whether it was chosen, or is in the palette. */
  const knows = (colour: string): boolean => offers.value.includes(colour);

  async function load(): Promise<void> {
    try {
      const { items } = await api.list('palettes');
      stored.value = new Map(
        items.map(({ revision, id, card, groups }) => [
          id,
          { doc: PaletteSchema.parse({ version: 1, id, card, groups }), revision },
        ]),
      );
    } catch (error) {
      if (!connection.noticed(error)) problem.value = sentence(error);
    }
    void send();
  }

  function soon(): void {
    clearTimeout(timer);
    timer = setTimeout(() => void send(), SEND_MS);
  }

  function put(doc: OwnPalette): void {
    const revision = unsent.value[doc.id]?.revision ?? stored.value.get(doc.id)?.revision ?? null;
    unsent.value = { ...unsent.value, [doc.id]: { doc: PaletteSchema.parse(plain(doc)), revision } };
    soon();
  }

  function docOf(id: string): OwnPalette | null {
    return unsent.value[id]?.doc ?? stored.value.get(id)?.doc ?? null;
  }

  /** Throws a sentence, and changes nothing, where it would have too many colours. */
  function edit(change: (palette: OwnPalette) => void): void {
    const before = open.value && docOf(open.value.id);
    const next = plain(before ?? newPalette(crypto.randomUUID(), freeName('Palette')));
    change(next);
    const read = PaletteSchema.safeParse(next);
    if (!read.success) throw new Error(read.error.issues[0].message);
    put(read.data);
    openId.value = next.id;
  }

  function freeName(wanted: string, except = ''): string {
    return freeNameAmong(
      all.value.filter(({ id }) => id !== except).map(({ card }) => card.name),
      wanted.trim().slice(0, 74) || 'Palette',
    );
  }

  /** A palette of these, in their groups; more than it takes are refused with a sentence. */
  function add(name: string, own: NonNullable<Parameters<typeof newPalette>[2]>): void {
    if (own.length > MOST_PALETTE_COLOURS)
      throw new Error(`It holds ${own.length} colours; a palette takes ${MOST_PALETTE_COLOURS} at most.`);
    const groups = new Set(own.map(({ group }) => group)).size;
    if (groups > MOST_PALETTE_GROUPS)
      throw new Error(`It holds ${groups} groups; a palette takes ${MOST_PALETTE_GROUPS} at most.`);
    const made = newPalette(crypto.randomUUID(), freeName(name), own);
    put(made);
    openId.value = made.id;
  }

  /** Takes the open palette away; answers how that is taken back. */
  async function remove(): Promise<() => Promise<void>> {
    const gone = open.value && docOf(open.value.id);
    if (!gone) return () => Promise.resolve();
    clearTimeout(timer);
    await sending;
    const { [gone.id]: mine, ...rest } = unsent.value;
    if (stored.value.has(gone.id)) await api.remove('palettes', gone.id);
    unsent.value = rest;
    stored.value = new Map([...stored.value].filter(([id]) => id !== gone.id));
    return () => {
      // A palette of its own again: what was deleted has another’s place.
      put({ ...(mine?.doc ?? gone), id: crypto.randomUUID() });
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
      const [next] = Object.values(unsent.value);
      if (!next) return;
      const text = JSON.stringify(next.doc);
      try {
        const kept = await api.save('palettes', next.doc, next.revision);
        stored.value = new Map(stored.value).set(kept.doc.id, { doc: kept.doc, revision: kept.revision });
        const now = unsent.value[next.doc.id];
        const rest = { ...unsent.value };
        delete rest[next.doc.id];
        // What changed since goes on waiting, on what is stored now.
        if (!now || JSON.stringify(now.doc) === text) unsent.value = rest;
        else unsent.value = { ...rest, [next.doc.id]: { ...now, revision: kept.revision } };
      } catch (error) {
        if (connection.noticed(error)) return;
        if (!(await settle(next, error))) return;
      }
    }
  }

  /** What another window changed, deleted or named the same is kept beside this one; false where that can’t be. */
  async function settle({ doc, revision }: Unsent, error: unknown): Promise<boolean> {
    const conflict = api.conflictOf(error);
    const taken = error instanceof api.Refused && error.code === 'name-taken';
    if (!conflict && !taken) {
      problem.value = sentence(error);
      return false;
    }
    const { [doc.id]: mine, ...rest } = unsent.value;
    const latest = mine?.doc ?? doc;
    if (conflict) await refresh(doc.id);
    const name = freeName(latest.card.name, taken ? '' : doc.id);
    const again = conflict
      ? { ...latest, id: crypto.randomUUID(), card: { ...latest.card, name } }
      : { ...latest, card: { ...latest.card, name: name === latest.card.name ? `${name} 2` : name } };
    unsent.value = { ...rest, [again.id]: { doc: again, revision: conflict ? null : revision } };
    if (openId.value === doc.id) openId.value = again.id;
    return true;
  }

  async function refresh(id: string): Promise<void> {
    const found = await api.get('palettes', id).catch(() => null);
    const next = new Map(stored.value);
    if (found) next.set(id, { doc: found.doc, revision: found.revision });
    else next.delete(id);
    stored.value = next;
  }

  connection.whenBack(load);
  void load();
  return {
    history,
    offers,
    all,
    open,
    openId,
    colours,
    problem,
    chose,
    knows,
    edit,
    add,
    remove,
    freeName,
    send,
  };
});
