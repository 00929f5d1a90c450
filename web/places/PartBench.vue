<script setup lang="ts">
/**
 * The part bench: the part on its seat on the left leaf, with its budget, seat and size; on the right the proof, where
 * it can be set down at once.
 */
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { BRUSH_VERSION, BrushSchema, type Brush } from '#core/settings';
import { headOf, type BrushAlphas } from '#core/stored';
import { useShortcuts } from '../keys/shortcuts';
import BenchShell from '../made/BenchShell.vue';
import PartPanel from '../parts/PartPanel.vue';
import PartView from '../parts/PartView.vue';
import ProofView from '../proof/ProofView.vue';
import { usePartBench } from '../stores/partBench';

const props = defineProps<{ id: string }>();
const bench = usePartBench();
/** What the next press on the part picks. */
const picking = ref<'face' | 'rest' | null>(null);
const view = ref<InstanceType<typeof PartView>>();
watch(
  () => props.id,
  (id) => void bench.open(id),
  { immediate: true },
);
onBeforeUnmount(() => bench.close());

/** Sets the part down as it is now, saved or not; it is nobody's brush. */
const trying = ref<Brush | null>(null);
watch(
  () => props.id,
  (id) => {
    trying.value = BrushSchema.parse({
      version: BRUSH_VERSION,
      id,
      card: { name: 'The part' },
      touch: { action: 'insert' },
      stroke: { type: 'grow', size: 0.25 },
      parts: { entries: [{ partId: id }] },
    });
  },
  { immediate: true },
);
const alphas = computed<BrushAlphas>(() => ({
  form: null,
  tooth: null,
  parts: bench.doc ? [headOf('parts', bench.doc)] : [],
}));
useShortcuts([{ command: 'save', what: 'Save the part', run: () => void bench.save() }]);
</script>

<template>
  <BenchShell
    what="the part"
    :leaves="{
      name: 'part-proof',
      start: 0.58,
      left: 'The part on its seat',
      right: 'The part set down',
      ownKeys: true,
    }"
    :part="bench.doc"
    :bench="bench"
  >
    <template #left>
      <div class="left">
        <PartPanel v-model:picking="picking" @seat-from-view="view?.seatFromHere()" />
        <PartView ref="view" :key="bench.doc!.id" v-model:picking="picking" />
      </div>
    </template>
    <template #right>
      <ProofView v-if="trying" :key="trying.id" :brush="trying" :alphas="alphas" @edit="(by) => by(trying!)" />
    </template>
  </BenchShell>
</template>

<style scoped>
.left {
  display: grid;
  grid-template-columns: minmax(248px, 276px) minmax(0, 1fr);
  height: 100%;
}
.left > * {
  min-height: 0;
}
</style>
