<script setup lang="ts">
/** What is longer than its place, and says when one comes near its end. */
import { ElScrollbar } from 'element-plus';

const NEAR_PX = 600;
const emit = defineEmits<{ nearEnd: [] }>();
</script>

<template>
  <ElScrollbar
    tag="main"
    view-class="page"
    :distance="NEAR_PX"
    @end-reached="(side) => side === 'bottom' && emit('nearEnd')"
  >
    <slot />
  </ElScrollbar>
</template>

<style scoped>
:deep(.page) {
  padding: 18px 24px 32px;
}
</style>
