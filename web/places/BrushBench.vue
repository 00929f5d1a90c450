<script setup lang="ts">
/** The brush bench: the brush on the left leaf, its proof on the right, changing together. */
import { ElDialog } from 'element-plus';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { Brush } from '#core/settings';
import FormColumn from '../bench/FormColumn.vue';
import SaveState from '../bench/SaveState.vue';
import StrokeColumn from '../bench/StrokeColumn.vue';
import BeltBar from '../parts/BeltBar.vue';
import LeafPair from '../parts/LeafPair.vue';
import LineageTrail from '../parts/LineageTrail.vue';
import ProofView from '../parts/ProofView.vue';
import { useShortcuts } from '../parts/shortcuts';
import TopBar from '../parts/TopBar.vue';
import { undoNotice } from '../parts/undoNotice';
import { useBrushBench } from '../stores/brushBench';
import { useLibrary } from '../stores/library';
import { useProof } from '../stores/proof';

const props = defineProps<{ id: string }>();
const router = useRouter();
const bench = useBrushBench();
const library = useLibrary();
const proof = useProof();
const opening = ref(true);
const alpha = computed(() => library.alpha(bench.doc?.form.alphaId ?? null));

watch(() => props.id, async (id) => {
  if (bench.doc?.id === id) {
    opening.value = false;
    return;
  }
  opening.value = true;
  await bench.open(id);
  opening.value = false;
}, { immediate: true });
onBeforeUnmount(() => void bench.flush());

async function edit(change: (brush: Brush) => void): Promise<void> {
  if (bench.base && bench.doc) {
    const from = bench.doc.id;
    const to = await bench.edit(change);
    if (to !== from) {
      await proof.sculptor.adopt(from, to);
      await router.replace(`/bench/brush/${to}`);
    }
  } else await bench.edit(change);
}

async function revert(): Promise<void> {
  const left = JSON.stringify(bench.doc);
  await bench.revert();
  undoNotice('Back to the saved brush.', async () => {
    await bench.edit((brush) => Object.assign(brush, JSON.parse(left)));
  });
}

async function keepAsCopy(): Promise<void> {
  const id = await bench.keepAsCopy();
  await router.replace(`/bench/brush/${id}`);
}

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
    <BeltBar :open-id="id" @pick="(to) => router.push(`/bench/brush/${to}`)" />
    <ElDialog v-model="bench.conflict" title="Changed in another window" width="420px" :close-on-click-modal="false">
      <p>“{{ bench.doc?.card.name }}” was saved from another window since it was opened here. Nothing is overwritten: keep your work as a copy beside it, or load the other and leave yours.</p>
      <template #footer>
        <button class="btn" type="button" @click="bench.revert()">Load the other</button>
        <button class="btn main" type="button" @click="keepAsCopy">Keep mine as a copy</button>
      </template>
    </ElDialog>
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
