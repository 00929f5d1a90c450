/** Work on this page that has no draft yet, wherever it is done: what happens to it when the page is closed. */
import { defineStore } from 'pinia';

export interface Unkept {
  /** Writes it down, as far as there is time. */
  hurry(): void;
  /** Whether closing the page now would lose some of it. */
  atRisk(): boolean;
}

export const useUnkept = defineStore('unkept', () => {
  const all = new Set<Unkept>();

  /** The page may be gone next. */
  function keepAll(): void {
    for (const one of all) one.hurry();
  }

  return {
    watch: (one: Unkept): void => void all.add(one),
    keepAll,
    anyAtRisk: (): boolean => [...all].some((one) => one.atRisk()),
  };
});
