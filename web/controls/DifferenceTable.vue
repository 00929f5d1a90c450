<script setup lang="ts">
/** Settings that differ between two states, a line each. */
import { ElTable, ElTableColumn } from 'element-plus';
import type { SettingDifference } from '#core/settings';

defineProps<{ differences: readonly SettingDifference[] }>();
</script>

<template>
  <ElTable :data="[...differences]" row-key="path" max-height="260" empty-text="Nothing differs.">
    <ElTableColumn prop="label" label="Setting" min-width="220" />
    <ElTableColumn label="Left" min-width="120">
      <template #default="{ row }">{{ row.before || 'see the picture' }}</template>
    </ElTableColumn>
    <ElTableColumn label="Right" min-width="120">
      <template #default="{ row }">{{ row.after || 'see the picture' }}</template>
    </ElTableColumn>
  </ElTable>
</template>
