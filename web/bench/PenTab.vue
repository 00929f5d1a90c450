<script setup lang="ts">
/** What pressure and speed of the hand do to size and strength. */
import { ref } from 'vue';
import { curveAt, prepareCurve } from '#core/falloff';
import { BrushSchema, type Brush, type CurveNode, type PenLinkName } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import CurveEditor from '../controls/CurveEditor.vue';
import SettingList from '../controls/SettingList.vue';

defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const LINKS = [
  { value: 'pressureSize', label: 'Pressure, size', help: 'What pressure does to size' },
  { value: 'pressureStrength', label: 'Pressure, strength', help: 'What pressure does to strength' },
  { value: 'speedSize', label: 'Speed, size', help: 'What speed does to size' },
  { value: 'speedStrength', label: 'Speed, strength', help: 'What speed does to strength' },
] as const satisfies readonly { value: PenLinkName; label: string; help: string }[];
const link = ref<PenLinkName>('pressureSize');
const reading = (nodes: readonly CurveNode[]) => {
  const curve = prepareCurve(nodes);
  return (x: number): number => curveAt(curve, x);
};
const active = (brush: Brush, name: PenLinkName): boolean =>
  brush.pen[name].low !== 100 || brush.pen[name].high !== 100;
</script>

<template>
  <div class="tab">
    <ChoiceBar
      label="Link"
      :across="2"
      :model-value="link"
      :options="LINKS.map((l) => ({ ...l, label: active(brush, l.value) ? `${l.label} •` : l.label }))"
      @update:model-value="link = $event"
    />
    <SettingList :schema="BrushSchema" :of="brush" :paths="[`pen.${link}.low`, `pen.${link}.high`]" @edit="edit" />
    <div class="heading">
      Curve between <small>{{ link.startsWith('pressure') ? 'light to firm' : 'slow to fast' }}</small>
    </div>
    <CurveEditor
      editable
      label="Curve of the link"
      :height="64"
      :nodes="brush.pen[link].curve"
      :value="reading(brush.pen[link].curve)"
      :describe="(n) => `${Math.round(n.x * 100)} % of the hand gives ${Math.round(n.y * 100)} % of the way`"
      @update:nodes="
        (nodes) =>
          edit((b) => {
            b.pen[link].curve = nodes;
          })
      "
    />
    <SettingList v-if="link.startsWith('speed')" :schema="BrushSchema" :of="brush" :paths="['pen.fast']" @edit="edit" />
    <p class="muted">A mouse presses fully. 100 % at both ends turns this off.</p>
  </div>
</template>
