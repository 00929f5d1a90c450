<script setup lang="ts">
/** What the dab does to the clay, and how much. The first few are all that most brushes need. */
import { computed } from 'vue';
import type { Brush } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import { ACTION_CHOICES, DIRECTION_CHOICES, OVERLAP_CHOICES, runsAlong, TAKE_CHOICES } from './labels';
import SettingList from './SettingList.vue';

const props = defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const main = computed(() => [
  'stroke.size',
  'touch.strength',
  ...(runsAlong(props.brush.stroke.type) ? ['stroke.spacing'] : []),
  ...(props.brush.stroke.type === 'pull' ? ['stroke.height'] : []),
]);
const more = computed(() => [
  'touch.footing',
  'touch.reachDepth',
  ...(props.brush.touch.action === 'crease' ? ['touch.pinch'] : []),
]);
/** Actions whose dabs may add up or stay even. */
const overlaps = computed(() => props.brush.touch.action === 'lift' || props.brush.touch.action === 'mask');
</script>

<template>
  <div class="tab">
    <div class="actions" role="radiogroup" aria-label="Action">
      <button
        v-for="a in ACTION_CHOICES"
        :key="a.value"
        type="button"
        role="radio"
        :aria-checked="brush.touch.action === a.value"
        :class="{ on: brush.touch.action === a.value }"
        :title="a.help"
        @click="
          edit((b) => {
            b.touch.action = a.value;
          })
        "
      >
        {{ a.label }}
      </button>
    </div>
    <SettingList :brush="brush" :paths="main" @edit="edit" />
    <div v-if="overlaps" class="row">
      <span class="label">Overlaps</span>
      <ChoiceBar
        label="Overlaps"
        :model-value="brush.touch.overlaps"
        :options="OVERLAP_CHOICES"
        @update:model-value="
          (v) =>
            edit((b) => {
              b.touch.overlaps = v;
            })
        "
      />
    </div>
    <SettingList :brush="brush" :paths="more" @edit="edit" />
    <div class="row">
      <span class="label">Takes</span>
      <ChoiceBar
        label="Takes"
        :model-value="brush.touch.takes"
        :options="TAKE_CHOICES"
        @update:model-value="
          (v) =>
            edit((b) => {
              b.touch.takes = v;
            })
        "
      />
    </div>
    <div v-if="brush.touch.action === 'lift'" class="row">
      <span class="label">Direction</span>
      <ChoiceBar
        label="Direction"
        :model-value="brush.touch.direction"
        :options="DIRECTION_CHOICES"
        @update:model-value="
          (v) =>
            edit((b) => {
              b.touch.direction = v;
            })
        "
      />
    </div>
  </div>
</template>

<style scoped src="./tab.css"></style>
<style scoped>
.actions {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  border: 1px solid var(--line);
  border-radius: var(--r);
  overflow: hidden;
  background: var(--leaf);
}
.actions button {
  height: 25px;
  border: 0;
  border-left: 1px solid var(--line);
  background: none;
  cursor: pointer;
  color: var(--ink-2);
  padding: 0;
}
.actions button:nth-child(4n + 1) {
  border-left: 0;
}
.actions button:nth-child(n + 5) {
  border-top: 1px solid var(--line);
}
.actions button:hover {
  color: var(--ink);
}
.actions .on {
  background: var(--act-wash);
  color: var(--act-deep);
  font-weight: 600;
}
</style>
