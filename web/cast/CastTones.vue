<script setup lang="ts">
/** Heights to tones: the histogram between floor and crown, and the curve that takes them to greys. */
import { computed } from 'vue';
import { curveAt, prepareCurve } from '#core/falloff';
import type { CurveNode } from '#core/settings';
import CurveEditor from '../controls/CurveEditor.vue';
import HistogramChart from '../controls/HistogramChart.vue';
import { useCastDesk } from './desk';
import PushButton from '../controls/PushButton.vue';

const cast = useCastDesk();
const tone = computed(() => cast.settings.tone);
const value = computed(() => {
  const curve = prepareCurve(tone.value);
  return (x: number): number => curveAt(curve, x);
});
const describe = (node: CurveNode): string =>
  `height ${(node.x * 100).toFixed(0)} % to grey ${(node.y * 100).toFixed(0)} %`;
const straight = computed(() => tone.value.every((n) => n.x === n.y));
const STRAIGHT: CurveNode[] = [
  { x: 0, y: 0, corner: true },
  { x: 1, y: 1, corner: true },
];
const LIFTED: CurveNode[] = [
  { x: 0, y: 0, corner: true },
  { x: 0.15, y: 0.24, corner: false },
  { x: 0.5, y: 0.56, corner: false },
  { x: 1, y: 1, corner: true },
];
function put(nodes: CurveNode[]): void {
  cast.edit((c) => {
    c.tone = nodes.map((n) => ({ ...n }));
  });
}
</script>

<template>
  <div class="tones">
    <HistogramChart
      v-if="cast.result"
      :counts="cast.result.histogram"
      :floor="cast.result.floor"
      :crown="cast.result.crown"
    />
    <div class="curve">
      <CurveEditor
        :nodes="tone"
        :value="value"
        editable
        label="Tone curve"
        :describe="describe"
        :height="84"
        @update:nodes="put"
      />
      <div class="side">
        <span class="muted">Height → grey.<br />Click adds a node.</span>
        <PushButton title="Lifts the darkest tones a little" @click="put(LIFTED)"> Lift the darks </PushButton>
        <PushButton :disabled="straight" @click="put(STRAIGHT)">Straight</PushButton>
      </div>
    </div>
  </div>
</template>

<style scoped>
.tones {
  display: grid;
  gap: 8px;
}
.curve {
  display: grid;
  grid-template-columns: minmax(0, 220px) 1fr;
  gap: 14px;
  align-items: start;
}
.side {
  display: grid;
  gap: 6px;
  justify-items: start;
}
</style>
