<script setup lang="ts">
/** Where cards will be, while they are fetched: shown when that takes longer than a glance. */
import { ElSkeleton, ElSkeletonItem } from 'element-plus';

defineProps<{
  /** What is fetched, to those who don’t see it. */
  label: string;
}>();
const GLANCE_MS = 200;
const CARDS = 12;
</script>

<template>
  <ElSkeleton animated :throttle="GLANCE_MS" class="loading" role="status" :aria-label="label">
    <template #template>
      <div v-for="n in CARDS" :key="n" class="one">
        <ElSkeletonItem variant="image" class="picture" />
        <ElSkeletonItem variant="text" class="name" />
        <ElSkeletonItem variant="text" class="note" />
      </div>
    </template>
  </ElSkeleton>
</template>

<style scoped>
.loading {
  --el-skeleton-color: var(--well);
  --el-skeleton-to-color: var(--leaf);
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(var(--card, 172px), 1fr));
  gap: 16px;
  margin-top: 24px;
}
.one {
  display: grid;
  gap: 6px;
}
.picture {
  width: 100%;
  height: auto;
  aspect-ratio: 1;
  border-radius: var(--r);
}
.picture :deep(svg) {
  display: none;
}
.name {
  width: 70%;
}
.note {
  width: 45%;
}
</style>
