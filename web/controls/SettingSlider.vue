<script setup lang="ts">
/**
 * One numeric setting: slider, typed number with its unit, arrows, double-click for the default. All from its schema
 * entry.
 */
import { ElInput, ElSlider } from 'element-plus';
import { computed } from 'vue';
import type { SettingMeta, Unit } from '#core/settings';
import { digitsOf, useTypedNumber } from './useTypedNumber';
import { useLengths } from './lengths';

const props = defineProps<{ meta: SettingMeta; disabled?: boolean }>();
const value = defineModel<number>({ required: true });

/** Places of the slider, whatever the range: a logarithmic one has no even steps. */
const PLACES = 1000;

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
    case 'mm':
    case 'MB':
    case 'steps':
      return ` ${unit}`;
  }
}
const lengths = useLengths();
const isLength = computed(() => props.meta.unit === 'body' || props.meta.unit === 'body/s');
const factor = computed(() => (isLength.value ? lengths.factor.value : 1));
const unit = computed(() =>
  isLength.value && lengths.inMm.value ? props.meta.unit.replace('body', 'mm') : props.meta.unit,
);
const format = (number: number): string =>
  `${number.toFixed(digitsOf(props.meta.step * factor.value))}${
    isLength.value && lengths.inMm.value ? ` ${unit.value}` : behind(props.meta.unit)
  }`;
const shown = computed(() => format(value.value * factor.value));

const place = computed(() => {
  const { min, max, scale } = props.meta;
  const share = scale === 'log' ? Math.log(value.value / min) / Math.log(max / min) : (value.value - min) / (max - min);
  return Math.round(Math.min(1, Math.max(0, share)) * PLACES);
});

function slide(to: number): void {
  const { min, max, scale } = props.meta;
  const share = to / PLACES;
  put(scale === 'log' ? min * (max / min) ** share : min + (max - min) * share);
}

/** Takes a value, and says what it became: stepped and within the range. */
function put(wanted: number): number {
  const { min, max, step } = props.meta;
  const stepped = Math.round(wanted / step) * step;
  const next = Math.min(max, Math.max(min, Number(stepped.toFixed(6))));
  if (next !== value.value) value.value = next;
  return next;
}

/** Arrows on the slider go by the setting's own step, which may be finer or coarser than a place. */
function step(event: KeyboardEvent): void {
  const sign = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
  if (!sign) return;
  event.preventDefault();
  event.stopPropagation();
  put(value.value + sign * props.meta.step * (event.shiftKey ? 10 : 1));
}

const { typed, focus, blur, keydown } = useTypedNumber({
  format,
  value: () => value.value * factor.value,
  step: () => props.meta.step * factor.value,
  put: (typed) => put(typed / factor.value) * factor.value,
});
</script>

<template>
  <div
    class="slider"
    :class="{ resting: disabled }"
    :title="`${meta.help}. Double-click for ${format(meta.fallback * factor)}.`"
    @dblclick="put(meta.fallback)"
  >
    <span class="label">{{ meta.label }}</span>
    <ElSlider
      :model-value="place"
      :max="PLACES"
      :disabled="disabled"
      :show-tooltip="false"
      :aria-label="meta.label"
      :format-value-text="() => shown"
      @update:model-value="slide($event as number)"
      @keydown.capture="step"
    />
    <ElInput
      v-model="typed"
      class="number"
      inputmode="decimal"
      :disabled="disabled"
      :aria-label="`${meta.label}, ${unit || 'number'}`"
      @focus="focus"
      @blur="blur"
      @keydown="keydown"
      @dblclick.stop
    />
  </div>
</template>

<style scoped>
.slider {
  display: grid;
  grid-template-columns: var(--label, 84px) minmax(0, 1fr) var(--typed, 62px);
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
.resting {
  opacity: 0.4;
}
.number {
  --el-input-height: 22px;
  --el-border-radius-base: 4px;
}
.number :deep(.el-input__wrapper) {
  padding: 0 6px;
}
.number :deep(.el-input__inner) {
  text-align: right;
}
</style>
