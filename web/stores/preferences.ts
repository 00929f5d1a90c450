/** How this hand likes to work, kept in this browser; every window of it follows a change. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { preferencesIn, usualPreferences, type Preferences } from '#core/settings';

export const usePreferences = defineStore('preferences', () => {
  const now = useLocalStorage<Preferences>('preferences', usualPreferences(), {
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
