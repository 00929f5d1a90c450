<script setup lang="ts">
/** Cuts a square out of a picture, for the card of a brush. */
import { useObjectUrl } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { Cropper } from 'vue-advanced-cropper';
import 'vue-advanced-cropper/dist/style.css';
import { MOST_OWN_PICTURE } from '#core/settings';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';

/** What is cropped; null while nothing is. */
const file = defineModel<Blob | null>({ required: true });
const emit = defineEmits<{ cropped: [picture: string] }>();
/** Pixels per side: twice what a card shows. */
const SIDE = 320;
const MOST_SHOWN = 2048;
const QUALITIES = [0.88, 0.7, 0.5];
const cropper = ref<{ getResult(): { canvas?: HTMLCanvasElement } } | null>(null);
const shown = shallowRef<Blob | null>(null);
const url = useObjectUrl(shown);
const problem = ref<string | null>(null);
const ready = ref(false);
const visible = computed({ get: () => file.value !== null, set: () => (file.value = null) });

watch(file, async (now) => {
  shown.value = null;
  ready.value = false;
  problem.value = null;
  if (!now) return;
  try {
    const turned = await upright(now);
    if (file.value === now) shown.value = turned;
  } catch {
    if (file.value === now)
      problem.value = 'This file can’t be read as a picture. Choose a PNG, JPEG or WebP of up to 150 million pixels.';
  }
});

/** Turned as its camera says, and no larger than can be cropped smoothly. */
async function upright(of: Blob): Promise<Blob> {
  const whole = await createImageBitmap(of);
  const by = Math.min(1, MOST_SHOWN / Math.max(whole.width, whole.height));
  const canvas = new OffscreenCanvas(Math.ceil(whole.width * by), Math.ceil(whole.height * by));
  const context = canvas.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(whole, 0, 0, canvas.width, canvas.height);
  whole.close();
  return canvas.convertToBlob({ type: 'image/png' });
}

function take(): void {
  const cut = cropper.value?.getResult().canvas;
  if (!cut) return;
  const small = document.createElement('canvas');
  small.width = small.height = SIDE;
  const context = small.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(cut, 0, 0, SIDE, SIDE);
  const made = QUALITIES.map((quality) => small.toDataURL('image/webp', quality)).find(
    ({ length }) => length <= MOST_OWN_PICTURE,
  );
  if (!made) return void (problem.value = 'This picture can’t be made small enough.');
  emit('cropped', made);
  file.value = null;
}
</script>

<template>
  <DialogBox v-model:visible="visible" title="Picture of the brush" :width-px="460">
    <Cropper
      v-if="url && !problem"
      ref="cropper"
      class="cropper"
      :src="url"
      :stencil-props="{ aspectRatio: 1 }"
      :default-size="({ imageSize }: { imageSize: unknown }) => imageSize"
      :check-orientation="false"
      @ready="ready = true"
    />
    <p v-if="problem" class="sentence-bad" role="alert">{{ problem }}</p>
    <p v-else class="muted">Drag the square or its corners; the wheel zooms.</p>
    <template #footer>
      <PushButton @click="visible = false">Cancel</PushButton>
      <PushButton look="main" :disabled="!ready || problem !== null" @click="take">Use it</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
.cropper {
  height: 320px;
  border-radius: var(--r);
  background: var(--well);
}
</style>
