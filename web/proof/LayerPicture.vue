<script setup lang="ts">
/** A small picture of a layer, or of its mask, drawn anew a moment after it changed. */
import { useTimeoutFn } from '@vueuse/core';
import { onMounted, ref, watch } from 'vue';
import { useProof } from '../stores/proof';

const props = withDefaults(defineProps<{ id: string; size: number; mask?: boolean }>(), { mask: false });
const proof = useProof();
const canvas = ref<HTMLCanvasElement>();
const SIDE = 52;
const REST_MS = 300;

async function draw(): Promise<void> {
  const rgba = await proof.sculptor.paint.layerPicture(props.id, props.mask, SIDE).catch(() => null);
  const to = canvas.value?.getContext('2d');
  if (rgba && to) to.putImageData(new ImageData(rgba, SIDE, SIDE), 0, 0);
}
const soon = useTimeoutFn(draw, REST_MS, { immediate: false });
onMounted(draw);
watch(
  () => proof.state.painted,
  () => soon.start(),
);
</script>

<template>
  <canvas ref="canvas" :width="SIDE" :height="SIDE" :style="{ width: `${size}px`, height: `${size}px` }" />
</template>

<style scoped>
canvas {
  flex: none;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: repeating-conic-gradient(#d8d4cc 0% 25%, #f1eee8 0% 50%) 0 0 / 10px 10px;
}
</style>
