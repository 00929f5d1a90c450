<script setup lang="ts">
/** The stroke types, each with what the hand does. */
import type { StrokeType } from '#core/settings';
import { STROKE_TYPE_CHOICES } from './labels';

defineProps<{ modelValue: StrokeType }>();
const emit = defineEmits<{ 'update:modelValue': [value: StrokeType] }>();
</script>

<template>
  <div class="types" role="radiogroup" aria-label="Stroke type">
    <button
      v-for="t in STROKE_TYPE_CHOICES"
      :key="t.value"
      type="button"
      role="radio"
      :aria-checked="modelValue === t.value"
      :class="{ on: modelValue === t.value }"
      :title="t.help"
      @click="emit('update:modelValue', t.value)"
    >
      <svg viewBox="0 0 40 22" aria-hidden="true">
        <template v-if="t.value === 'trail'">
          <circle cx="7" cy="15" r="3.500" />
          <circle cx="16" cy="9" r="3.500" />
          <circle cx="25" cy="10" r="3.500" />
          <circle cx="34" cy="15" r="3.500" />
        </template>
        <template v-else-if="t.value === 'linger'">
          <circle cx="20" cy="11" r="2.500" />
          <circle cx="20" cy="11" r="6" class="line" />
          <circle cx="20" cy="11" r="9.500" class="line" />
        </template>
        <template v-else-if="t.value === 'ruler'">
          <path d="M6 18 34 4" class="line" />
          <circle cx="6" cy="18" r="3" />
          <circle cx="20" cy="11" r="3" />
          <circle cx="34" cy="4" r="3" />
        </template>
        <template v-else-if="t.value === 'path'">
          <path d="M4 16C12 0 22 22 36 5" class="line" />
          <rect x="2" y="14" width="4" height="4" />
          <rect x="34" y="3" width="4" height="4" />
        </template>
        <template v-else-if="t.value === 'press'"><circle cx="20" cy="11" r="6" /></template>
        <template v-else-if="t.value === 'grow'">
          <circle cx="17" cy="13" r="3" />
          <circle cx="17" cy="13" r="8" class="line" stroke-dasharray="2.500 2" />
          <path d="M17 13 30 4m-4.500 0H30v4" class="line" />
        </template>
        <template v-else><path d="M8 19h24M20 19V4m-4 4 4-4 4 4" class="line" /></template>
      </svg>
      {{ t.label }}
    </button>
  </div>
</template>

<style scoped>
.types {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  gap: 5px;
}
button {
  height: 44px;
  min-width: 0;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--leaf);
  cursor: pointer;
  font-size: var(--small);
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 1px;
  padding: 0;
}
button:hover {
  border-color: var(--ink-3);
}
.on {
  background: var(--ink);
  border-color: var(--ink);
  color: #fff;
}
svg {
  height: 21px;
  max-width: 100%;
  fill: currentcolor;
}
.line {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.4;
}
</style>
