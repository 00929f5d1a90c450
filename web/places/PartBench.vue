<script setup lang="ts">
/** The part bench: the part on its seat on the left leaf, its budget, seat and size on the right. */
import { onBeforeUnmount, ref, watch } from 'vue';
import { useShortcuts } from '../controls/shortcuts';
import BenchShell from '../made/BenchShell.vue';
import PartPanel from '../parts/PartPanel.vue';
import PartView from '../parts/PartView.vue';
import { usePartBench } from '../stores/partBench';

const props = defineProps<{ id: string }>();
const bench = usePartBench();
const picking = ref(false);
const view = ref<InstanceType<typeof PartView>>();
watch(
  () => props.id,
  (id) => void bench.open(id),
  { immediate: true },
);
onBeforeUnmount(() => bench.close());
useShortcuts([{ keys: 'Ctrl+S', what: 'Save the part', run: () => void bench.save() }]);
</script>

<template>
  <BenchShell
    what="the part"
    :leaves="{ name: 'part', start: 0.62, left: 'The part on its seat', right: 'What it is' }"
    :part="bench.doc"
    :bench="bench"
  >
    <template #left><PartView ref="view" :key="bench.doc!.id" v-model:picking="picking" /></template>
    <template #right><PartPanel v-model:picking="picking" @seat-from-view="view?.seatFromHere()" /></template>
  </BenchShell>
</template>
