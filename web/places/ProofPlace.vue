<script setup lang="ts">
/** The body alone, full width, with the belt: for a longer run with one brush after another. */
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import type { Brush } from '#core/settings';
import BeltBar from '../parts/BeltBar.vue';
import LineageTrail from '../parts/LineageTrail.vue';
import ProofView from '../parts/ProofView.vue';
import SaveState from '../bench/SaveState.vue';
import TopBar from '../parts/TopBar.vue';
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
  if (bench.doc?.id !== id) await bench.open(id);
  opening.value = false;
}, { immediate: true });

async function edit(change: (brush: Brush) => void): Promise<void> {
  const from = bench.doc?.id;
  const to = await bench.edit(change);
  if (from && to !== from) {
    await proof.sculptor.adopt(from, to);
    await router.replace(`/proof/${to}`);
  }
}
</script>

<template>
  <div class="place">
    <TopBar>
      <LineageTrail v-if="bench.doc" :alpha="alpha" :brush="bench.doc" open="brush" />
      <template #end><SaveState v-if="bench.doc" @save="bench.save()" @revert="bench.revert()" /></template>
    </TopBar>
    <main>
      <ProofView v-if="bench.doc" :brush="bench.doc" :alpha="alpha" @edit="edit" />
      <p v-else class="empty">{{ opening ? 'Opening…' : bench.problem }}</p>
    </main>
    <BeltBar :open-id="id" @pick="(to) => router.push(`/proof/${to}`)" />
  </div>
</template>

<style scoped>
.place { height: 100%; display: grid; grid-template-rows: 48px 1fr auto; }
main { min-height: 0; }
.empty { display: grid; place-content: center; height: 100%; }
</style>
