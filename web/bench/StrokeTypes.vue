<script setup lang="ts">
/** The stroke types, each with what the hand does. */
import type { StrokeType } from '#core/settings';
import { STROKE_TYPE_CHOICES } from './labels';
import ChoiceBar from '../controls/ChoiceBar.vue';

const type = defineModel<StrokeType>({ required: true });
</script>

<template>
  <ChoiceBar v-model="type" label="Stroke type" :across="7" class="types" :options="STROKE_TYPE_CHOICES">
    <template #option="{ option: t }">
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
    </template>
  </ChoiceBar>
</template>

<style scoped>
.types {
  gap: 5px;
  border: 0;
  background: none;
  overflow: visible;
}
.types :deep(.el-radio-button:nth-child(n) .el-radio-button__inner) {
  box-shadow: none;
  height: 44px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--leaf);
  color: var(--ink);
  font-size: var(--small);
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 1px;
  padding: 0;
}
.types :deep(.el-radio-button:nth-child(n):hover .el-radio-button__inner) {
  border-color: var(--ink-3);
}
.types
  :deep(
    .el-radio-button.is-active:nth-child(n) .el-radio-button__original-radio:nth-child(n) + .el-radio-button__inner
  ) {
  background: var(--ink);
  border-color: var(--ink);
  color: var(--page);
  font-weight: 400;
}
.types :deep(.el-radio-button) {
  margin: 0;
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
/* Two lines of them, each as wide as a fingertip. */
@media (pointer: coarse) {
  .types {
    grid-template-columns: repeat(4, minmax(0, 1fr)) !important;
  }
}
</style>
