<script setup lang="ts">
/** The brush bench: the brush on the left leaf, its proof on the right, changing together. */
import { onBeforeUnmount } from 'vue';
import ConflictDialog from '../bench/ConflictDialog.vue';
import FormColumn from '../bench/FormColumn.vue';
import { useOpenBrush } from '../bench/openBrush';
import SaveState from '../bench/SaveState.vue';
import StrokeColumn from '../bench/StrokeColumn.vue';
import BeltBar from '../parts/BeltBar.vue';
import LeafPair from '../parts/LeafPair.vue';
import LineageTrail from '../parts/LineageTrail.vue';
import ProofView from '../parts/ProofView.vue';
import { useShortcuts } from '../parts/shortcuts';
import TopBar from '../parts/TopBar.vue';

const props = defineProps<{ id: string }>();
const { bench, alpha, opening, go, edit, revert, keepAsCopy } = useOpenBrush(() => props.id, '/bench/brush');
onBeforeUnmount(() => void bench.flush());
useShortcuts([{ keys: 'Ctrl+S', what: 'Save the brush', run: () => void bench.save() }]);
</script>

<template>
  <div class="bench">
    <TopBar>
      <LineageTrail v-if="bench.doc" :alpha="alpha" :brush="bench.doc" open="brush" />
      <template #end><SaveState v-if="bench.doc" @save="bench.save()" @revert="revert" /></template>
    </TopBar>
    <main v-if="bench.doc">
      <LeafPair name="brush" :start="0.43" left-label="The brush" right-label="The proof">
        <template #left>
          <div class="columns">
            <FormColumn :brush="bench.doc" :alpha="alpha" @edit="edit" />
            <StrokeColumn :brush="bench.doc" :name-problem="bench.nameProblem" :base="bench.base" @edit="edit" />
          </div>
        </template>
        <template #right><ProofView :brush="bench.doc" :alpha="alpha" @edit="edit" /></template>
      </LeafPair>
      <p v-if="bench.problem" class="problem" role="alert">{{ bench.problem }}</p>
    </main>
    <main v-else class="empty">
      <p v-if="opening">Opening…</p>
      <template v-else><p>{{ bench.problem }}</p><RouterLink class="btn" to="/">To the rack</RouterLink></template>
    </main>
    <BeltBar :open-id="id" @pick="go" />
    <ConflictDialog @keep="keepAsCopy" />
  </div>
</template>

<style scoped>
.bench { height: 100%; display: grid; grid-template-rows: 48px 1fr auto; }
main { position: relative; min-height: 0; }
.columns { display: grid; grid-template-columns: 214px 1fr; height: 100%; }
.columns > * { min-height: 0; min-width: 0; }
.empty { display: grid; place-content: center; justify-items: center; gap: 12px; }
.problem { position: absolute; left: 12px; bottom: 12px; padding: 8px 12px; border-radius: var(--r); background: var(--warn-wash); color: var(--warn); }
</style>
