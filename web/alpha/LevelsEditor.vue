<script setup lang="ts">
/** Levels: the tones that come in, with handles for black, mid and white under them. */
import { computed, ref } from 'vue';
import { settingAt, stepSchema, type StepOf } from '#core/settings';
import SettingSlider from '../controls/SettingSlider.vue';
import { useAlphaBench } from '../stores/alphaBench';

const props = defineProps<{ step: StepOf<'levels'> }>();
const bench = useAlphaBench();
const svg = ref<SVGSVGElement>();
const held = ref<'black' | 'mid' | 'white' | null>(null);
const W = 200;
const H = 78;
const FOOT = 14;
const schema = stepSchema('levels');

const bars = computed(() => {
  const counts = bench.answer?.before;
  if (!counts) return '';
  const total = counts.reduce((a, b) => a + b, 0) || 1;
  const sorted = Array.from(counts).sort((a, b) => b - a);
  // The bare ground's bar is cut, or it would press the rest flat.
  const top = Math.max(sorted[3] ?? 1, total * 0.002);
  return Array.from(counts, (n, i) => {
    const h = Math.min(1, Math.sqrt(n / top)) * (H - FOOT - 6);
    return `M${((i * W) / counts.length).toFixed(2)},${H - FOOT}v${(-h).toFixed(2)}h${(W / counts.length).toFixed(2)}v${h.toFixed(2)}z`;
  }).join('');
});
/** Where the mid grey lies: the tone that becomes a half. */
const midAt = computed(() => props.step.black + (props.step.white - props.step.black) * 0.5 ** props.step.mid);
const handles = computed(
  () =>
    [
      { key: 'black', at: props.step.black, fill: '#000' },
      { key: 'mid', at: midAt.value, fill: '#8a8a88' },
      { key: 'white', at: props.step.white, fill: '#fff' },
    ] as const,
);

function put(change: Partial<Pick<StepOf<'levels'>, 'black' | 'mid' | 'white'>>): void {
  bench.editStep(props.step.id, (own) => Object.assign(own, change), Object.keys(change)[0]);
}
function grab(key: 'black' | 'mid' | 'white', e: PointerEvent): void {
  held.value = key;
  svg.value!.setPointerCapture(e.pointerId);
}
function drag(e: PointerEvent): void {
  if (!held.value) return;
  const box = svg.value!.getBoundingClientRect();
  const at = Math.round(Math.max(0, Math.min(1, (e.clientX - box.left) / box.width)) * 1000) / 1000;
  const { black, white } = props.step;
  if (held.value === 'black') put({ black: Math.min(at, white - 0.005) });
  else if (held.value === 'white') put({ white: Math.max(at, black + 0.005) });
  else {
    const share = Math.max(0.004, Math.min(0.96, (at - black) / (white - black)));
    put({ mid: Number(Math.max(0.1, Math.min(8, Math.log(share) / Math.log(0.5))).toFixed(2)) });
  }
}
</script>

<template>
  <div class="levels">
    <svg
      ref="svg"
      :viewBox="`0 0 ${W} ${H}`"
      role="img"
      aria-label="Tones that come in, with black, mid and white"
      @pointermove="drag"
      @pointerup="held = null"
      @pointercancel="held = null"
    >
      <rect :width="W" :height="H - FOOT" class="ground" />
      <path :d="bars" class="bars" />
      <g v-for="h in handles" :key="h.key" class="handle" @pointerdown.prevent="grab(h.key, $event)">
        <title>{{ h.key }} {{ h.at.toFixed(3) }}</title>
        <line :x1="h.at * W" :x2="h.at * W" y1="0" :y2="H - FOOT" />
        <rect :x="h.at * W - 8" :y="H - FOOT - 4" width="16" height="18" fill="transparent" />
        <path :d="`M${h.at * W},${H - FOOT}l6,11h-12z`" :fill="h.fill" />
      </g>
    </svg>
    <SettingSlider
      v-for="key in ['black', 'mid', 'white'] as const"
      :key="key"
      :meta="settingAt(schema, key)"
      :model-value="step[key]"
      @update:model-value="(v) => put({ [key]: v })"
    />
  </div>
</template>

<style scoped>
.levels {
  display: grid;
  gap: 6px;
}
svg {
  width: 100%;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--leaf);
  touch-action: none;
}
.ground {
  fill: var(--field);
}
.bars {
  fill: var(--ink-2);
}
.handle {
  cursor: ew-resize;
}
.handle line {
  stroke: var(--act);
  stroke-dasharray: 2 2;
}
.handle path {
  stroke: var(--ink);
  stroke-width: 1;
}
</style>
