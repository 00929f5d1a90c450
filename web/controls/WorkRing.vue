<script setup lang="ts">
/** Long work as a small ring in the top bar: what it is, how long it takes, and Cancel. */
import { useIntervalFn } from '@vueuse/core';
import { ElProgress } from 'element-plus';
import { computed, ref, watch } from 'vue';
import { secondsLeft, useWork } from '../stores/work';
import PopMenu from './PopMenu.vue';
import PushButton from './PushButton.vue';

const work = useWork();
const now = ref(Date.now());
const clock = useIntervalFn(() => (now.value = Date.now()), 500, { immediate: false });
watch(
  () => work.running.length > 0,
  (any) => (any ? clock.resume() : clock.pause()),
  { immediate: true },
);
const percent = computed(() => Math.round((work.share ?? 0) * 100));

function left(of: (typeof work.running)[number]): string {
  const seconds = secondsLeft(of, now.value);
  if (seconds === null) return 'begun';
  return seconds < 60 ? `${Math.max(1, Math.round(seconds))} s left` : `${Math.round(seconds / 60)} min left`;
}
</script>

<template>
  <PopMenu v-if="work.running.length" placement="bottom-end" :width="280">
    <template #reference>
      <PushButton
        look="quiet"
        class="ring"
        :aria-label="`${work.running.map((w) => w.what).join(', ')}: ${percent} %`"
        :title="work.running.map((w) => w.what).join(', ')"
      >
        <ElProgress
          type="circle"
          :percentage="percent"
          :width="24"
          :stroke-width="3"
          :show-text="false"
          color="var(--act)"
        />
        <span>{{ percent }} %</span>
      </PushButton>
    </template>
    <ul>
      <li v-for="w in work.running" :key="w.id">
        <b>{{ w.what }}</b>
        <ElProgress :percentage="Math.round(w.share * 100)" :stroke-width="4" :show-text="false" />
        <span class="muted">{{ w.detail || `${Math.round(w.share * 100)} %` }}, {{ left(w) }}</span>
        <PushButton small @click="w.cancel()">Cancel</PushButton>
      </li>
    </ul>
  </PopMenu>
</template>

<style scoped>
.ring {
  padding: 2px 8px 2px 4px;
  height: 34px;
}
.ring :deep(.el-progress) {
  --el-fill-color-light: var(--line);
  line-height: 0;
}
.ring :deep(> span) {
  display: flex;
  align-items: center;
  gap: 6px;
  font-variant-numeric: tabular-nums;
}
ul {
  display: grid;
  gap: 12px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 10px;
  align-items: center;
}
li b,
li :deep(.el-progress) {
  grid-column: 1 / -1;
}
</style>
