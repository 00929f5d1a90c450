/**
 * The brushes of the slab with the settings of this hand; they are tools, not kept brushes. And what the hand is at.
 */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { SLAB_BRUSHES } from '#core/presets';
import {
  BRUSH_MIGRATIONS,
  BRUSH_VERSION,
  BrushSchema,
  ByNumberSchema,
  readDocument,
  type Brush,
  type ByNumber,
  type NumberKind,
} from '#core/settings';
import { useLibrary } from './library';

export const SLAB_TABS = ['symmetry', 'mask', 'number', 'levels', 'setForms', 'pictures'] as const;
export type SlabTab = (typeof SLAB_TABS)[number];
export const MASK_SHAPES = ['brush', 'rectangle', 'ellipse', 'lasso'] as const;
export type MaskShapeKind = (typeof MASK_SHAPES)[number];

export const useSlabTools = defineStore('slab-tools', () => {
  const library = useLibrary();
  const stored = useLocalStorage<unknown[]>('slab-tools', []);
  const brushes = ref<Brush[]>(
    SLAB_BRUSHES.map((preset) => {
      const kept = stored.value
        .map((s) => readDocument('brush', BrushSchema, BRUSH_VERSION, s, BRUSH_MIGRATIONS))
        .find((r) => r.ok && r.value.id === preset.id);
      return kept?.ok ? kept.value : structuredClone(preset);
    }),
  );
  const chosenId = ref(brushes.value[0].id);
  /** While a key is held, Smooth takes the chosen brush's place. */
  const smoothing = ref(false);
  const smooth = computed(() => brushes.value.find((b) => b.touch.action === 'smooth')!);
  const brush = computed(() => (smoothing.value ? smooth.value : brushes.value.find((b) => b.id === chosenId.value)!));
  const alpha = computed(() => library.alpha(brush.value.form.alphaId));

  const tab = useLocalStorage<SlabTab>('slab-tab', 'symmetry');
  if (!SLAB_TABS.includes(tab.value)) tab.value = 'symmetry';
  const maskShape = ref<MaskShapeKind>('brush');
  /** The next click on the slab sets the point that symmetry goes about. */
  const pickingPoint = ref(false);
  const setFormId = ref<string | null>(null);
  const referenceId = ref<string | null>(null);

  const numbers = ref<ByNumber>(ByNumberSchema.parse({}));
  /** The change by number that was made last, to be made again exactly. */
  const lastNumber = ref<{ change: NumberKind; numbers: ByNumber } | null>(null);

  function choose(id: string): void {
    chosenId.value = id;
    if (brush.value.touch.action === 'mask') tab.value = 'mask';
  }

  function edit(change: (brush: Brush) => void): void {
    change(brush.value);
    stored.value = JSON.parse(JSON.stringify(brushes.value)) as unknown[];
  }

  function reset(): void {
    const preset = SLAB_BRUSHES.find((b) => b.id === chosenId.value)!;
    const at = brushes.value.findIndex((b) => b.id === chosenId.value);
    brushes.value[at] = structuredClone(preset);
    stored.value = JSON.parse(JSON.stringify(brushes.value)) as unknown[];
  }

  return {
    brushes,
    chosenId,
    smoothing,
    brush,
    alpha,
    tab,
    maskShape,
    pickingPoint,
    setFormId,
    referenceId,
    numbers,
    lastNumber,
    choose,
    edit,
    reset,
  };
});
