<script setup lang="ts">
/** What the dab does to the clay, and how much. The first few are all that most brushes need. */
import { computed } from 'vue';
import { BrushSchema, paints, paintsOnly, setsParts, type Brush } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import { CLAY_CHOICES, DIRECTION_CHOICES, PAINT_CHOICES, OVERLAP_CHOICES, runsAlong, TAKE_CHOICES } from './labels';
import SettingList from '../controls/SettingList.vue';

const props = defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const inserts = computed(() => setsParts(props.brush));
const only = computed(() => paintsOnly(props.brush));
const main = computed(() => [
  'stroke.size',
  ...(inserts.value || only.value ? [] : ['touch.strength']),
  ...(paints(props.brush) ? ['colour.flow'] : []),
  ...(runsAlong(props.brush.stroke.type) ? ['stroke.spacing'] : []),
  ...(props.brush.stroke.type === 'pull' ? ['stroke.height'] : []),
]);
const more = computed(() => [
  'touch.footing',
  ...(inserts.value ? ['form.turn'] : ['touch.reachDepth']),
  ...(props.brush.touch.action === 'crease' ? ['touch.pinch'] : []),
]);
/** Actions whose dabs may add up or stay even. */
const overlaps = computed(() => ['lift', 'mask', 'paint', 'erase'].includes(props.brush.touch.action));
</script>

<template>
  <div class="tab">
    <ChoiceBar
      label="Action"
      :across="3"
      :model-value="brush.touch.action"
      :options="CLAY_CHOICES"
      @update:model-value="edit((b) => (b.touch.action = $event))"
    />
    <ChoiceBar
      label="Action on the texture"
      :model-value="brush.touch.action"
      :options="PAINT_CHOICES"
      @update:model-value="edit((b) => (b.touch.action = $event))"
    />
    <SettingList :schema="BrushSchema" :of="brush" :paths="main" @edit="edit" />
    <div v-if="overlaps" class="row">
      <span class="label">Overlaps</span>
      <ChoiceBar
        label="Overlaps"
        :model-value="brush.touch.overlaps"
        :options="OVERLAP_CHOICES"
        @update:model-value="edit((b) => (b.touch.overlaps = $event))"
      />
    </div>
    <SettingList :schema="BrushSchema" :of="brush" :paths="more" @edit="edit" />
    <div v-if="!inserts && brush.touch.action !== 'fill'" class="row">
      <span class="label">Takes</span>
      <ChoiceBar
        label="Takes"
        :model-value="brush.touch.takes"
        :options="TAKE_CHOICES"
        @update:model-value="edit((b) => (b.touch.takes = $event))"
      />
    </div>
    <div v-if="brush.touch.action === 'lift'" class="row">
      <span class="label">Direction</span>
      <ChoiceBar
        label="Direction"
        :model-value="brush.touch.direction"
        :options="DIRECTION_CHOICES"
        @update:model-value="edit((b) => (b.touch.direction = $event))"
      />
    </div>
  </div>
</template>
