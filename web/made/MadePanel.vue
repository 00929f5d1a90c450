<script setup lang="ts">
/** What the drawn source does, live: its relief, its checks, and the alphas cast from it. */
import { computed } from 'vue';
import ReliefView from '../alpha/ReliefView.vue';
import CheckNote from '../controls/CheckNote.vue';
import { startRelief } from '../stores/castAlpha';
import { useMadeBench } from '../stores/madeBench';
import CastList from './CastList.vue';

defineProps<{ bevel: boolean }>();
const bench = useMadeBench();
const found = computed(() => bench.answer?.checks.checks.filter((c) => !c.ok && c.name !== 'resolution') ?? []);
</script>

<template>
  <div class="panel">
    <div class="view">
      <ReliefView
        v-if="bench.answer"
        :heights="bench.answer.heights"
        :size="bench.answer.size"
        :relief="startRelief(bench.doc!.kind)"
        :ground="bench.answer.checks.ground"
      />
    </div>
    <div class="lower">
      <CheckNote v-for="c in found" :key="c.name" :sentence="c.sentence" />
      <CastList :bevel="bevel" />
    </div>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template-rows: minmax(180px, 1fr) auto;
  gap: 10px;
  height: 100%;
  padding: 12px;
  min-height: 0;
}
.view {
  min-height: 0;
}
.lower {
  display: grid;
  gap: 8px;
  max-height: 340px;
  overflow: auto;
  align-content: start;
}
</style>
