<script setup lang="ts">
/** The pattern bench: a seeded pattern on the left leaf, its relief and casts on the right. */
import { Grid3x3, Redo2, Undo2 } from '@lucide/vue';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { Grow, Pattern } from '#core/settings';
import BakeState from '../made/BakeState.vue';
import GreyCanvas from '../made/GreyCanvas.vue';
import MadePanel from '../made/MadePanel.vue';
import PatternColumn from '../made/PatternColumn.vue';
import SurpriseBoard from '../made/SurpriseBoard.vue';
import BeltBar from '../parts/BeltBar.vue';
import LeafPair from '../parts/LeafPair.vue';
import LineageTrail from '../parts/LineageTrail.vue';
import { useShortcuts } from '../parts/shortcuts';
import TopBar from '../parts/TopBar.vue';
import { useMadeBench } from '../stores/madeBench';

const props = defineProps<{ id: string }>();
const bench = useMadeBench();
const router = useRouter();
const surprising = ref(false);
const repeated = ref(false);
const doc = computed(() => bench.doc as Pattern | null);
watch(() => props.id, (id) => void bench.open(id, 'pattern'), { immediate: true });
onBeforeUnmount(() => bench.close());

function take(grow: Grow): void {
  surprising.value = false;
  bench.edit('surprise', (made) => {
    if (made.kind === 'pattern') made.grow = grow;
  });
}
useShortcuts([
  { keys: 'Ctrl+S', what: 'Save the pattern', run: () => void bench.save() },
  { keys: 'Ctrl+Z', what: 'Undo the last change', run: () => bench.undo() },
  { keys: 'Ctrl+Shift+Z', what: 'Redo', run: () => bench.redo() },
  { keys: 'T', what: 'Repeat it three by three, and back', run: () => (repeated.value = !repeated.value) },
]);
</script>

<template>
  <div class="bench">
    <TopBar>
      <LineageTrail v-if="bench.doc" :source="bench.doc" open="source" />
      <template #end><BakeState v-if="bench.doc" :unsaved="bench.unsaved" :kept-at="bench.keptAt" :share="null" @save="bench.save()" @revert="bench.revert()" /></template>
    </TopBar>
    <main>
      <LeafPair v-if="doc" name="made" :start="0.64" left-label="The pattern" right-label="Its relief">
        <template #left>
          <div class="columns">
            <PatternColumn @surprise="surprising = true" />
            <div class="made-view" :data-busy="!bench.answer">
              <GreyCanvas v-if="bench.answer" :heights="bench.answer.heights" :size="bench.answer.size" :repeat="repeated" />
              <div class="tools">
                <button type="button" :class="{ on: repeated }" :aria-pressed="repeated" title="Repeat three by three (T)" aria-label="Repeat three by three" @click="repeated = !repeated"><Grid3x3 :size="16" /></button>
                <button type="button" :disabled="!bench.past.length" title="Undo (Ctrl+Z)" aria-label="Undo" @click="bench.undo()"><Undo2 :size="16" /></button>
                <button type="button" :disabled="!bench.future.length" title="Redo (Ctrl+Shift+Z)" aria-label="Redo" @click="bench.redo()"><Redo2 :size="16" /></button>
              </div>
              <SurpriseBoard v-if="surprising" :form="doc.grow.form" :tiles="doc.grow.tiles" @take="take" @close="surprising = false" />
            </div>
          </div>
        </template>
        <template #right><MadePanel :bevel="false" /></template>
      </LeafPair>
      <div v-else class="empty">
        <p v-if="bench.opening">Opening the pattern…</p>
        <template v-else><p role="alert">{{ bench.problem }}</p><RouterLink class="btn" to="/sources">To the sources</RouterLink></template>
      </div>
      <p v-if="bench.doc && bench.problem" class="problem" role="alert">{{ bench.problem }}</p>
    </main>
    <BeltBar open-id="" @pick="(brush) => router.push(`/bench/brush/${brush}`)" />
  </div>
</template>

<style scoped src="../parts/view.css"></style>
<style scoped src="../made/bench.css"></style>
<style scoped>
.columns { grid-template-columns: 252px minmax(0, 1fr); }
.made-view { position: relative; padding: 14px; background: #55585a; min-height: 0; }
</style>
