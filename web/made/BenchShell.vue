<script setup lang="ts">
/** What the benches of made things share: lineage and state above, two leaves, what to say when there is nothing to show, the belt. */
import { useRouter } from 'vue-router';
import type { AlphaHead } from '#core/kept';
import type { Source } from '#core/settings';
import BeltBar from '../parts/BeltBar.vue';
import ConflictNote from '../parts/ConflictNote.vue';
import LeafPair from '../parts/LeafPair.vue';
import LineageTrail from '../parts/LineageTrail.vue';
import TopBar from '../parts/TopBar.vue';
import BakeState from './BakeState.vue';

defineProps<{
  /** What is open, in a sentence: “the sheet”. */
  what: string;
  leaves: { name: string; start: number; left: string; right: string };
  source?: Source | null;
  alpha?: AlphaHead | null;
  opening: boolean;
  problem: string | null;
  /** The stored one is newer than the one this work began on. */
  conflict: boolean;
  deleted: boolean;
  /** Keeps the work beside the other; answers the id of the copy. */
  keepAsCopy: () => Promise<string | null>;
  unsaved: boolean;
  keptAt: number | null;
  share?: number | null;
  fixed?: boolean;
}>();
defineEmits<{ save: []; revert: []; cancel: [] }>();
const router = useRouter();
</script>

<template>
  <div class="bench">
    <TopBar>
      <LineageTrail v-if="source ?? alpha" :source="source ?? null" :alpha="alpha ?? null" :open="alpha ? 'alpha' : 'source'" />
      <template #end>
        <BakeState v-if="source ?? alpha" :unsaved="unsaved" :kept-at="keptAt" :share="share ?? null" :disabled="fixed" @save="$emit('save')" @revert="$emit('revert')" @cancel="$emit('cancel')" />
      </template>
    </TopBar>
    <main>
      <LeafPair v-if="source ?? alpha" :name="leaves.name" :start="leaves.start" :left-label="leaves.left" :right-label="leaves.right">
        <template #left><slot name="left" /></template>
        <template #right><slot name="right" /></template>
      </LeafPair>
      <div v-else class="empty">
        <p v-if="opening">Opening {{ what }}…</p>
        <template v-else><p role="alert">{{ problem }}</p><RouterLink class="btn" to="/sources">To the sources</RouterLink></template>
      </div>
      <template v-if="source ?? alpha">
        <ConflictNote v-if="conflict" :deleted="deleted" :name="(alpha ?? source)!.card.name" :bench="alpha ? 'alpha' : source!.kind" :keep-as-copy="keepAsCopy" @revert="$emit('revert')" />
        <p v-else-if="problem" class="problem" role="alert">{{ problem }}</p>
      </template>
    </main>
    <BeltBar open-id="" @pick="(id) => router.push(`/bench/brush/${id}`)" />
  </div>
</template>

<style scoped>
.bench { height: 100%; display: grid; grid-template-rows: 48px 1fr auto; }
main { position: relative; min-height: 0; }
.empty { height: 100%; display: grid; place-content: center; justify-items: center; gap: 12px; }
.problem { position: absolute; left: 12px; bottom: 12px; max-width: 60%; padding: 8px 12px; border-radius: var(--r); background: var(--warn-wash); color: var(--warn); display: flex; gap: 10px; align-items: center; }
</style>
