<script setup lang="ts">
/** How the brush lays it down: stroke type and mapping first, then everything else by what it is about. */
import { useLocalStorage } from '@vueuse/core';
import { computed, watch } from 'vue';
import type { AlphaHead } from '#core/stored';
import { BrushSchema, paints, paintsOnly, setsParts, SETTING_GROUPS, type Brush } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import CardTab from './CardTab.vue';
import ColourTab from './ColourTab.vue';
import DriftTab from './DriftTab.vue';
import { MAPPING_CHOICES } from './labels';
import PenTab from './PenTab.vue';
import ProfilePanel from './ProfilePanel.vue';
import SettingList from '../controls/SettingList.vue';
import StrokeTab from './StrokeTab.vue';
import StrokeTypes from './StrokeTypes.vue';
import ToothTab from './ToothTab.vue';
import TouchTab from './TouchTab.vue';
import TravelMenu from './TravelMenu.vue';
import TextField from '../controls/TextField.vue';
import TabBar from '../controls/TabBar.vue';

const props = defineProps<{ brush: Brush; alpha: AlphaHead | null; nameProblem: string | null; base: boolean }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const TABS = ['Touch', 'Stroke', 'Drift', 'Pen', 'Tooth', 'Colour', 'Card'] as const;
const tab = useLocalStorage<(typeof TABS)[number]>('brush-tab', 'Touch');
if (!TABS.includes(tab.value)) tab.value = 'Touch';
watch(
  () => props.nameProblem,
  (problem) => {
    if (problem) document.getElementById('brush-name')?.focus();
  },
);
/** It sets parts down: what is about the clay alone isn't asked. */
const inserts = computed(() => setsParts(props.brush));
const tabs = computed(() => TABS.filter((name) => !inserts.value || (name !== 'Tooth' && name !== 'Colour')));
watch(tabs, (now) => !now.includes(tab.value) && (tab.value = 'Touch'), { immediate: true });
/** What the open tab is of; the card belongs to its brush alone. */
const group = computed(() => SETTING_GROUPS.find((one) => one === tab.value.toLowerCase()) ?? null);
/** Tabs where something differs from what a new brush has, so that an expert sees where to look. */
const marked = computed(() => {
  const { drift, pen, tooth, stroke } = props.brush;
  return new Set([
    ...(drift.count > 1 || drift.along + drift.across + drift.size + drift.turn + drift.squash + drift.flip > 0
      ? ['Drift']
      : []),
    ...([pen.pressureSize, pen.pressureStrength, pen.speedSize, pen.speedStrength].some(
      (l) => l.low !== 100 || l.high !== 100,
    )
      ? ['Pen']
      : []),
    ...(tooth.alphaId ? ['Tooth'] : []),
    ...(paints(props.brush) ? ['Colour'] : []),
    ...(stroke.taperStart + stroke.taperEnd + stroke.fade + stroke.steady > 0 || stroke.turnFrom !== 'fixed'
      ? ['Stroke']
      : []),
  ]);
});
</script>

<template>
  <div class="column">
    <div class="head">
      <label class="row name"
        ><span class="label">Name</span
        ><TextField
          id="brush-name"
          :bad="!!nameProblem"
          maxlength="80"
          :model-value="brush.card.name"
          @update:model-value="edit((b) => (b.card.name = $event))"
      /></label>
      <TravelMenu :brush="brush" :open="group" @edit="edit" />
    </div>
    <p v-if="nameProblem" class="sentence-bad" role="alert">{{ nameProblem }}</p>
    <StrokeTypes :model-value="brush.stroke.type" @update:model-value="edit((b) => (b.stroke.type = $event))" />
    <ChoiceBar
      v-if="!inserts"
      class="mapping"
      label="Mapping"
      :model-value="brush.stroke.mapping"
      :options="MAPPING_CHOICES"
      @update:model-value="edit((b) => (b.stroke.mapping = $event))"
    />
    <SettingList
      v-if="!inserts && brush.stroke.mapping === 'wrapped'"
      :schema="BrushSchema"
      :of="brush"
      :paths="['form.tile']"
      @edit="edit"
    />
    <TabBar
      v-model="tab"
      label="Settings of the brush"
      :tabs="tabs.map((value) => ({ value, label: value, marked: marked.has(value) }))"
    >
      <TouchTab v-if="tab === 'Touch'" :brush="brush" @edit="edit" />
      <StrokeTab v-else-if="tab === 'Stroke'" :brush="brush" @edit="edit" />
      <DriftTab v-else-if="tab === 'Drift'" :brush="brush" @edit="edit" />
      <PenTab v-else-if="tab === 'Pen'" :brush="brush" @edit="edit" />
      <ToothTab v-else-if="tab === 'Tooth'" :brush="brush" @edit="edit" />
      <ColourTab v-else-if="tab === 'Colour'" :brush="brush" :coloured="!!alpha?.lineage.colours" @edit="edit" />
      <CardTab v-else :brush="brush" :name-problem="nameProblem" :base="base" @edit="edit" />
    </TabBar>
    <ProfilePanel v-if="!inserts && !paintsOnly(brush)" :brush="brush" :alpha="alpha" @edit="edit" />
  </div>
</template>

<style scoped>
.column {
  --label: 92px;
  display: grid;
  gap: 8px;
  align-content: start;
  grid-auto-rows: max-content;
  grid-template-columns: minmax(0, 1fr);
  padding: 12px 14px;
  overflow: auto;
}
.head {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px;
  align-items: center;
}
.mapping :deep(.el-radio-button:nth-child(n) .el-radio-button__inner) {
  padding: 0 3px;
  font-size: 12px;
  letter-spacing: -0.01em;
}
.name {
  grid-template-columns: 44px 1fr;
}
:deep(.el-tabs--top .el-tabs__item.is-top:nth-child(n)) {
  padding: 0 4px;
}
:deep(.tab) {
  display: grid;
  gap: 5px;
  align-content: start;
  --label: 92px;
}
:deep(.tab .heading) {
  margin-top: 6px;
}
:deep(.tab .row) {
  grid-template-columns: 92px 1fr;
  min-height: 28px;
}
</style>
