<script setup lang="ts">
/** The alpha bench: recipe and picture on the left leaf, relief, profile and checks on the right. */
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import AlphaPanel from '../alpha/AlphaPanel.vue';
import AlphaView from '../alpha/AlphaView.vue';
import { CROSSING, type CutLine } from '../alpha/cutLine';
import RecipeColumn from '../alpha/RecipeColumn.vue';
import BenchShell from '../made/BenchShell.vue';
import { useShortcuts } from '../keys/shortcuts';
import { useAlphaBench } from '../stores/alphaBench';

const props = defineProps<{ id: string }>();
const bench = useAlphaBench();
const cut = ref<CutLine>({ ...CROSSING });
const told = computed(() =>
  bench.behind ? 'What this alpha was made from has changed since; a save takes it in.' : null,
);
watch(
  () => props.id,
  (id) => void bench.open(id),
  { immediate: true },
);
onBeforeUnmount(() => void bench.close());
useShortcuts([{ command: 'save', what: 'Save the alpha', run: () => void bench.save() }]);
</script>

<template>
  <BenchShell
    what="the alpha"
    :leaves="{ name: 'alpha', start: 0.66, left: 'The alpha', right: 'Its relief' }"
    :alpha="bench.doc"
    :bench="bench"
    :told="told"
  >
    <template #left>
      <div class="columns">
        <RecipeColumn /><AlphaView :key="bench.doc!.id" :cut="cut" @cut="(line) => (cut = line)" />
      </div>
    </template>
    <template #right><AlphaPanel :cut="cut" /></template>
  </BenchShell>
</template>

<style scoped>
.columns {
  display: grid;
  height: 100%;
  grid-template-columns: 252px minmax(0, 1fr);
}
.columns > * {
  min-height: 0;
  min-width: 0;
}
</style>
