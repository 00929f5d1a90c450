<script setup lang="ts">
/** The slab bench: the clay on the left leaf, its cast growing on the right, its brushes on the belt. */
import { onBeforeUnmount, watch } from 'vue';
import ConflictNote from '../controls/ConflictNote.vue';
import LeafPair from '../controls/LeafPair.vue';
import LineageTrail from '../controls/LineageTrail.vue';
import { useShortcuts } from '../keys/shortcuts';
import SaveState from '../controls/SaveState.vue';
import EmptyPlace from '../controls/EmptyPlace.vue';
import TopBar from '../controls/TopBar.vue';
import CastPanel from '../slab/CastPanel.vue';
import SlabBelt from '../slab/SlabBelt.vue';
import SlabColumn from '../slab/SlabColumn.vue';
import SlabView from '../slab/SlabView.vue';
import { useSlabBench } from '../stores/slabBench';
import { useSlabCast } from '../stores/slabCast';

const props = defineProps<{ id: string }>();
const bench = useSlabBench();
// The cast follows the slab from the moment it is opened.
useSlabCast();

watch(
  () => props.id,
  (id) => void bench.open(id),
  { immediate: true },
);
onBeforeUnmount(() => void bench.close());
useShortcuts([{ command: 'save', what: 'Save the slab', run: () => void bench.save() }]);
</script>

<template>
  <div class="bench">
    <TopBar>
      <LineageTrail v-if="bench.doc" :source="bench.doc" open="source" />
      <template #end>
        <SaveState v-if="bench.doc" :open="bench" @save="bench.save()" />
      </template>
    </TopBar>
    <main>
      <LeafPair
        v-if="bench.sculptor && bench.doc"
        name="slab"
        :start="0.65"
        left-label="The slab"
        right-label="The cast"
      >
        <template #left
          ><div class="columns"><SlabColumn /><SlabView :key="bench.doc.id" /></div
        ></template>
        <template #right><CastPanel /></template>
      </LeafPair>
      <EmptyPlace v-else what="the slab" :opening="bench.opening" :says="bench.problem" to="/sources" />
      <ConflictNote
        v-if="bench.conflict && bench.doc"
        :deleted="bench.deleted"
        :name="bench.doc.card.name"
        bench="slab"
        :keep-as-copy="bench.keepAsCopy"
        @revert="bench.revert()"
      />
    </main>
    <SlabBelt v-if="bench.doc || bench.opening" />
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template: 48px minmax(0, 1fr) auto / minmax(0, 1fr);
}
main {
  min-height: 0;
  position: relative;
}
.columns {
  display: grid;
  grid-template-columns: 246px minmax(0, 1fr);
  height: 100%;
}
.columns > * {
  min-height: 0;
  min-width: 0;
}
</style>
