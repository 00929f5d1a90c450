<script setup lang="ts">
/**
 * A lit strip with the brush's stroke on it, drawn anew with every change; while one is drawn only the latest waits.
 */
import { useElementSize } from '@vueuse/core';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import type { BrushAlphas } from '#core/stored';
import { worksOf, type Brush } from '#core/settings';
import { plain } from '../api/plain';
import { useStripThread } from './stripThread';

const props = defineProps<{ brush: Brush; alphas: BrushAlphas }>();
/** Pixels. It is drawn as wide as it is shown, in steps, so that it isn’t drawn anew at every move of the splitter. */
const LEAST = 320;
const MOST = 1920;
const STEP = 160;
const canvas = ref<HTMLCanvasElement>();
const { width: shown } = useElementSize(canvas);
const wide = computed(() => {
  const steps = Math.ceil((shown.value * devicePixelRatio) / STEP);
  return shown.value === 0 ? 0 : Math.min(MOST, Math.max(LEAST, steps * STEP));
});
const drawn = ref('');
const { worker, know, end } = useStripThread();
let pending = false;
let busy = false;
let gone = false;

async function draw(): Promise<void> {
  pending = true;
  if (busy || wide.value === 0) return;
  busy = true;
  try {
    while (pending && !gone) {
      pending = false;
      const key = worksOf(props.brush);
      const [form, tooth] = [await know(props.alphas.form), await know(props.alphas.tooth)];
      const made = await worker.render(plain(props.brush), form, tooth, wide.value);
      if (gone || !canvas.value) return;
      canvas.value.width = made.width;
      canvas.value.height = made.height;
      canvas.value.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(made.data), made.width), 0, 0);
      drawn.value = key;
    }
  } catch {
    // The proof says that the alpha can't be loaded; the strip keeps what it has.
  } finally {
    busy = false;
  }
}
watch(() => [worksOf(props.brush), props.alphas.form?.blob, props.alphas.tooth?.blob, wide.value], draw);
onBeforeUnmount(() => {
  gone = true;
  end();
});
</script>

<template>
  <div
    class="strip"
    :data-busy="drawn !== worksOf(brush)"
    title="The brush under rising and falling pressure; stamps growing and shrinking"
  >
    <canvas ref="canvas" role="img" aria-label="Strip: the brush under rising and falling pressure" />
  </div>
</template>

<style scoped>
.strip {
  height: 92px;
  overflow: hidden;
  background: var(--clay);
  border-top: 1px solid var(--line);
}
canvas {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: block;
}
</style>
