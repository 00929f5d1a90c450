/** Brushes as the rack shows them: saved ones and drafts, on the shelves of their packs. */
import { computed, type ComputedRef, type Ref } from 'vue';
import { useRoute } from 'vue-router';
import type { BrushHead } from '#core/stored';
import type { Pack } from '#core/settings';
import { ACTION_CHOICES, labelOf, STROKE_TYPE_CHOICES } from '../bench/labels';
import { holds, inOrder, wordsOf, type Order } from '../controls/finding';
import { useBelts } from '../stores/belts';
import { useLibrary } from '../stores/library';
import { usePacks } from '../stores/packs';

export interface Entry {
  brush: BrushHead;
  base: boolean;
  unsaved: boolean;
  pending: boolean;
}

/** Shelves that aren’t packs. */
export const LOOSE = 'loose';
export const BASE = 'base';
export const RECENT = 'recent';
/** Of belts: before their ids. */
export const BELT = 'belt ';
/** Shown when one asks for them, each in its own order. */
export const isList = (shelf: string): boolean => shelf === RECENT || shelf.startsWith(BELT);

export interface Shelf {
  /** Of its pack, or LOOSE or BASE. */
  id: string;
  pack: Pack | null;
  title: string;
  groups: { name: string; entries: Entry[] }[];
  count: number;
}

/** Of racks side by side, one: its name is '' for one’s own, where what is in no pack lies too. */
export interface Column {
  rack: string;
  shelves: Shelf[];
}

/** What of a brush is searched. */
function textOf({ brush: { card, touch, stroke } }: Entry, form: string, packs: readonly Pack[]): string {
  const made = [labelOf(ACTION_CHOICES, touch.action), labelOf(STROKE_TYPE_CHOICES, stroke.type), form];
  const packed = packs.flatMap((pack) => [pack.card.name, pack.card.author, pack.licence, pack.rack]);
  return [card.name, card.author, ...card.tags, ...made, ...packed].join(' ').toLowerCase();
}

export function useShelves(
  wanted: Readonly<Ref<string>>,
  tag: Readonly<Ref<string>>,
  order: Readonly<Ref<Order>>,
): Record<'shelves' | 'lists' | 'shown', ComputedRef<Shelf[]>> & {
  entries: ComputedRef<Entry[]>;
  columns: ComputedRef<Column[]>;
} {
  const library = useLibrary();
  const packs = usePacks();
  const belts = useBelts();
  const route = useRoute();

  const entries = computed<Entry[]>(() => {
    const drafts = new Map(library.drafts.map((d) => [d.doc.id, d]));
    const saved = library.brushes.map((k) => {
      const draft = drafts.get(k.id);
      return { brush: draft?.doc ?? k, base: k.base, unsaved: draft !== undefined, pending: draft?.pending ?? false };
    });
    const fresh = library.drafts
      .filter((d) => !library.has('brushes', d.doc.id))
      .map((d) => ({ brush: d.doc, base: false, unsaved: true, pending: d.pending }));
    return [...fresh.reverse(), ...saved];
  });

  /** Made once for all keystrokes. */
  const texts = computed(
    () =>
      new Map(
        entries.value.map((entry) => {
          const form = library.alpha(entry.brush.form.alphaId)?.card.name ?? '';
          return [entry.brush.id, textOf(entry, form, packs.packsOf.get(entry.brush.id) ?? [])];
        }),
      ),
  );
  const found = computed(() => {
    const words = wordsOf(wanted.value);
    return entries.value.filter(({ brush }) => {
      const text = texts.value.get(brush.id) ?? '';
      return (tag.value === '' || brush.card.tags.includes(tag.value)) && holds(text, words);
    });
  });

  const ordered = (some: readonly Entry[]): Entry[] =>
    inOrder(some, order.value, ({ brush }) => ({
      name: brush.card.name,
      at: library.listedBrush(brush.id)?.updatedAt ?? null,
    }));

  const byId = computed(() => new Map(found.value.map((entry) => [entry.brush.id, entry])));
  const named = (ids: readonly string[]): Entry[] =>
    ids.map((id) => byId.value.get(id)).filter((entry) => entry !== undefined);
  const shelf = (id: string, title: string, groups: Shelf['groups'], pack: Pack | null = null): Shelf => ({
    id,
    title,
    pack,
    groups,
    count: groups.reduce((sum, { entries: here }) => sum + here.length, 0),
  });

  const lists = computed<Shelf[]>(() => [
    shelf(RECENT, 'Recently opened', [{ name: '', entries: named(belts.recent) }]),
    ...belts.all.map(({ id, name, ids }) => shelf(BELT + id, name, [{ name: '', entries: ordered(named(ids)) }])),
  ]);

  const shelves = computed<Shelf[]>(() => {
    const own = found.value;
    const loose = own.filter(({ brush, base }) => !base && !packs.packsOf.has(brush.id));
    return [
      ...packs.all.map((pack) =>
        shelf(
          pack.id,
          pack.card.name,
          pack.groups.map(({ name, brushes }) => ({
            name,
            entries: ordered(named(brushes)),
          })),
          pack,
        ),
      ),
      shelf(LOOSE, 'Not in a pack', [{ name: '', entries: ordered(loose) }]),
      shelf(BASE, 'Base brushes', [{ name: '', entries: own.filter(({ base }) => base) }]),
    ];
  });

  const only = computed(() => String(route.query['shelf'] ?? ''));
  const ofRack = computed(() => (typeof route.query['rack'] === 'string' ? route.query['rack'] : null));
  const isOfRack = ({ pack }: Shelf): boolean => pack !== null && pack.rack === ofRack.value;
  const searched = computed(() => wanted.value.trim() !== '' || tag.value !== '');
  const shown = computed(() => {
    const one = [...shelves.value, ...lists.value].filter(({ id }) => id === only.value);
    const some = one.length > 0 ? one : ofRack.value === null ? shelves.value : shelves.value.filter(isOfRack);
    // An empty pack is shown, to be filled; not among what was searched for.
    return some.filter(({ pack, count, id }) => count > 0 || id === only.value || (pack !== null && !searched.value));
  });
  const columns = computed<Column[]>(() => {
    if (!('beside' in route.query) || only.value !== '' || ofRack.value !== null)
      return [{ rack: '', shelves: shown.value }];
    return ['', ...packs.racks]
      .map((rack) => ({ rack, shelves: shown.value.filter(({ pack }) => (pack?.rack ?? '') === rack) }))
      .filter((column) => column.shelves.length > 0);
  });
  return { entries, shelves, lists, shown, columns };
}
