<script setup lang="ts">
/** A typed number with arrows, kept within its range. Anything that is no number leaves it as it was. */
import { ref, watch } from 'vue';

const props = defineProps<{
  label: string;
  unit: string;
  modelValue: number;
  min: number;
  max: number;
  step: number;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: number] }>();
const typed = ref('');
const typing = ref(false);
const digits = (): number => Math.max(0, Math.min(3, Math.ceil(-Math.log10(props.step))));

watch(
  () => props.modelValue,
  (value) => {
    if (!typing.value) typed.value = value.toFixed(digits());
  },
  { immediate: true },
);

function put(value: number): void {
  const next = Math.min(props.max, Math.max(props.min, Number(value.toFixed(4))));
  if (next !== props.modelValue) emit('update:modelValue', next);
  typed.value = next.toFixed(digits());
}
function commit(): void {
  const number = Number.parseFloat(typed.value.replace(',', '.').replace('−', '-'));
  if (Number.isFinite(number) && typed.value !== props.modelValue.toFixed(digits())) put(number);
  else typed.value = props.modelValue.toFixed(digits());
}
</script>

<template>
  <label class="number">
    <span>{{ label }}</span>
    <input
      v-model="typed"
      class="field"
      type="text"
      inputmode="decimal"
      :aria-label="`${label}, ${unit}`"
      :title="`${label}, ${unit}; arrows change it`"
      @focus="typing = true"
      @blur="
        commit();
        typing = false;
      "
      @keydown.enter="commit"
      @keydown.up.prevent="put(modelValue + step * ($event.shiftKey ? 10 : 1))"
      @keydown.down.prevent="put(modelValue - step * ($event.shiftKey ? 10 : 1))"
    />
  </label>
</template>

<style scoped>
.number {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px;
  align-items: center;
}
span {
  color: var(--ink-2);
}
.field {
  height: 24px;
  text-align: right;
  padding: 0 6px;
}
</style>
