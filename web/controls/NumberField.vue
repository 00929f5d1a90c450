<script setup lang="ts">
/** A typed number with arrows, kept within its range. */
import { ElInput } from 'element-plus';
import { computed } from 'vue';
import { digitsOf, useTypedNumber } from './useTypedNumber';
import { useLengths } from './lengths';

const props = defineProps<{ label: string; unit: string; min: number; max: number; step: number }>();
const number = defineModel<number>({ required: true });
const lengths = useLengths();
const factor = computed(() => (props.unit === 'body units' ? lengths.factor.value : 1));
const told = computed(() => (props.unit === 'body units' ? lengths.unit.value : props.unit));
const { typed, focus, blur, keydown } = useTypedNumber({
  format: (value) => value.toFixed(digitsOf(props.step * factor.value)),
  value: () => number.value * factor.value,
  step: () => props.step * factor.value,
  put: (value) => {
    const next = Math.min(props.max, Math.max(props.min, Number((value / factor.value).toFixed(4))));
    if (next !== number.value) number.value = next;
    return next * factor.value;
  },
});
</script>

<template>
  <label class="number">
    <span>{{ label }}</span>
    <ElInput
      v-model="typed"
      inputmode="decimal"
      :aria-label="`${label}, ${told}`"
      :title="`${label}, ${told}; arrows change it`"
      @focus="focus"
      @blur="blur"
      @keydown="keydown"
    />
    <slot />
  </label>
</template>

<style scoped>
.number {
  display: grid;
  grid-template-columns: var(--name, auto) minmax(0, 1fr);
  grid-auto-flow: column;
  gap: 6px;
  align-items: center;
}
span {
  color: var(--ink-2);
}
.number :deep(.el-input__wrapper) {
  padding: 0 6px;
}
.number :deep(.el-input__inner) {
  text-align: right;
}
</style>
