<script setup lang="ts">
/** The islands of the body’s coordinates, with stretch as colour, and what is painted on them. */
import { ref, useTemplateRef, watch, nextTick } from 'vue';
import type { IslandReport } from '#core/paint';
import ChoiceBar from '../controls/ChoiceBar.vue';
import DialogBox from '../controls/DialogBox.vue';
import { failNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useProof } from '../stores/proof';

const visible = defineModel<boolean>('visible', { required: true });
const proof = useProof();
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const report = ref<IslandReport | null>(null);
const what = ref<'stretch' | 'paint'>('stretch');
const SIDE = 512;

async function draw(): Promise<void> {
  if (!visible.value) return;
  try {
    const found = await proof.sculptor.paint.islandPicture(SIDE);
    report.value = found.report;
    await nextTick();
    const to = canvas.value?.getContext('2d');
    if (!to) return;
    to.clearRect(0, 0, SIDE, SIDE);
    const rgba = what.value === 'stretch' ? found.rgba : found.paint;
    to.putImageData(new ImageData(rgba, SIDE, SIDE), 0, 0);
  } catch (error) {
    visible.value = false;
    failNotice(sentence(error));
  }
}
watch([visible, what], draw);
const percent = (share: number): string => `${(share * 100).toFixed(share < 0.1 ? 1 : 0)} %`;
</script>

<template>
  <DialogBox v-model:visible="visible" title="Islands of the texture" :width-px="570">
    <div class="body">
      <ChoiceBar
        v-model="what"
        label="What is shown"
        :options="[
          {
            value: 'stretch',
            label: 'Stretch',
            help: 'Blue where the texture is finer than its mean, red where coarser',
          },
          { value: 'paint', label: 'Paint', help: 'What is painted, as it lies in the texture' },
        ]"
      />
      <canvas ref="canvas" :width="SIDE" :height="SIDE" role="img" aria-label="Islands of the texture" />
      <p v-if="report" class="muted">
        {{ report.islands }} {{ report.islands === 1 ? 'island' : 'islands' }}, {{ percent(report.used) }} of the square
        used; the coarsest hundredth is {{ report.stretch.toFixed(2) }} × the mean.
        <b v-if="report.overlapping > 0.002" class="warn">
          {{ percent(report.overlapping) }} lies over something else (ochre): what is painted there shows in both
          places.
        </b>
      </p>
    </div>
  </DialogBox>
</template>

<style scoped>
.body {
  display: grid;
  gap: 8px;
}
canvas {
  width: min(512px, calc(100vh - 330px));
  aspect-ratio: 1;
  justify-self: center;
  border: 1px solid var(--line);
  background: repeating-conic-gradient(#e3dfd7 0% 25%, #f1eee8 0% 50%) 0 0 / 20px 20px;
}
.warn {
  color: var(--warn);
}
</style>
