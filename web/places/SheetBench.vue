<script setup lang="ts">
/** The sheet bench: the picture with its marks on the left leaf, finding and casting on the right. */
import { onBeforeUnmount, watch } from 'vue';
import BenchShell from '../made/BenchShell.vue';
import { useShortcuts } from '../keys/shortcuts';
import SheetPanel from '../sheet/SheetPanel.vue';
import SheetView from '../sheet/SheetView.vue';
import { useSheetBench } from '../stores/sheetBench';

const props = defineProps<{ id: string }>();
const bench = useSheetBench();
watch(
  () => props.id,
  (id) => void bench.open(id),
  { immediate: true },
);
onBeforeUnmount(() => void bench.close());
useShortcuts([{ command: 'save', what: 'Save the sheet’s marks', run: () => void bench.save() }]);
</script>

<template>
  <BenchShell
    what="the sheet"
    :leaves="{ name: 'sheet', start: 0.68, left: 'The sheet', right: 'Its marks' }"
    :source="bench.doc"
    :bench="bench"
  >
    <template #left>
      <SheetView :key="bench.doc!.id" />
    </template>
    <template #right><SheetPanel /></template>
  </BenchShell>
</template>
