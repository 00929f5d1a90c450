<script setup lang="ts">
/** What pressure and speed of the hand do to size and strength. */
import { ref } from 'vue';
import { curveAt, prepareCurve } from '#core/falloff';
import type { Brush, CurveNode, PenLinkName } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import CurveEditor from '../controls/CurveEditor.vue';
import SettingList from './SettingList.vue';

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
      class="links"
      label="Link"
      :model-value="link"
      :options="LINKS.map((l) => ({ ...l, label: active(brush, l.value) ? `${l.label} •` : l.label }))"
      @update:model-value="
        (v) => {
          link = v;
        }
      "
    />
    <SettingList :brush="brush" :paths="[`pen.${link}.low`, `pen.${link}.high`]" @edit="edit" />
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
    <SettingList v-if="link.startsWith('speed')" :brush="brush" :paths="['pen.fast']" @edit="edit" />
    <p class="muted">A mouse presses fully. 100 % at both ends leaves the hand out.</p>
  </div>
</template>

<style scoped src="./tab.css"></style>
<style scoped>
.links {
  flex-wrap: wrap;
}
.links :deep(button) {
  flex: 1 1 45%;
}
.links :deep(button:nth-child(odd)) {
  border-left: 0;
}
.links :deep(button:nth-child(n + 3)) {
  border-top: 1px solid var(--line);
}
</style>
