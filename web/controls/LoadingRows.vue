<script setup lang="ts">
/** Where rows with a picture each will be, while they are fetched. */
import { ElSkeleton, ElSkeletonItem } from 'element-plus';

defineProps<{ label: string }>();
const GLANCE_MS = 200;
const ROWS = 4;
</script>

<template>
  <ElSkeleton animated :throttle="GLANCE_MS" class="loading" role="status" :aria-label="label">
    <template #template>
      <div v-for="n in ROWS" :key="n" class="one">
        <ElSkeletonItem variant="rect" class="picture" />
        <ElSkeletonItem variant="text" class="name" />
      </div>
    </template>
  </ElSkeleton>
</template>

<style scoped>
.loading {
  --el-skeleton-color: var(--well);
  --el-skeleton-to-color: var(--leaf);
  display: grid;
  gap: 10px;
}
.one {
  display: grid;
  grid-template-columns: 52px 1fr;
  gap: 12px;
  align-items: center;
}
.picture {
  width: 52px;
  height: 52px;
  border-radius: 4px;
}
.name {
  width: 60%;
}
</style>
