<script setup lang="ts">
/** How dabs follow from the hand: turn, steadying, tapers and fade. */
import { computed } from 'vue';
import { BrushSchema, type Brush } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import { runsAlong, TURN_CHOICES } from './labels';
import TickBox from '../controls/TickBox.vue';
import SettingList from '../controls/SettingList.vue';

const props = defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const runs = computed(() => runsAlong(props.brush.stroke.type));
const hand = computed(() => [
  ...(props.brush.stroke.type === 'linger' ? ['stroke.rate'] : []),
  ...(['trail', 'linger'].includes(props.brush.stroke.type) ? ['stroke.steady'] : []),
]);
const tapered = computed(() => props.brush.stroke.taperStart > 0 || props.brush.stroke.taperEnd > 0);
</script>

<template>
  <div class="tab">
    <div class="row">
      <span class="label">Turn from</span>
      <ChoiceBar
        label="Turn from"
        :model-value="brush.stroke.turnFrom"
        :options="TURN_CHOICES"
        @update:model-value="edit((b) => (b.stroke.turnFrom = $event))"
      />
    </div>
    <template v-if="runs">
      <SettingList :schema="BrushSchema" :of="brush" :paths="hand" @edit="edit" />
      <div class="heading">Ends</div>
      <TickBox
        v-if="brush.stroke.type === 'path'"
        :model-value="brush.stroke.toEnds"
        title="The spacing gives a little, so that a dab falls on each end and each corner"
        @update:model-value="(on: boolean) => edit((b) => (b.stroke.toEnds = on))"
        >Space it to the ends and corners</TickBox
      >
      <SettingList
        :schema="BrushSchema"
        :of="brush"
        :paths="[
          'stroke.taperStart',
          'stroke.taperEnd',
          ...(tapered ? ['stroke.tipSize', 'stroke.tipStrength'] : []),
          'stroke.fade',
        ]"
        @edit="edit"
      />
    </template>
    <p v-else class="muted">Spacing, tapers and fade are for strokes that run along a line.</p>
  </div>
</template>
