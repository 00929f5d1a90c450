<script setup lang="ts">
/** Seeded variation: places, sizes, turns. */
import { BrushSchema, type Brush } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingList from '../controls/SettingList.vue';

defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const PER = [
  { value: 'dab', label: 'Every dab', help: 'Each dab differs' },
  { value: 'stroke', label: 'Every stroke', help: 'The dabs of a stroke are alike, strokes differ' },
] as const;
</script>

<template>
  <div class="tab">
    <SettingList :schema="BrushSchema" :of="brush" :paths="['drift.count']" @edit="edit" />
    <div class="heading">Scatter</div>
    <SettingList :schema="BrushSchema" :of="brush" :paths="['drift.along', 'drift.across']" @edit="edit" />
    <div class="heading">Shape</div>
    <div class="row">
      <span class="label">Varies</span>
      <ChoiceBar
        label="Varies"
        :model-value="brush.drift.per"
        :options="PER"
        @update:model-value="edit((b) => (b.drift.per = $event))"
      />
    </div>
    <SettingList
      :schema="BrushSchema"
      :of="brush"
      :paths="[
        'drift.size',
        ...(brush.drift.size > 0 ? ['drift.leastSize'] : []),
        'drift.turn',
        'drift.squash',
        'drift.flip',
      ]"
      @edit="edit"
    />
  </div>
</template>
