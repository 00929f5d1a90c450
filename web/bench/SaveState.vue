<script setup lang="ts">
/** Saved, kept as a draft, or waiting for the server; and the button that saves. */
import { computed } from 'vue';
import { useBrushBench } from '../stores/brushBench';

defineEmits<{ save: []; revert: [] }>();
const bench = useBrushBench();
const time = computed(() => (bench.keptAt ? new Date(bench.keptAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false }) : ''));
const state = computed(() => {
  if (bench.saving) return 'saving…';
  if (bench.waiting) return 'kept here, sent when the server is back';
  if (bench.unsaved) return time.value ? `draft kept ${time.value}` : 'not saved';
  return bench.base ? 'base brush' : 'saved';
});
</script>

<template>
  <span class="state" role="status" :class="{ unsaved: bench.unsaved }">{{ state }}</span>
  <button v-if="bench.unsaved && bench.saved" class="btn quiet" type="button" title="Back to the saved brush" @click="$emit('revert')">Revert</button>
  <button class="btn main" type="button" :disabled="!bench.unsaved || bench.saving" title="Save (Ctrl+S)" @click="$emit('save')">Save</button>
</template>

<style scoped>
.state { color: var(--ink-2); font-size: 12px; white-space: nowrap; }
.unsaved { color: var(--warn); }
</style>
