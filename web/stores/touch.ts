/** What fingers are for: strokes, or moving the view, by choice and once a pen was seen. */
import { useEventListener } from '@vueuse/core';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { usePreferences } from './preferences';

export const useTouch = defineStore('touch', () => {
  const preferences = usePreferences();
  const penSeen = ref(false);

  /** Sees pens from now on, wherever on the page they are. */
  function watchPens(): void {
    for (const type of ['pointerdown', 'pointermove'] as const)
      useEventListener(
        window,
        type,
        (e: PointerEvent) => {
          if (e.pointerType === 'pen') penSeen.value = true;
        },
        { capture: true, passive: true },
      );
  }
  /** Whether this press is a finger's that moves the view. */
  function moves(e: PointerEvent): boolean {
    const { finger, penRules } = preferences.now;
    return e.pointerType === 'touch' && (finger === 'move' || (penRules && penSeen.value));
  }
  return { penSeen, watchPens, moves };
});
