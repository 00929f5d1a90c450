<script setup lang="ts">
/** How the brush lays it down: stroke type and mapping first, then everything else by what it is about. */
import { useLocalStorage } from '@vueuse/core';
import { computed, watch } from 'vue';
import type { AlphaHead } from '#core/kept';
import type { Brush } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import CardTab from './CardTab.vue';
import DriftTab from './DriftTab.vue';
import { MAPPING_CHOICES } from './labels';
import PenTab from './PenTab.vue';
import ProfilePanel from './ProfilePanel.vue';
import SettingList from './SettingList.vue';
import StrokeTab from './StrokeTab.vue';
import StrokeTypes from './StrokeTypes.vue';
import ToothTab from './ToothTab.vue';
import TouchTab from './TouchTab.vue';

const props = defineProps<{ brush: Brush; alpha: AlphaHead | null; nameProblem: string | null; base: boolean }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const TABS = ['Touch', 'Stroke', 'Drift', 'Pen', 'Tooth', 'Card'] as const;
const tab = useLocalStorage<(typeof TABS)[number]>('brush-tab', 'Touch');
if (!TABS.includes(tab.value)) tab.value = 'Touch';
watch(
  () => props.nameProblem,
  (problem) => {
    if (problem) document.getElementById('brush-name')?.focus();
  },
);
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
    ...(stroke.taperStart + stroke.taperEnd + stroke.fade + stroke.steady > 0 || stroke.turnFrom !== 'fixed'
      ? ['Stroke']
      : []),
  ]);
});
</script>

<template>
  <div class="column">
    <label class="row name"
      ><span class="label">Name</span
      ><input
        id="brush-name"
        class="field"
        :class="{ bad: nameProblem }"
        maxlength="80"
        :value="brush.card.name"
        @input="
          (e) =>
            edit((b) => {
              b.card.name = (e.target as HTMLInputElement).value;
            })
        "
    /></label>
    <p v-if="nameProblem" class="sentence-bad" role="alert">{{ nameProblem }}</p>
    <StrokeTypes
      :model-value="brush.stroke.type"
      @update:model-value="
        (v) =>
          edit((b) => {
            b.stroke.type = v;
          })
      "
    />
    <ChoiceBar
      class="mapping"
      label="Mapping"
      :model-value="brush.stroke.mapping"
      :options="MAPPING_CHOICES"
      @update:model-value="
        (v) =>
          edit((b) => {
            b.stroke.mapping = v;
          })
      "
    />
    <SettingList v-if="brush.stroke.mapping === 'wrapped'" :brush="brush" :paths="['form.tile']" @edit="edit" />
    <div class="tabs" role="tablist">
      <button
        v-for="t in TABS"
        :key="t"
        type="button"
        role="tab"
        :aria-selected="tab === t"
        :class="{ on: tab === t }"
        @click="tab = t"
      >
        {{ t }}<i v-if="marked.has(t)" title="Set" />
      </button>
    </div>
    <TouchTab v-if="tab === 'Touch'" :brush="brush" @edit="edit" />
    <StrokeTab v-else-if="tab === 'Stroke'" :brush="brush" @edit="edit" />
    <DriftTab v-else-if="tab === 'Drift'" :brush="brush" @edit="edit" />
    <PenTab v-else-if="tab === 'Pen'" :brush="brush" @edit="edit" />
    <ToothTab v-else-if="tab === 'Tooth'" :brush="brush" @edit="edit" />
    <CardTab v-else :brush="brush" :name-problem="nameProblem" :base="base" @edit="edit" />
    <ProfilePanel :brush="brush" :alpha="alpha" @edit="edit" />
  </div>
</template>

<style scoped>
.column {
  display: grid;
  gap: 8px;
  align-content: start;
  grid-auto-rows: max-content;
  padding: 12px 14px;
  overflow: auto;
}
.name {
  grid-template-columns: 44px 1fr;
}
.column > :deep(.slider) {
  --label: 92px;
}
.mapping :deep(button) {
  padding: 0 2px;
  font-size: 12px;
  letter-spacing: -0.01em;
}
.tabs {
  display: flex;
  gap: 14px;
  border-bottom: 1px solid var(--line);
  margin-top: 2px;
}
.tabs button {
  border: 0;
  background: none;
  padding: 4px 0 5px;
  cursor: pointer;
  color: var(--ink-2);
  border-bottom: 2px solid transparent;
  margin-bottom: -1px;
  position: relative;
}
.tabs button:hover {
  color: var(--ink);
}
.tabs .on {
  color: var(--ink);
  font-weight: 600;
  border-color: var(--act);
}
.tabs i {
  position: absolute;
  width: 5px;
  height: 5px;
  border-radius: 50%;
  background: var(--act);
  right: -7px;
  top: 8px;
}
</style>
