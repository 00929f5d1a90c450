<script setup lang="ts">
/** The slab's own brushes with the settings that the hand reaches for. */
import { RotateCcw } from '@lucide/vue';
import { BrushSchema, settingAt } from '#core/settings';
import BrushDisc from '../parts/BrushDisc.vue';
import SettingSlider from '../parts/SettingSlider.vue';
import { useShortcuts } from '../parts/shortcuts';
import { useSlabTools } from '../stores/slabTools';

const tools = useSlabTools();
const KEYS = ['L', 'C', 'S', 'M'] as const;
useShortcuts(tools.brushes.map((brush, i) => ({ keys: KEYS[i]!, what: `${brush.card.name} brush`, run: () => (tools.chosenId = brush.id) })));
const meta = (path: string) => settingAt(BrushSchema, path);
</script>

<template>
  <footer class="belt" aria-label="Belt">
    <button
      v-for="(brush, i) in tools.brushes" :key="brush.id" type="button" class="tool" :class="{ on: brush.id === tools.chosenId }" :aria-pressed="brush.id === tools.chosenId"
      :title="`${brush.card.notes} (${KEYS[i]})`" @click="tools.chosenId = brush.id"
    >
      <span class="ring"><BrushDisc :brush="brush" :size="48" /></span>{{ brush.card.name }}
    </button>
    <i />
    <div class="sliders">
      <SettingSlider :meta="meta('stroke.size')" :model-value="tools.brush.stroke.size" @update:model-value="(v) => tools.edit((b) => { b.stroke.size = v; })" />
      <SettingSlider :meta="meta('stroke.spacing')" :model-value="tools.brush.stroke.spacing" :disabled="tools.brush.touch.action === 'move'" @update:model-value="(v) => tools.edit((b) => { b.stroke.spacing = v; })" />
      <SettingSlider :meta="meta('form.depth')" :model-value="tools.brush.form.depth" :disabled="tools.brush.touch.action === 'move' || tools.brush.touch.action === 'smooth'" @update:model-value="(v) => tools.edit((b) => { b.form.depth = v; })" />
      <SettingSlider :meta="meta('touch.strength')" :model-value="tools.brush.touch.strength" @update:model-value="(v) => tools.edit((b) => { b.touch.strength = v; })" />
      <SettingSlider :meta="meta('stroke.scatter')" :model-value="tools.brush.stroke.scatter" :disabled="tools.brush.touch.action === 'move'" @update:model-value="(v) => tools.edit((b) => { b.stroke.scatter = v; })" />
      <SettingSlider v-if="tools.brush.touch.action === 'crease'" :meta="meta('touch.pinch')" :model-value="tools.brush.touch.pinch" @update:model-value="(v) => tools.edit((b) => { b.touch.pinch = v; })" />
    </div>
    <button class="btn quiet" type="button" :title="`${tools.brush.card.name} back to its defaults`" aria-label="Back to the defaults" @click="tools.reset()"><RotateCcw :size="15" /></button>
  </footer>
</template>

<style scoped>
.belt { height: 92px; display: flex; align-items: center; gap: 4px; padding: 0 14px; border-top: 1px solid var(--line); background: var(--leaf); }
.tool { display: flex; flex-direction: column; align-items: center; gap: 4px; width: 76px; flex: none; border: 0; background: none; cursor: pointer; font-size: var(--small); }
.ring { border-radius: 50%; padding: 3px; border: 1px solid var(--line); background: var(--field); }
.tool:hover .ring { border-color: var(--ink-3); }
.on { font-weight: 600; }
.on .ring { border-color: var(--act); box-shadow: 0 0 0 2px var(--act); }
i { width: 1px; height: 60px; background: var(--line); margin: 0 12px; }
.sliders { flex: 1; max-width: 860px; display: grid; grid-template-columns: repeat(3, minmax(0, 1fr)); gap: 4px 24px; --label: 60px; }
.sliders :deep(.slider:has(:disabled)) { opacity: .4; }
</style>
