<script setup lang="ts">
/**
 * One numeric setting: slider, typed number with its unit, arrows, double-click for the default. All from its schema
 * entry.
 */
import { computed, ref, watch } from 'vue';
import type { SettingMeta, Unit } from '#core/settings';

const props = defineProps<{ meta: SettingMeta; modelValue: number; disabled?: boolean }>();
const emit = defineEmits<{ 'update:modelValue': [value: number] }>();

const STEPS = 1000;
const typed = ref('');
const typing = ref(false);

/** A unit as the field has room for it; the whole of it is in the field's name and the help. */
function behind(unit: Unit): string {
  switch (unit) {
    case '':
    case 'grey':
    case 'body':
      return '';
    case '°':
      return unit;
    case 'body/s':
    case 'dabs/s':
      return ' /s';
    case '%':
    case 'r':
    case 'px':
    case 'steps':
      return ` ${unit}`;
  }
}

function format(value: number): string {
  const digits = props.meta.step >= 1 ? 0 : Math.min(3, Math.ceil(-Math.log10(props.meta.step)));
  const number = value.toFixed(digits);
  return `${number}${behind(props.meta.unit)}`;
}
const shown = computed(() => format(props.modelValue));
watch(
  shown,
  (value) => {
    if (!typing.value) typed.value = value;
  },
  { immediate: true },
);

const position = computed(() => {
  const { min, max, scale } = props.meta;
  const share =
    scale === 'log' ? Math.log(props.modelValue / min) / Math.log(max / min) : (props.modelValue - min) / (max - min);
  return Math.round(share * STEPS);
});

function fromSlider(event: Event): void {
  const { min, max, scale } = props.meta;
  const share = Number((event.target as HTMLInputElement).value) / STEPS;
  put(scale === 'log' ? min * (max / min) ** share : min + (max - min) * share);
}

/** Returns the value as taken: stepped and within its range. */
function put(value: number): number {
  const { min, max, step } = props.meta;
  const round = Math.round(value / step) * step;
  const next = Math.min(max, Math.max(min, Number(round.toFixed(6))));
  if (next !== props.modelValue) emit('update:modelValue', next);
  return next;
}

function focus(event: FocusEvent): void {
  typing.value = true;
  (event.target as HTMLInputElement).select();
}

/** Takes what was typed; anything that is no number leaves the setting as it was. */
function commit(): void {
  const number = Number.parseFloat(typed.value.replace(',', '.').replace('−', '-'));
  typed.value = Number.isFinite(number) ? format(put(number)) : shown.value;
}

function leave(): void {
  // Left as it was shown, it was only looked at: the value behind it may be finer.
  if (typed.value !== shown.value) commit();
  typing.value = false;
}

/** Arrows on the slider go by the setting's own step, which may be finer or coarser than a pixel. */
function step(event: KeyboardEvent): void {
  const sign = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
  if (!sign) return;
  event.preventDefault();
  put(props.modelValue + sign * props.meta.step * (event.shiftKey ? 10 : 1));
}

function nudge(event: KeyboardEvent): void {
  const sign = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0;
  if (event.key === 'Enter') {
    // Leaving commits, and the keys go back to the surface.
    (event.target as HTMLInputElement).blur();
  } else if (event.key === 'Escape') {
    typed.value = shown.value;
    (event.target as HTMLInputElement).blur();
  } else if (sign !== 0) {
    event.preventDefault();
    typed.value = format(put(props.modelValue + sign * props.meta.step * (event.shiftKey ? 10 : 1)));
  }
}
</script>

<template>
  <div class="slider" :title="`${meta.help}. Double-click for ${meta.fallback}.`" @dblclick="put(meta.fallback)">
    <span class="label">{{ meta.label }}</span>
    <input
      class="track"
      type="range"
      min="0"
      :max="STEPS"
      :step="1"
      :value="position"
      :disabled="disabled"
      :style="{ '--share': `${position / 10}%` }"
      :aria-label="meta.label"
      :aria-valuetext="shown"
      @input="fromSlider"
      @keydown="step"
    />
    <input
      v-model="typed"
      class="number"
      type="text"
      inputmode="decimal"
      :disabled="disabled"
      :aria-label="`${meta.label}, ${meta.unit || 'number'}`"
      @focus="focus"
      @blur="leave"
      @keydown="nudge"
      @dblclick.stop
    />
  </div>
</template>

<style scoped>
.slider {
  display: grid;
  grid-template-columns: var(--label, 84px) 1fr 62px;
  align-items: center;
  gap: 8px;
  min-height: var(--row);
}
.label {
  color: var(--ink-2);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.number {
  height: 22px;
  width: 100%;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--field);
  text-align: right;
  padding: 0 6px;
  font: inherit;
  color: inherit;
  font-variant-numeric: tabular-nums;
}
.number:focus {
  outline: 2px solid var(--act);
  outline-offset: -1px;
}
.track {
  appearance: none;
  width: 100%;
  min-width: 0;
  height: 18px;
  background: none;
  margin: 0;
  cursor: pointer;
}
.track::-webkit-slider-runnable-track {
  height: 4px;
  border-radius: 2px;
  background: linear-gradient(to right, var(--act) var(--share), var(--well) var(--share));
}
.track::-moz-range-track {
  height: 4px;
  border-radius: 2px;
  background: linear-gradient(to right, var(--act) var(--share), var(--well) var(--share));
}
.track::-webkit-slider-thumb {
  appearance: none;
  width: 8px;
  height: 14px;
  margin-top: -5px;
  border-radius: 3px;
  background: var(--ink);
}
.track::-moz-range-thumb {
  width: 8px;
  height: 14px;
  border: 0;
  border-radius: 3px;
  background: var(--ink);
}
</style>
