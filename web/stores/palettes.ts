/** Colours at hand: the palette that is open, and those that were chosen last. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';

const MOST_CHOSEN = 16;

export const usePalettes = defineStore('palettes', () => {
  /** The latest first. */
  const history = useLocalStorage<string[]>('colours-chosen', []);
  const offers = computed(() => history.value);

  /** A colour was chosen by hand, not drifted to. */
  function chose(colour: string): void {
    history.value = [colour, ...history.value.filter((one) => one !== colour)].slice(0, MOST_CHOSEN);
  }

  /** Whether it was chosen, or is in the palette. */
  const knows = (colour: string): boolean => offers.value.includes(colour);

  return { knows, history, offers, chose };
});
