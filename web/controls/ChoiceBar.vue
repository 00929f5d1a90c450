<script setup lang="ts" generic="T extends string | number">
/** A few choices side by side, one of them taken. */
defineProps<{ modelValue: T; options: readonly { value: T; label: string; help?: string }[]; label: string }>();
const emit = defineEmits<{ 'update:modelValue': [value: T] }>();
</script>

<template>
  <div class="choice" role="radiogroup" :aria-label="label">
    <button
      v-for="option in options"
      :key="option.value"
      type="button"
      role="radio"
      :aria-checked="option.value === modelValue"
      :title="option.help"
      :class="{ on: option.value === modelValue }"
      @click="emit('update:modelValue', option.value)"
    >
      {{ option.label }}
    </button>
  </div>
</template>

<style scoped>
.choice {
  display: flex;
  min-height: 26px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  overflow: hidden;
  background: var(--leaf);
}
button {
  flex: 1;
  height: 24px;
  border: 0;
  border-left: 1px solid var(--line);
  background: none;
  padding: 0 6px;
  cursor: pointer;
  color: var(--ink-2);
  white-space: nowrap;
}
button:first-child {
  border-left: 0;
}
button:hover {
  color: var(--ink);
}
button.on {
  background: var(--act-wash);
  color: var(--act-deep);
  font-weight: 600;
}
button:focus-visible {
  outline-offset: -2px;
}
</style>
