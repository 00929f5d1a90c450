<script setup lang="ts">
/** The pattern bench: a seeded pattern on the left leaf, its relief and casts on the right. */
import { Grid3x3, Redo2, Undo2 } from '@lucide/vue';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import type { Grow, Pattern } from '#core/settings';
import BenchShell from '../made/BenchShell.vue';
import GreyCanvas from '../made/GreyCanvas.vue';
import MadePanel from '../made/MadePanel.vue';
import PatternColumn from '../made/PatternColumn.vue';
import SurpriseBoard from '../made/SurpriseBoard.vue';
import { useShortcuts } from '../keys/shortcuts';
import { useMadeBench } from '../stores/madeBench';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';

const props = defineProps<{ id: string }>();
const bench = useMadeBench();
const surprising = ref(false);
const repeated = ref(false);
const doc = computed(() => bench.doc as Pattern | null);
watch(
  () => props.id,
  (id) => void bench.open(id, 'pattern'),
  { immediate: true },
);
onBeforeUnmount(() => void bench.close());

function take(grow: Grow): void {
  surprising.value = false;
  bench.edit('surprise', (made) => {
    if (made.kind === 'pattern') made.grow = grow;
  });
}
useShortcuts([
  { command: 'save', what: 'Save the pattern', run: () => void bench.save() },
  { command: 'undo', what: 'Undo the last change', run: () => bench.undo() },
  { command: 'redo', run: () => bench.redo() },
  { command: 'repeat', run: () => (repeated.value = !repeated.value) },
]);
</script>

<template>
  <BenchShell
    what="the pattern"
    :leaves="{ name: 'made', start: 0.64, left: 'The pattern', right: 'Its relief' }"
    :source="bench.doc"
    :bench="bench"
  >
    <template #left>
      <div v-if="doc" class="columns">
        <PatternColumn @surprise="surprising = true" />
        <div class="made-view" :data-busy="!bench.answer">
          <GreyCanvas
            v-if="bench.answer"
            :heights="bench.answer.heights"
            :size="bench.answer.size"
            :repeat="repeated"
          />
          <ToolGroup label="View and steps" class="tools">
            <ToolButton
              look="round"
              :icon="Grid3x3"
              label="Repeat three by three"
              command="repeat"
              :on="repeated"
              @click="repeated = !repeated"
            />
            <ToolButton
              look="round"
              :icon="Undo2"
              label="Undo"
              command="undo"
              :disabled="!bench.past.length"
              @click="bench.undo()"
            />
            <ToolButton
              look="round"
              :icon="Redo2"
              label="Redo"
              command="redo"
              :disabled="!bench.future.length"
              @click="bench.redo()"
            />
          </ToolGroup>
          <SurpriseBoard
            v-if="surprising"
            :form="doc.grow.form"
            :tiles="doc.grow.tiles"
            @take="take"
            @close="surprising = false"
          />
        </div>
      </div>
    </template>
    <template #right><MadePanel :bevel="false" /></template>
  </BenchShell>
</template>

<style scoped src="../controls/view.css"></style>
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
.made-view {
  position: relative;
  padding: 14px;
  background: #55585a;
  min-height: 0;
}
</style>
