<script setup lang="ts">
/** The body alone, full width, with the belt: for a longer run with one brush after another. */
import { onBeforeUnmount } from 'vue';
import { paints } from '#core/settings';
import ConflictDialog from '../bench/ConflictDialog.vue';
import { useOpenBrush } from '../bench/openBrush';
import SaveState from '../controls/SaveState.vue';
import BeltBar from '../controls/BeltBar.vue';
import PaletteRow from '../controls/PaletteRow.vue';
import LineageTrail from '../controls/LineageTrail.vue';
import { useProof } from '../stores/proof';
import ProofView from '../proof/ProofView.vue';
import { useShortcuts } from '../keys/shortcuts';
import EmptyPlace from '../controls/EmptyPlace.vue';
import TopBar from '../controls/TopBar.vue';

const props = defineProps<{ id: string }>();
const proof = useProof();
const { bench, shown, alpha, alphas, opening, go, edit, revert, keepAsCopy } = useOpenBrush(() => props.id, '/proof');
onBeforeUnmount(() => void bench.flush());
useShortcuts([{ command: 'save', what: 'Save the brush', run: () => void bench.save() }]);
</script>

<template>
  <div class="place">
    <TopBar>
      <LineageTrail v-if="bench.doc" :alpha="alpha" :brush="bench.doc" open="brush" />
      <template #end
        ><SaveState v-if="bench.doc" :open="bench" reverts @save="bench.save()" @revert="revert"
      /></template>
    </TopBar>
    <main>
      <ProofView v-if="shown" :brush="shown" :alphas="alphas" :opening="opening || bench.doc === null" @edit="edit" />
      <EmptyPlace v-else what="the brush" :opening="opening" :says="bench.problem" to="/" />
    </main>
    <PaletteRow
      v-if="bench.doc && paints(bench.doc)"
      :first="bench.doc.colour.first"
      :second="bench.doc.colour.second"
      :painted="proof.paintedPicture"
      @first="(colour) => edit((b) => (b.colour.first = colour))"
      @second="(colour) => edit((b) => (b.colour.second = colour))"
    />
    <BeltBar :open-id="id" @pick="go" />
    <ConflictDialog @keep="keepAsCopy" />
  </div>
</template>

<style scoped>
.place {
  height: 100%;
  display: grid;
  grid-template: 48px minmax(0, 1fr) auto auto / minmax(0, 1fr);
}
main {
  min-height: 0;
}
</style>
