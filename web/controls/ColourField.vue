<script setup lang="ts">
/** A colour, “#rrggbb”, by hand or from a few; null where there is none of its own. */
import { ElColorPicker } from 'element-plus';

defineProps<{ label: string; offers?: string[] }>();
const colour = defineModel<string | null>({ required: true });
</script>

<template>
  <ElColorPicker
    :model-value="colour"
    :predefine="offers ?? []"
    :aria-label="label"
    :title="label"
    @update:model-value="(next: string | null) => (colour = next?.toLowerCase() ?? null)"
  />
</template>

<style scoped>
:deep(.el-color-picker__trigger) {
  width: 26px;
  height: 26px;
  padding: 3px;
}
</style>
