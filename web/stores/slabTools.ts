/** The four brushes of the slab with the settings of this hand; they are tools, not kept brushes. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { SLAB_BRUSHES } from '#core/presets';
import { BrushSchema, type Brush } from '#core/settings';

export const useSlabTools = defineStore('slab-tools', () => {
  const stored = useLocalStorage<unknown[]>('slab-tools', []);
  const brushes = ref<Brush[]>(SLAB_BRUSHES.map((preset) => {
    const kept = stored.value.map((s) => BrushSchema.safeParse(s)).find((r) => r.success && r.data.id === preset.id);
    return kept?.success ? kept.data : structuredClone(preset);
  }));
  const chosenId = ref(brushes.value[0]!.id);
  const brush = computed(() => brushes.value.find((b) => b.id === chosenId.value)!);
  const mirrorX = ref(false);
  const mirrorY = ref(false);

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

  return { brushes, chosenId, brush, mirrorX, mirrorY, edit, reset };
});
