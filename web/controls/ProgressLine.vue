<script setup lang="ts">
/** How far work has come, from 0 to 1. */
import { ElProgress } from 'element-plus';

defineProps<{ share: number; label: string }>();
</script>

<template>
  <ElProgress
    class="line"
    :percentage="Math.round(share * 100)"
    :stroke-width="6"
    :show-text="false"
    :aria-label="label"
  />
</template>

<style scoped>
.line {
  flex: 1;
  min-width: 60px;
}
</style>
