<script setup lang="ts">
/** Sixteen patterns drawn at random: a click takes one, Esc leaves it as it was. */
import { onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { surprises } from '#core/pattern';
import { PatternSchema, SOURCE_VERSION, type Grow, type PatternForm } from '#core/settings';
import { useShortcuts } from '../parts/shortcuts';
import { Recipes } from '../workers/recipes';
import GreyCanvas from './GreyCanvas.vue';

const props = defineProps<{ form: PatternForm; tiles: boolean }>();
const emit = defineEmits<{ take: [grow: Grow]; close: [] }>();
const SIDE = 160;
const any = ref(false);
const seed = ref(1 + Math.floor(Math.random() * 99998));
const offers = shallowRef<{ grow: Grow; heights: Float32Array | null }[]>([]);
const worker = new Recipes();
let next = 0;

function ask(): void {
  const at = next;
  const offer = offers.value[at];
  if (!offer) return;
  const made = PatternSchema.parse({ version: SOURCE_VERSION, kind: 'pattern', id: crypto.randomUUID(), card: { name: 'Offer' }, grow: offer.grow });
  worker.preview({ base: { kind: 'pattern', sourceId: made.id }, made, others: [] }, { steps: [], size: SIDE, fullSize: SIDE, tiles: true, chosen: null, through: false }, SIDE);
}
worker.onAnswer = ({ heights }) => {
  offers.value = offers.value.map((o, i) => (i === next ? { ...o, heights } : o));
  next++;
  ask();
};
watch([any, seed], () => {
  offers.value = surprises(any.value ? null : props.form, seed.value, props.tiles).map((grow) => ({ grow, heights: null }));
  next = 0;
  ask();
}, { immediate: true });
onBeforeUnmount(() => worker.close());
useShortcuts([{ keys: 'Esc', what: 'Leave the pattern as it was', run: () => emit('close') }]);
</script>

<template>
  <div class="board">
    <div class="bar">
      <b>Sixteen others</b>
      <label><input v-model="any" type="checkbox" /> of any kind</label>
      <button class="btn" type="button" @click="seed = 1 + Math.floor(Math.random() * 99998)">Sixteen more</button>
      <button class="btn" type="button" @click="$emit('close')">Leave it</button>
    </div>
    <div class="offers">
      <button v-for="(o, i) in offers" :key="i" type="button" :aria-label="`Take offer ${i + 1}`" :disabled="!o.heights" @click="emit('take', o.grow)"><GreyCanvas v-if="o.heights" :heights="o.heights" :size="SIDE" /></button>
    </div>
  </div>
</template>

<style scoped>
.board { position: absolute; inset: 0; display: grid; grid-template-rows: auto 1fr; gap: 10px; padding: 12px; background: #4b4f52; }
.bar { display: flex; gap: 14px; align-items: center; color: #fff; }
.bar b { margin-right: auto; }
.offers { display: grid; grid-template: repeat(4, 1fr) / repeat(4, 1fr); gap: 8px; min-height: 0; place-self: center; height: 100%; aspect-ratio: 1; max-width: 100%; }
.offers button { border: 2px solid transparent; border-radius: var(--r); padding: 0; background: #3a3d40; overflow: hidden; cursor: pointer; min-height: 0; min-width: 0; }
.offers button:hover:not(:disabled), .offers button:focus-visible { border-color: #7fd3c3; }
</style>
