<script setup lang="ts">
/** A place without what it is for: that it is being opened, or why it isn’t there and where to go instead. */
import { FolderOpen, Unlink } from '@lucide/vue';
import { ElEmpty } from 'element-plus';

defineProps<{
  /** E.g. "the slab". */
  what: string;
  opening: boolean;
  says: string | null;
  /** Where things of its kind are found. */
  to: '/' | '/sources';
}>();
</script>

<template>
  <ElEmpty class="empty-place" :image-size="36">
    <template #image><component :is="opening ? FolderOpen : Unlink" :size="36" :stroke-width="1.4" /></template>
    <template #description>
      <p v-if="opening" role="status">Opening {{ what }}…</p>
      <p v-else role="alert">{{ says }}</p>
    </template>
    <RouterLink v-if="!opening" :to="to">{{ to === '/' ? 'To the rack' : 'To the sources' }}</RouterLink>
  </ElEmpty>
</template>

<style scoped>
.empty-place {
  --el-empty-padding: 24px;
  --el-empty-image-width: 36px;
  --el-empty-description-margin-top: 10px;
  --el-empty-bottom-margin-top: 14px;
  height: 100%;
  color: var(--ink-2);
}
.empty-place :deep(svg) {
  fill: none;
}
a {
  color: var(--act-deep);
  font-weight: 500;
}
p {
  max-width: 44ch;
  margin: 0;
  color: var(--ink);
  text-align: center;
}
</style>
