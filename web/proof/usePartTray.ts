/**
 * Picking the next part at the pointer: by keys, or in a tray while a key is held, which the wheel slides. What is
 * picked goes with the strokes that follow, and leaves those before as they are; nothing picked leaves it to the set.
 */
import { useEventListener } from '@vueuse/core';
import { computed, ref, watch, type Ref } from 'vue';
import { setsParts, type Brush } from '#core/settings';
import { useShortcuts } from '../keys/shortcuts';

export interface PartTrayOptions {
  surface: Ref<HTMLElement | undefined>;
  brush: () => Brush;
  /** The ghost under the pointer is another one now. */
  changed: () => void;
}

export function usePartTray({ surface, brush, changed }: PartTrayOptions) {
  const held = ref(false);
  /** Place in the set; null for the set's own order. */
  const picked = ref<number | null>(null);
  const count = computed(() => (setsParts(brush()) ? brush().parts.entries.length : 0));
  const open = computed(() => held.value && count.value > 0);
  watch(
    () => [brush().id, count.value],
    () => (picked.value = null),
  );

  /** Round through the parts, and the set's own order before the first. */
  function step(by: number): void {
    if (count.value === 0) return;
    const at = ((picked.value ?? -1) + 1 + by + count.value + 1) % (count.value + 1);
    picked.value = at === 0 ? null : at - 1;
    changed();
  }

  useEventListener(
    surface,
    'wheel',
    (e: WheelEvent) => {
      if (!open.value || e.deltaY === 0) return;
      e.preventDefault();
      e.stopImmediatePropagation();
      step(e.deltaY > 0 ? 1 : -1);
    },
    { capture: true, passive: false },
  );
  useShortcuts([
    {
      command: 'tray',
      hold: (down) => (held.value = down),
    },
    { command: 'nextPart', when: () => count.value > 0, run: () => step(1) },
    { command: 'lastPart', when: () => count.value > 0, run: () => step(-1) },
  ]);
  return { open, picked };
}
