<script setup lang="ts">
/** Where cards will be, or rows with a picture each, while they are fetched; shown when that takes a while. */
import { ElSkeleton, ElSkeletonItem } from 'element-plus';

defineProps<{
  of: 'cards' | 'rows';
  /** What is fetched, to those who don’t see it. */
  label: string;
}>();
const GLANCE_MS = 200;
const COUNTS = { cards: 12, rows: 4 };
</script>

<template>
  <ElSkeleton animated :throttle="GLANCE_MS" class="loading" :class="of" role="status" :aria-label="label">
    <template #template>
      <div v-for="n in COUNTS[of]" :key="n" class="one">
        <ElSkeletonItem variant="rect" class="picture" />
        <ElSkeletonItem variant="text" class="name" />
        <ElSkeletonItem v-if="of === 'cards'" variant="text" class="note" />
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
  gap: 6px;
  align-items: center;
}
.picture {
  aspect-ratio: 1;
  height: auto;
  border-radius: var(--r);
}
.name {
  width: 70%;
}
.note {
  width: 45%;
}
.cards {
  grid-template-columns: repeat(auto-fill, minmax(var(--card, 172px), 1fr));
  gap: 16px;
  margin-top: 24px;
}
.rows .one {
  grid-template-columns: 52px 1fr;
  gap: 12px;
}
</style>
