/** A walk through the product in six stops. It can be left at any of them, and goes on there when it is taken again. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { useLibrary } from './library';

export interface Stop {
  /** Where it is; what has to be on the page there. */
  to: string;
  target: string;
  title: string;
  text: string;
  /** Where the card stands beside it. */
  side?: 'right' | 'left' | 'top';
}

export const useTour = defineStore('tour', () => {
  const library = useLibrary();
  /** The next stop of a tour that was left, 0 where none was. */
  const left = useLocalStorage('tour-stop', 0);
  const open = ref(false);

  const stops = computed<Stop[]>(() => {
    const brush = library.beltIds[0] ?? library.brushes[0]?.id;
    const bench = brush ? `/bench/brush/${brush}` : '/bench';
    return [
      {
        to: '/',
        target: 'nav[aria-label="Places"] a:first-child',
        title: 'The rack',
        text: 'Your brushes stand here, in packs. Click one to open it; drag it to another place or onto a belt.',
      },
      {
        to: '/sources',
        target: '[data-tour="forms"]',
        title: 'Get a form',
        text: 'Sculpt a slab, set lettering, grow a pattern, or open pictures and 3D scans. Each is cast into an alpha: a greyscale height picture.',
      },
      {
        to: bench,
        target: '[data-leaf="left"]',
        side: 'right',
        title: 'Make the brush',
        text: 'An alpha, how the stroke lays it down, how it falls off, how much it varies. Every slider takes a typed number.',
      },
      {
        to: bench,
        target: '[data-leaf="right"]',
        side: 'left',
        title: 'Prove it',
        text: 'Draw on the body. Change a setting afterwards, and the strokes you drew follow it.',
      },
      {
        to: bench,
        target: 'footer[aria-label="Belt"]',
        side: 'top',
        title: 'The belt',
        text: 'Brushes at hand for one task. Ctrl with the arrow keys goes along it; Shift with a digit takes one.',
      },
      {
        to: bench,
        target: '.bar [aria-label="Settings"]',
        title: 'Make it yours',
        text: 'Keys, theme, pen and touch, units and your name for credit. This tour is there too, under About.',
      },
    ];
  });

  function begin(): void {
    if (left.value >= stops.value.length) left.value = 0;
    open.value = true;
  }
  /** The stop that is seen now; past the last one the tour is done. */
  function at(stop: number): void {
    left.value = stop;
  }
  function leave(): void {
    open.value = false;
  }
  function done(): void {
    left.value = 0;
    open.value = false;
  }

  return { stops, open, left, begin, at, leave, done };
});
