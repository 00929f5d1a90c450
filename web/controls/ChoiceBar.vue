<script setup lang="ts" generic="T extends string | number">
/** A few choices side by side, in one line or in several, one of them taken. */
import { ElRadioButton, ElRadioGroup } from 'element-plus';

interface Choice {
  value: T;
  label: string;
  help?: string;
  disabled?: boolean;
}
defineProps<{
  options: readonly Choice[];
  label: string;
  /** Choices in a line; all of them unless said. */
  across?: number;
}>();
const chosen = defineModel<T>({ required: true });
</script>

<template>
  <ElRadioGroup
    v-model="chosen"
    :aria-label="label"
    class="choice"
    :style="across ? { gridTemplateColumns: `repeat(${across}, minmax(0, 1fr))`, gridAutoFlow: 'row' } : {}"
  >
    <ElRadioButton
      v-for="option in options"
      :key="option.value"
      :value="option.value"
      :title="option.help"
      :disabled="option.disabled ?? false"
    >
      <slot name="option" :option="option">{{ option.label }}</slot>
    </ElRadioButton>
  </ElRadioGroup>
</template>

<style scoped>
.choice {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(max-content, 1fr);
  min-height: 26px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  /* Where they don’t all fit they can be reached. */
  overflow: auto hidden;
  scrollbar-width: none;
  background: var(--leaf);
}
@media (pointer: coarse) {
  .choice {
    min-height: 46px;
  }
}
</style>
