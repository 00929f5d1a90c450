<script setup lang="ts">
/** A clean picture of the proof: the body as it is seen, at a size that is typed, with or without the ground behind. */
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import DialogBox from '../controls/DialogBox.vue';
import NumberField from '../controls/NumberField.vue';
import PushButton from '../controls/PushButton.vue';
import TickBox from '../controls/TickBox.vue';
import { saveFile } from '../controls/saveFile';
import { orSay, tellNotice } from '../controls/undoNotice';
import type { ClayView } from '../viewport/clayView';
import { pngOf } from './proofPicture';

const props = defineProps<{ name: string; view: ClayView | null }>();
const visible = defineModel<boolean>('visible', { required: true });
const LEAST = 64;
const wide = useLocalStorage('picture-wide', 1600);
const high = useLocalStorage('picture-high', 1200);
const ground = useLocalStorage('picture-ground', true);
const most = computed(() => props.view?.mostPixels ?? 4096);
const kept = (side: number): number => Math.round(Math.min(most.value, Math.max(LEAST, side)));

function square(): void {
  wide.value = high.value = kept(Math.max(wide.value, high.value));
}
function asSeen(): void {
  if (!props.view) return;
  wide.value = kept(props.view.width * devicePixelRatio);
  high.value = kept(props.view.height * devicePixelRatio);
}
async function save(): Promise<void> {
  if (!props.view) return;
  const picture = props.view.picture(kept(wide.value), kept(high.value), ground.value);
  saveFile(`${props.name || 'Proof'}.png`, await pngOf(picture));
  visible.value = false;
  tellNotice('The picture is saved.');
}
</script>

<template>
  <DialogBox v-model:visible="visible" title="Picture of the proof" :width-px="380">
    <div class="sizes">
      <NumberField v-model="wide" label="Width" unit="px" :min="LEAST" :max="most" :step="1" />
      <NumberField v-model="high" label="Height" unit="px" :min="LEAST" :max="most" :step="1" />
    </div>
    <div class="sizes">
      <PushButton small @click="asSeen">As it is seen</PushButton>
      <PushButton small @click="square">Square</PushButton>
    </div>
    <TickBox v-model="ground">With the ground behind it</TickBox>
    <p class="muted">
      {{ ground ? 'PNG, as the view shows it.' : 'PNG; all but the body is clear.' }} Lines, cursor and handles are left
      out.
    </p>
    <template #footer>
      <PushButton @click="visible = false">Cancel</PushButton>
      <PushButton look="main" :disabled="!view" @click="orSay(save)">Save PNG</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
.sizes {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  margin-bottom: 10px;
}
</style>
