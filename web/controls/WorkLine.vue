<script setup lang="ts">
/** Work that goes on here: what it is, how far it is, and what gives it up. */
import ProgressLine from './ProgressLine.vue';
import PushButton from './PushButton.vue';

defineProps<{ work: { what: string; share: number; cancel(): void } }>();
</script>

<template>
  <div class="work-line" role="status">
    <span>{{ work.what }}…</span>
    <ProgressLine :share="work.share" :label="work.what" />
    <PushButton small @click="work.cancel()">Cancel</PushButton>
  </div>
</template>

<style scoped>
.work-line {
  display: grid;
  grid-template-columns: minmax(60px, 1fr) auto;
  gap: 2px 8px;
  align-items: center;
}
span {
  grid-column: 1 / -1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
