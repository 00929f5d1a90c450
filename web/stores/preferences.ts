/** How this hand likes to work, kept in this browser; every window of it follows a change. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { preferencesIn, PreferencesSchema, usualPreferences, type Preferences } from '#core/settings';

/** Where nothing is kept yet: the theme that an earlier version kept by itself, and everything else as usual. */
function first(): Preferences {
  const usual = usualPreferences();
  const theme = PreferencesSchema.shape.theme.safeParse(globalThis.localStorage?.getItem('theme') ?? undefined);
  return theme.success ? { ...usual, theme: theme.data } : usual;
}

export const usePreferences = defineStore('preferences', () => {
  const now = useLocalStorage<Preferences>('preferences', first(), {
    serializer: { read: preferencesIn, write: (preferences) => JSON.stringify(preferences) },
  });
  function change(some: Partial<Preferences>): void {
    now.value = { ...now.value, ...some };
  }
  /** Who makes what is new here. */
  const author = (): string => now.value.author.trim();
  /** Bodies and slabs have no size of their own: one of their units is so long in a file. */
  const millimetres = (): number => now.value.mmPerUnit;
  /** What strokes may keep for undo. */
  const undoBytes = (): number => now.value.undoMb * 2 ** 20;
  return { now, change, author, millimetres, undoBytes };
});
