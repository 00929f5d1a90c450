<script setup lang="ts">
/** What is at hand beside the slab: symmetry, masks, numbers, levels, set forms and pictures. */
import { CircleDashed, FlipHorizontal2, Hash, Image, Layers, Shapes } from '@lucide/vue';
import type { Component } from 'vue';
import { SLAB_TABS, useSlabTools, type SlabTab } from '../stores/slabTools';
import LevelTab from './LevelTab.vue';
import MaskTab from './MaskTab.vue';
import NumberTab from './NumberTab.vue';
import PictureTab from './PictureTab.vue';
import SetFormTab from './SetFormTab.vue';
import SymmetryTab from './SymmetryTab.vue';
import TabBar from '../controls/TabBar.vue';

const tools = useSlabTools();
const ICONS: Record<SlabTab, Component> = {
  symmetry: FlipHorizontal2,
  mask: CircleDashed,
  number: Hash,
  levels: Layers,
  setForms: Shapes,
  pictures: Image,
};
const LABELS: Record<SlabTab, string> = {
  symmetry: 'Symmetry',
  mask: 'Mask',
  number: 'Number',
  levels: 'Levels',
  setForms: 'Set forms',
  pictures: 'Pictures',
};
</script>

<template>
  <div class="column">
    <TabBar
      v-model="tools.tab"
      label="Beside the slab"
      class="tabs"
      rail
      :tabs="SLAB_TABS.map((value) => ({ value, label: LABELS[value], icon: ICONS[value] }))"
    >
      <SymmetryTab v-if="tools.tab === 'symmetry'" />
      <MaskTab v-else-if="tools.tab === 'mask'" />
      <NumberTab v-else-if="tools.tab === 'number'" />
      <LevelTab v-else-if="tools.tab === 'levels'" />
      <SetFormTab v-else-if="tools.tab === 'setForms'" />
      <PictureTab v-else />
    </TabBar>
  </div>
</template>

<style scoped>
.column {
  min-height: 0;
  border-right: 1px solid var(--line);
  background: var(--page);
}
.tabs {
  height: 100%;
}
.tabs :deep(.el-tabs__content) {
  min-width: 0;
  overflow: auto;
  padding: 12px;
}
:deep(.tab) {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  align-content: start;
  --label: 52px;
  --typed: 54px;
  --name: 32px;
}
/* Two fields beside each other have room for their numbers. */
:deep(.tab .two) {
  --name: 12px;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
}
:deep(.tab .three) {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px;
}
:deep(.tab .push) {
  height: 28px;
  padding: 0 6px;
}
:deep(.tab .heading) {
  padding-top: 6px;
  border-top: 1px solid var(--line-soft);
}
:deep(.tab ul) {
  display: grid;
  gap: 4px;
}
:deep(.tab li) {
  display: flex;
  align-items: center;
  gap: 6px;
}
:deep(.tab li > .look-row) {
  flex: 1;
  overflow: hidden;
}
</style>
