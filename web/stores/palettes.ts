/**
 * Palettes: every change is kept in the browser at once and sent to the server a moment later; what it doesn’t take yet
 * waits. Beside them, the colours that were chosen last.
 */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { MOST_PALETTE_COLOURS, MOST_PALETTE_GROUPS, newPalette, PaletteSchema, type OwnPalette } from '#core/settings';
import { plain } from '../api/plain';
import { useSentSoon } from './sentSoon';

const MOST_CHOSEN = 16;

export const usePalettes = defineStore('palettes', () => {
  /** The latest first. */
  const history = useLocalStorage<string[]>('colours-chosen', []);
  const openId = useLocalStorage<string>('palette-open', '');
  const {
    docs: all,
    docOf,
    put,
    send,
    load,
    problem,
    freeName,
    remove: removeOne,
  } = useSentSoon({
    collection: 'palettes',
    key: 'palettes-unsent',
    unnamed: 'Palette',
    documentOf: ({ id, card, groups }) => PaletteSchema.parse({ version: 1, id, card, groups }),
    became: (id, other) => {
      if (openId.value === id) openId.value = other;
    },
  });

  const open = computed(() => all.value.find(({ id }) => id === openId.value) ?? all.value[0] ?? null);
  const colours = computed(() => open.value?.groups.flatMap((group) => group.colours) ?? []);
  const offers = computed(() => [...new Set([...colours.value.map(({ colour }) => colour), ...history.value])]);

  /** A colour was chosen by hand, not drifted to. */
  function chose(colour: string): void {
    history.value = [colour, ...history.value.filter((one) => one !== colour)].slice(0, MOST_CHOSEN);
  }

  /** Whether it was chosen, or is in the palette. */
  const knows = (colour: string): boolean => offers.value.includes(colour);

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
    return open.value ? removeOne(open.value.id) : () => Promise.resolve();
  }

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
    load,
    freeName,
    send,
  };
});
