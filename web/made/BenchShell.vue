<script setup lang="ts">
/**
 * What the benches of made things share: lineage and state above, two leaves, what to say when there is nothing to
 * show, the belt.
 */
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import type { AlphaHead } from '#core/stored';
import type { Part, Source } from '#core/settings';
import BeltBar from '../controls/BeltBar.vue';
import ConflictNote from '../controls/ConflictNote.vue';
import LeafPair from '../controls/LeafPair.vue';
import LineageTrail from '../controls/LineageTrail.vue';
import SaveState from '../controls/SaveState.vue';
import EmptyPlace from '../controls/EmptyPlace.vue';
import TopBar from '../controls/TopBar.vue';
import type { OpenOnBench } from '../stores/openOptions';

const props = defineProps<{
  /** What is open, in a sentence: “the sheet”. */
  what: string;
  leaves: { name: string; start: number; left: string; right: string; ownKeys?: boolean };
  source?: Source | null;
  alpha?: AlphaHead | null;
  part?: Part | null;
  bench: OpenOnBench;
  /** Something to be said where there is no problem. */
  told?: string | null;
}>();
const router = useRouter();
const open = computed(() => props.alpha ?? props.part ?? props.source ?? null);
const kind = computed(() => (props.alpha ? 'alpha' : props.part ? 'part' : props.source!.kind));
</script>

<template>
  <div class="bench">
    <TopBar>
      <LineageTrail
        v-if="open"
        :source="source ?? null"
        :alpha="alpha ?? null"
        :part="part ?? null"
        :open="alpha ? 'alpha' : part ? 'part' : 'source'"
      />
      <template #end>
        <SaveState
          v-if="open"
          :open="bench"
          reverts
          @save="bench.save()"
          @revert="bench.revert()"
          @cancel="bench.cancel?.()"
        />
      </template>
    </TopBar>
    <main>
      <LeafPair
        v-if="open"
        :name="leaves.name"
        :start="leaves.start"
        :left-label="leaves.left"
        :right-label="leaves.right"
        :own-keys="leaves.ownKeys ?? false"
      >
        <template #left><slot name="left" /></template>
        <template #right><slot name="right" /></template>
      </LeafPair>
      <EmptyPlace v-else :what="what" :opening="bench.opening" :says="bench.problem" to="/sources" />
      <template v-if="open">
        <ConflictNote
          v-if="bench.conflict"
          :deleted="bench.deleted"
          :name="open.card.name"
          :bench="kind"
          :keep-as-copy="bench.keepAsCopy"
          @revert="bench.revert()"
        />
        <p v-else-if="bench.problem ?? told" class="problem" role="alert">{{ bench.problem ?? told }}</p>
      </template>
    </main>
    <BeltBar open-id="" @pick="(id) => router.push(`/bench/brush/${id}`)" />
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template: 48px minmax(0, 1fr) auto / minmax(0, 1fr);
}
main {
  position: relative;
  min-height: 0;
}
.problem {
  position: absolute;
  left: 12px;
  bottom: 12px;
  max-width: 60%;
  padding: 8px 12px;
  border-radius: var(--r);
  background: var(--warn-wash);
  color: var(--warn);
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
