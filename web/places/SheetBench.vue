<script setup lang="ts">
/** The sheet bench: the picture with its marks on the left leaf, finding and casting on the right. */
import { onBeforeUnmount, watch } from 'vue';
import { useRouter } from 'vue-router';
import BakeState from '../made/BakeState.vue';
import BeltBar from '../parts/BeltBar.vue';
import LeafPair from '../parts/LeafPair.vue';
import LineageTrail from '../parts/LineageTrail.vue';
import { useShortcuts } from '../parts/shortcuts';
import TopBar from '../parts/TopBar.vue';
import SheetPanel from '../sheet/SheetPanel.vue';
import SheetView from '../sheet/SheetView.vue';
import { useSheetBench } from '../stores/sheetBench';

const props = defineProps<{ id: string }>();
const bench = useSheetBench();
const router = useRouter();
watch(() => props.id, (id) => void bench.open(id), { immediate: true });
onBeforeUnmount(() => bench.close());
useShortcuts([{ keys: 'Ctrl+S', what: 'Save the sheet’s marks', run: () => void bench.save() }]);
</script>

<template>
  <div class="bench">
    <TopBar>
      <LineageTrail v-if="bench.doc" :source="bench.doc" open="source" />
      <template #end><BakeState v-if="bench.doc" :unsaved="bench.unsaved" :kept-at="bench.keptAt" :share="null" @save="bench.save()" @revert="bench.revert()" /></template>
    </TopBar>
    <main>
      <LeafPair v-if="bench.doc" name="sheet" :start="0.68" left-label="The sheet" right-label="Its marks">
        <template #left><SheetView :key="bench.doc.id" /></template>
        <template #right><SheetPanel /></template>
      </LeafPair>
      <div v-else class="empty">
        <p v-if="bench.opening">Opening the sheet…</p>
        <template v-else><p role="alert">{{ bench.problem }}</p><RouterLink class="btn" to="/sources">To the sources</RouterLink></template>
      </div>
      <p v-if="bench.doc && bench.problem" class="problem" role="alert">{{ bench.problem }}</p>
    </main>
    <BeltBar open-id="" @pick="(brush) => router.push(`/bench/brush/${brush}`)" />
  </div>
</template>

<style scoped src="../made/bench.css"></style>
