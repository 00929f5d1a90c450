/**
 * Two versions of the brush on the bench: the one that is changed, and one that was pinned. Both are laid on the same
 * strokes, one after the other at a key or side by side.
 */
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { worksOf, type Brush } from '#core/settings';
import { useBrushBench } from './brushBench';
import { plain } from '../api/plain';

export const useCompare = defineStore('compare', () => {
  const bench = useBrushBench();
  const pinned = ref<Brush | null>(null);
  /** Whether the proof shows the pinned version. */
  const showing = ref(false);
  const beside = ref(false);

  /** What is compared with: what was pinned, else the saved brush. */
  const other = computed<Brush | null>(() => {
    const id = bench.doc?.id;
    if (!bench.doc || !id) return null;
    if (pinned.value?.id === id) return pinned.value;
    return bench.saved?.doc ?? null;
  });
  const differs = computed(
    () => other.value !== null && bench.doc !== null && worksOf(other.value) !== worksOf(bench.doc),
  );
  const isPinned = computed(() => pinned.value !== null && pinned.value.id === bench.doc?.id);
  /** The brush that the proof lays its strokes with. */
  const shown = computed(() => (showing.value && differs.value ? other.value : bench.doc));

  /** The brush as it is, or one of its earlier saves. */
  function pin(of: Brush | null = bench.doc): void {
    if (of) pinned.value = plain(of);
    showing.value = false;
  }
  function unpin(): void {
    pinned.value = null;
    showing.value = false;
  }
  function toggle(): void {
    if (differs.value) showing.value = !showing.value;
  }
  /** The pinned version's settings become the brush's. */
  async function takeOther(): Promise<void> {
    const from = other.value;
    if (!from) return;
    const { form, touch, stroke, drift, pen, tooth, colour, parts } = plain(from);
    await bench.edit(
      (brush) => Object.assign(brush, { form, touch, stroke, drift, pen, tooth, colour, parts }),
      'compare',
    );
    showing.value = false;
  }

  return { pinned, showing, beside, other, differs, isPinned, shown, pin, unpin, toggle, takeOther };
});
