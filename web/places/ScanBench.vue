<script setup lang="ts">
/** The scan bench: the scan with its patches on the left leaf, the cast of the chosen patch on the right. */
import { onBeforeUnmount, watch } from 'vue';
import { useShortcuts } from '../keys/shortcuts';
import BenchShell from '../made/BenchShell.vue';
import ScanColumn from '../scan/ScanColumn.vue';
import ScanPanel from '../scan/ScanPanel.vue';
import ScanView from '../scan/ScanView.vue';
import { useScanBench } from '../stores/scanBench';
import { useScanCast } from '../stores/scanCast';

const props = defineProps<{ id: string }>();
const bench = useScanBench();
// The cast follows the scan from the moment it is opened.
useScanCast();
watch(
  () => props.id,
  (id) => void bench.open(id),
  { immediate: true },
);
onBeforeUnmount(() => void bench.close());
useShortcuts([{ command: 'save', what: 'Save the scan’s patches', run: () => void bench.save() }]);
</script>

<template>
  <BenchShell
    what="the scan"
    :leaves="{ name: 'scan', start: 0.64, left: 'The scan', right: 'The cast' }"
    :source="bench.doc"
    :bench="bench"
  >
    <template #left>
      <div class="columns"><ScanColumn /><ScanView :key="bench.doc!.id" /></div>
    </template>
    <template #right><ScanPanel /></template>
  </BenchShell>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 208px minmax(0, 1fr);
  height: 100%;
}
.columns > * {
  min-height: 0;
  min-width: 0;
}
</style>
