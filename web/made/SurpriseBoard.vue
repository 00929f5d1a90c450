<script setup lang="ts">
/** Sixteen patterns drawn at random: a click takes one, Esc leaves it as it was. */
import { onBeforeUnmount, ref, watch } from 'vue';
import { surprises } from '#core/pattern';
import type { Grow, PatternForm } from '#core/settings';
import { useShortcuts } from '../keys/shortcuts';
import { Recipes } from '../workers/recipes';
import GreyCanvas from './GreyCanvas.vue';
import { useOffers } from './offers';
import PushButton from '../controls/PushButton.vue';
import TickBox from '../controls/TickBox.vue';

const props = defineProps<{ form: PatternForm; tiles: boolean }>();
const emit = defineEmits<{ take: [grow: Grow]; close: [] }>();
const SIDE = 160;
const any = ref(false);
const seed = ref(1 + Math.floor(Math.random() * 99998));
const worker = new Recipes();
const { offers, put } = useOffers(worker, SIDE);
watch([any, seed], () => put(surprises(any.value ? null : props.form, seed.value, props.tiles)), { immediate: true });
onBeforeUnmount(() => worker.close());
useShortcuts([{ command: 'cancel', what: 'Keep the pattern as it was', run: () => emit('close') }]);
</script>

<template>
  <div class="board">
    <div class="bar">
      <b>Sixteen variations</b>
      <TickBox v-model="any">of any kind</TickBox>
      <PushButton @click="seed = 1 + Math.floor(Math.random() * 99998)">Sixteen more</PushButton>
      <PushButton @click="$emit('close')">Leave it</PushButton>
    </div>
    <div class="offers">
      <PushButton
        v-for="(o, i) in offers"
        :key="o.id"
        look="face"
        :aria-label="`Use variation ${i + 1}`"
        :disabled="!o.heights"
        @click="emit('take', o.grow)"
      >
        <GreyCanvas v-if="o.heights" :heights="o.heights" :size="SIDE" />
      </PushButton>
    </div>
  </div>
</template>

<style scoped>
.board {
  position: absolute;
  inset: 0;
  display: grid;
  grid-template-rows: auto 1fr;
  gap: 10px;
  padding: 12px;
  background: #4b4f52;
}
.bar {
  display: flex;
  gap: 14px;
  align-items: center;
  color: #fff;
}
.bar b {
  margin-right: auto;
}
.offers {
  display: grid;
  grid-template: repeat(4, 1fr) / repeat(4, 1fr);
  gap: 8px;
  min-height: 0;
  place-self: center;
  height: 100%;
  aspect-ratio: 1;
  max-width: 100%;
}
.offers button {
  border: 2px solid transparent;
  border-radius: var(--r);
  padding: 0;
  background: #3a3d40;
  overflow: hidden;
  cursor: pointer;
  min-height: 0;
  min-width: 0;
}
.offers button:hover:not(:disabled),
.offers button:focus-visible {
  border-color: #7fd3c3;
}
</style>
