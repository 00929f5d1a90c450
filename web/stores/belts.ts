/**
 * Belts: brushes at hand, one belt a task. The first is there always, and takes what is saved; the others are made,
 * named, ordered and sent as packs are. Favourites stand on one of them.
 */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { BELT_VERSION, BeltSchema, FAVOURITES_ID, newBelt, type Belt } from '#core/settings';
import { plain } from '../api/plain';
import { useLibrary } from './library';
import { useSentSoon } from './sentSoon';

/** The id of the first belt, which is no document. */
export const FIRST = '';
const FIRST_NAME = 'At hand';
const FAVOURITES = 'Favourites';
const MOST_RECENT = 24;

export const useBelts = defineStore('belts', () => {
  const library = useLibrary();
  const wanted = useLocalStorage<string>('belt-open', FIRST);
  /** Brushes that were opened last in this browser, the last first. */
  const recent = useLocalStorage<string[]>('brushes-recent', []);
  const { docs, docOf, put, remove, freeName, send, load, loaded, problem } = useSentSoon<'belts'>({
    collection: 'belts',
    key: 'belts-unsent',
    unnamed: 'Belt',
    documentOf: ({ id, card, brushes }) => BeltSchema.parse({ version: BELT_VERSION, id, card, brushes }),
    became: (id, other) => {
      if (wanted.value === id) wanted.value = other;
    },
  });

  const all = computed(() => [
    { id: FIRST, name: FIRST_NAME, ids: library.beltIds },
    ...docs.value.map(({ id, card, brushes }) => ({ id, name: card.name, ids: brushes })),
  ]);
  /** What is open; the first where that is gone. */
  const open = computed(() => all.value.find(({ id }) => id === wanted.value) ?? all.value[0]);
  const favourites = computed(() => new Set(docOf(FAVOURITES_ID)?.brushes));

  const namedIds = (id: string): readonly string[] => all.value.find((belt) => belt.id === id)?.ids ?? [];

  /** Throws a sentence, and changes nothing, where it would hold too many. */
  async function set(id: string, ids: readonly string[]): Promise<void> {
    if (id === FIRST) return library.setBelt(ids);
    const before = docOf(id);
    if (!before && id !== FAVOURITES_ID) throw new Error('This belt isn’t here any more.');
    putChecked({ ...(before ?? newBelt(id, freeName(FAVOURITES))), brushes: [...ids] });
  }

  function putChecked(belt: Belt): void {
    const read = BeltSchema.safeParse(plain(belt));
    if (!read.success) throw new Error(read.error.issues[0].message);
    put(read.data);
  }

  /** Puts a brush on, or takes it off. */
  async function toggle(id: string, brush: string): Promise<void> {
    // Until they were fetched once nobody knows what stands on them.
    if (id === FAVOURITES_ID && !docOf(id) && !loaded.value) {
      await load();
      if (!loaded.value) throw new Error('The server can’t be reached, so favourites can’t be changed yet.');
    }
    const ids = namedIds(id);
    return set(id, ids.includes(brush) ? ids.filter((one) => one !== brush) : [...ids, brush]);
  }

  /** In the order that those which are shown were dragged into; what isn’t shown stays behind them. */
  function order(id: string, shown: readonly string[]): Promise<void> {
    return set(id, [...shown, ...namedIds(id).filter((one) => !shown.includes(one))]);
  }

  /** Before the nearest of what follows that stays where it is. */
  function place(id: string, brushes: readonly string[], following: readonly string[]): Promise<void> {
    const rest = namedIds(id).filter((one) => !brushes.includes(one));
    const before = following.find((one) => rest.includes(one));
    const at = before === undefined ? rest.length : rest.indexOf(before);
    const moved = brushes.filter((one) => namedIds(id).includes(one));
    return set(id, rest.toSpliced(at, 0, ...moved));
  }

  /** What is saved is at hand. */
  async function add(brush: string): Promise<void> {
    if (!open.value.ids.includes(brush)) await set(open.value.id, [...open.value.ids, brush]);
  }

  function create(name: string, ids: readonly string[] = []): string {
    const belt = newBelt(crypto.randomUUID(), freeName(name), ids);
    put(belt);
    wanted.value = belt.id;
    return belt.id;
  }

  function rename(id: string, name: string): void {
    const belt = docOf(id);
    if (belt && name.trim()) putChecked({ ...belt, card: { ...belt.card, name: freeName(name, id) } });
  }

  /** The next belt, or the one before, round and round. */
  function turn(by: 1 | -1): void {
    const at = all.value.findIndex(({ id }) => id === open.value.id);
    wanted.value = all.value[(at + by + all.value.length) % all.value.length].id;
  }

  function opened(brush: string): void {
    recent.value = [brush, ...recent.value.filter((id) => id !== brush)].slice(0, MOST_RECENT);
  }

  return {
    all,
    open,
    wanted,
    favourites,
    recent,
    problem,
    set,
    toggle,
    order,
    place,
    add,
    create,
    rename,
    remove,
    turn,
    opened,
    load,
    send,
  };
});
