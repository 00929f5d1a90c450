<script setup lang="ts">
/** What is longer than its place, and says when one comes near its end. */
import { ElScrollbar } from 'element-plus';

const NEAR_PX = 600;
/** `within` is one of several in a place: it is no page of its own. */
withDefaults(defineProps<{ within?: boolean }>(), { within: false });
const emit = defineEmits<{ nearEnd: [] }>();
</script>

<template>
  <ElScrollbar
    :tag="within ? 'div' : 'main'"
    :view-class="within ? 'within' : 'page'"
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
:deep(.within) {
  padding: 0 16px 60px 24px;
}
</style>
