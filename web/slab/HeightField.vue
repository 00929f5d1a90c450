<script setup lang="ts">
/** Floor or crown: found from the form, or set by hand in body units. */
import { ref, watch } from 'vue';

const props = defineProps<{ label: string; /** Null when it is found. */ value: number | null; found: number }>();
const emit = defineEmits<{ put: [value: number | null] }>();
const STEP = 0.005;
const typed = ref('');
const typing = ref(false);

watch(
  () => [props.value, props.found],
  () => {
    if (!typing.value) typed.value = (props.value ?? props.found).toFixed(3);
  },
  { immediate: true },
);

function commit(): void {
  typing.value = false;
  const number = Number.parseFloat(typed.value.replace(',', '.').replace('−', '-'));
  if (Number.isFinite(number) && number.toFixed(3) !== (props.value ?? props.found).toFixed(3))
    emit('put', Math.max(-4, Math.min(4, number)));
  else typed.value = (props.value ?? props.found).toFixed(3);
}
function nudge(by: number): void {
  emit('put', Math.round(((props.value ?? props.found) + by) * 1000) / 1000);
}
</script>

<template>
  <label class="height">
    <span>{{ label }}</span>
    <input
      v-model="typed"
      class="field"
      type="text"
      inputmode="decimal"
      :aria-label="`${label}, body units`"
      :title="`${label} in body units; arrows change it`"
      @focus="typing = true"
      @blur="commit"
      @keydown.enter="commit"
      @keydown.up.prevent="nudge(STEP)"
      @keydown.down.prevent="nudge(-STEP)"
    />
    <button
      type="button"
      :class="{ on: value === null }"
      :aria-pressed="value === null"
      :title="value === null ? 'Found from the form' : 'Find it from the form again'"
      @click.prevent="emit('put', value === null ? found : null)"
    >
      auto
    </button>
  </label>
</template>

<style scoped>
.height {
  display: grid;
  grid-template-columns: 46px 1fr 46px;
  gap: 6px;
  align-items: center;
}
.height span {
  color: var(--ink-2);
}
.field {
  text-align: right;
  height: 24px;
}
button {
  height: 24px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--leaf);
  cursor: pointer;
  color: var(--ink-2);
  padding: 0;
}
button.on {
  background: var(--act-wash);
  color: var(--act-deep);
  font-weight: 600;
  border-color: var(--act);
}
</style>
