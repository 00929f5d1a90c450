<script setup lang="ts">
/** A square height picture as greys, as large as its place, or repeated three by three. */
import { onMounted, ref, watch } from 'vue';

const props = defineProps<{ heights: Float32Array; size: number; repeat?: boolean }>();
const canvas = ref<HTMLCanvasElement>();

function draw(): void {
  const to = canvas.value;
  if (!to) return;
  const { size, heights } = props;
  const times = props.repeat ? 3 : 1;
  to.width = size * times;
  to.height = size * times;
  const image = new ImageData(size, size);
  const words = new Uint32Array(image.data.buffer);
  for (let i = 0; i < heights.length; i++) {
    const g = Math.max(0, Math.min(255, Math.round(heights[i] * 255)));
    words[i] = 0xff000000 | (g << 16) | (g << 8) | g;
  }
  const context = to.getContext('2d')!;
  for (let j = 0; j < times; j++) for (let i = 0; i < times; i++) context.putImageData(image, i * size, j * size);
}
onMounted(draw);
watch(() => [props.heights, props.repeat], draw);
</script>

<template><canvas ref="canvas" /></template>

<style scoped>
canvas {
  width: 100%;
  height: 100%;
  display: block;
  object-fit: contain;
}
</style>
