<script setup lang="ts">
/** What is at hand beside the slab: symmetry, masks, numbers, levels, pieces and pictures. */
import { SLAB_TABS, useSlabTools, type SlabTab } from '../stores/slabTools';
import LevelTab from './LevelTab.vue';
import MaskTab from './MaskTab.vue';
import NumberTab from './NumberTab.vue';
import PictureTab from './PictureTab.vue';
import PieceTab from './PieceTab.vue';
import SymmetryTab from './SymmetryTab.vue';

const tools = useSlabTools();
const LABELS: Record<SlabTab, string> = {
  symmetry: 'Symmetry',
  mask: 'Mask',
  number: 'Number',
  levels: 'Levels',
  pieces: 'Pieces',
  pictures: 'Pictures',
};
</script>

<template>
  <div class="column">
    <div class="tabs" role="tablist" aria-label="Beside the slab">
      <button
        v-for="t in SLAB_TABS"
        :key="t"
        type="button"
        role="tab"
        :aria-selected="tools.tab === t"
        :class="{ on: tools.tab === t }"
        @click="tools.tab = t"
      >
        {{ LABELS[t] }}
      </button>
    </div>
    <div class="content">
      <SymmetryTab v-if="tools.tab === 'symmetry'" />
      <MaskTab v-else-if="tools.tab === 'mask'" />
      <NumberTab v-else-if="tools.tab === 'number'" />
      <LevelTab v-else-if="tools.tab === 'levels'" />
      <PieceTab v-else-if="tools.tab === 'pieces'" />
      <PictureTab v-else />
    </div>
  </div>
</template>

<style scoped>
.column {
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: 0;
  border-right: 1px solid var(--line);
  background: var(--page);
}
.tabs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  border-bottom: 1px solid var(--line);
}
.tabs button {
  height: 30px;
  border: 0;
  border-bottom: 2px solid transparent;
  background: none;
  cursor: pointer;
  color: var(--ink-2);
  padding: 0;
}
.tabs button:hover {
  color: var(--ink);
}
.tabs .on {
  color: var(--ink);
  font-weight: 600;
  border-bottom-color: var(--act);
}
.content {
  overflow: auto;
  padding: 12px;
}
</style>
