<script setup lang="ts">
/** The brush bench: the brush on the left leaf, its proof and its strip on the right, changing together. */
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { addParts, paints, setsParts } from '#core/settings';
import CompareBar from '../bench/CompareBar.vue';
import ConflictDialog from '../bench/ConflictDialog.vue';
import FormColumn from '../bench/FormColumn.vue';
import PartSetColumn from '../bench/PartSetColumn.vue';
import { useOpenBrush } from '../bench/openBrush';
import SaveState from '../controls/SaveState.vue';
import SettingsHistory from '../bench/SettingsHistory.vue';
import StripView from '../bench/StripView.vue';
import SwatchSheet from '../bench/SwatchSheet.vue';
import ToolButton from '../controls/ToolButton.vue';
import { useLocalStorage } from '@vueuse/core';
import { PanelBottom } from '@lucide/vue';
import StrokeColumn from '../bench/StrokeColumn.vue';
import BeltBar from '../controls/BeltBar.vue';
import LeafPair from '../controls/LeafPair.vue';
import PaletteRow from '../controls/PaletteRow.vue';
import LineageTrail from '../controls/LineageTrail.vue';
import { useShortcuts } from '../keys/shortcuts';
import EmptyPlace from '../controls/EmptyPlace.vue';
import TopBar from '../controls/TopBar.vue';
import CompareView from '../proof/CompareView.vue';
import { useLook } from '../proof/looks';
import ProofView from '../proof/ProofView.vue';
import { useCompare } from '../stores/compare';
import { useProof } from '../stores/proof';
import { useLibrary } from '../stores/library';
import type { Pose } from '../viewport/bodyEye';

const props = defineProps<{ id: string; /** A part that comes into its set. */ add?: string }>();
const proof = useProof();
const {
  bench,
  shown,
  openings,
  alpha,
  opening,
  go,
  edit: change,
  revert,
  keepAsCopy,
} = useOpenBrush(() => props.id, '/bench/brush');
const router = useRouter();
const compare = useCompare();
const library = useLibrary();
const { clay, facets } = useLook();
const pose = ref<Pose | null>(null);
/** Swatches stand in the strip’s place. */
const swatches = useLocalStorage('brush-swatches', false);
const onSheet = computed(() => swatches.value && shown.value !== null && paints(compare.shown ?? shown.value));
const shownPalette = computed(() => shown.value !== null && paints(shown.value));
onBeforeUnmount(() => void bench.flush());
watch(
  () => props.id,
  () => (compare.showing = false),
);
useShortcuts([{ command: 'save', what: 'Save the brush', run: () => void bench.save() }]);

/** A part that was sent here comes into the set once: the address forgets it. */
watch(
  () => [props.add, bench.doc?.id === props.id] as const,
  async ([partId, here]) => {
    if (!partId || !here) return;
    await router.replace({ path: `/bench/brush/${props.id}` });
    await edit((brush) => addParts(brush.parts, [partId]));
  },
  { immediate: true },
);

/** What is changed is what is seen. */
async function edit(by: Parameters<typeof change>[0]): Promise<void> {
  compare.showing = false;
  await change(by);
}
</script>

<template>
  <div class="bench">
    <TopBar>
      <LineageTrail v-if="bench.doc" :alpha="alpha" :brush="bench.doc" open="brush" />
      <template #end
        ><template v-if="bench.doc"
          ><SettingsHistory /><SaveState :open="bench" reverts @save="bench.save()" @revert="revert" /></template
      ></template>
    </TopBar>
    <main v-if="shown">
      <LeafPair name="brush" :start="0.43" :left-least="524" left-label="The brush" right-label="The proof">
        <template #left>
          <div :key="openings" class="columns" :inert="bench.doc === null">
            <PartSetColumn v-if="setsParts(shown)" :brush="shown" @edit="edit" />
            <FormColumn v-else :brush="shown" :alpha="alpha" @edit="edit" />
            <StrokeColumn
              :brush="shown"
              :alpha="alpha"
              :name-problem="bench.nameProblem"
              :base="bench.base"
              @edit="edit"
            />
          </div>
        </template>
        <template #right>
          <div class="right" :class="{ pair: compare.beside && compare.other }">
            <CompareView
              v-if="compare.beside && compare.other"
              :key="openings"
              v-model:pose="pose"
              :brush="compare.other"
              :label="compare.isPinned ? 'pinned' : 'saved'"
              :clay="clay"
              :facets="facets"
            />
            <ProofView
              v-model:pose="pose"
              :brush="compare.shown ?? shown"
              :alphas="library.alphasOf(compare.shown ?? shown)"
              :opening="opening || bench.doc === null"
              @edit="edit"
            />
            <CompareBar class="versions" :class="{ high: onSheet }" />
            <ToolButton
              v-if="paints(shown)"
              class="to-sheet"
              :icon="PanelBottom"
              label="Swatches"
              :help="onSheet ? 'Show the strip' : 'A sheet of strokes to judge colours by'"
              :on="onSheet"
              @click="swatches = !swatches"
            />
            <SwatchSheet
              v-if="onSheet"
              :key="`sheet-${openings}`"
              :brush="compare.shown ?? shown"
              :alphas="library.alphasOf(compare.shown ?? shown)"
            />
            <StripView
              v-else-if="!setsParts(compare.shown ?? shown)"
              :key="`strip-${openings}`"
              :brush="compare.shown ?? shown"
              :alphas="library.alphasOf(compare.shown ?? shown)"
            />
          </div>
        </template>
      </LeafPair>
      <p v-if="bench.problem" class="problem" role="alert">{{ bench.problem }}</p>
    </main>
    <main v-else><EmptyPlace what="the brush" :opening="opening" :says="bench.problem" to="/" /></main>
    <PaletteRow
      v-if="shownPalette && shown"
      :first="shown.colour.first"
      :second="shown.colour.second"
      :painted="proof.paintedPicture"
      @first="(colour) => edit((b) => (b.colour.first = colour))"
      @second="(colour) => edit((b) => (b.colour.second = colour))"
    />
    <BeltBar :open-id="id" @pick="go" />
    <ConflictDialog @keep="keepAsCopy" />
  </div>
</template>

<style scoped>
.bench {
  height: 100%;
  display: grid;
  grid-template: 48px minmax(0, 1fr) auto auto / minmax(0, 1fr);
}
main {
  position: relative;
  min-height: 0;
}
.columns {
  display: grid;
  grid-template-columns: 214px minmax(0, 1fr);
  height: 100%;
}
.columns > * {
  min-height: 0;
  min-width: 0;
}
.right {
  position: relative;
  height: 100%;
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr);
}
.right.pair {
  grid-template-columns: repeat(2, minmax(0, 1fr));
}
.right > :is(.strip, .sheet) {
  grid-column: 1 / -1;
}
/* Over the proof, at its right, over the line that names the body. */
.versions {
  position: absolute;
  right: 12px;
  bottom: 148px;
}
.versions.high {
  bottom: 224px;
}
.to-sheet {
  position: absolute;
  right: 8px;
  bottom: 60px;
  z-index: 1;
  background: color-mix(in srgb, var(--page) 88%, transparent);
}
.right:has(.sheet) .to-sheet {
  bottom: 134px;
}
.problem {
  position: absolute;
  left: 12px;
  bottom: 12px;
  padding: 8px 12px;
  border-radius: var(--r);
  background: var(--warn-wash);
  color: var(--warn);
}
</style>
