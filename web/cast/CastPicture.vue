<script setup lang="ts">
/** The cast as it grows, with what its checks found marked where it is. */
import { computed, ref, watch } from 'vue';
import { MARGIN_LIMIT } from '#core/checks';
import { drawGreys } from '../controls/drawGreys';
import { reduced } from '../stores/shownAlpha';
import { useCastDesk } from './desk';

const cast = useCastDesk();
const canvas = ref<HTMLCanvasElement>();
const hatch = ref<HTMLCanvasElement>();
const bad = computed(() => new Set(cast.result?.checks.filter((c) => !c.ok).map((c) => c.name)));
const box = computed(() => {
  const r = cast.result;
  if (!r?.margin.box) return null;
  const { left, top, right, bottom } = r.margin.box;
  const scale = 100 / r.size;
  return { x: left * scale, y: top * scale, width: (right - left + 1) * scale, height: (bottom - top + 1) * scale };
});

watch(
  [() => cast.result, canvas],
  ([result, at]) => {
    if (result && at) drawGreys(at, reduced({ width: result.size, height: result.size, data: result.floats }));
  },
  { immediate: true },
);
/** Hidden places are hatched. */
watch([() => cast.result, hatch, bad], ([result, at]) => {
  if (!result || !at) return;
  at.width = result.size;
  at.height = result.size;
  const image = new ImageData(result.size, result.size);
  if (bad.value.has('undercut')) {
    for (let i = 0; i < result.undercut.length; i++) {
      if (result.undercut[i] === 0) continue;
      const line = ((i % result.size) + Math.floor(i / result.size)) % 6 < 3;
      image.data.set(line ? [240, 180, 90, 255] : [60, 40, 10, 200], i * 4);
    }
  }
  at.getContext('2d')!.putImageData(image, 0, 0);
});
</script>

<template>
  <div class="picture" :data-cast="cast.result ? cast.result.crown.toFixed(5) : cast.flat ? 'flat' : ''">
    <canvas v-show="cast.result" ref="canvas" />
    <canvas v-show="cast.result && bad.has('undercut')" ref="hatch" class="hatch" />
    <svg v-if="cast.result" viewBox="0 0 100 100" aria-hidden="true">
      <path
        v-if="bad.has('ring-loss')"
        d="M0 0H100V100H0Z M50 0A50 50 0 1 0 50 100A50 50 0 1 0 50 0Z"
        fill-rule="evenodd"
        class="outside"
      />
      <path v-if="bad.has('ground')" d="M0 0H100V100H0Z M4 4V96H96V4Z" fill-rule="evenodd" class="outside" />
      <circle cx="50" cy="50" r="50" />
      <rect
        :x="MARGIN_LIMIT * 100"
        :y="MARGIN_LIMIT * 100"
        :width="100 - 200 * MARGIN_LIMIT"
        :height="100 - 200 * MARGIN_LIMIT"
        :class="{ bad: bad.has('margin') }"
      />
      <rect v-if="box && bad.has('margin')" v-bind="box" class="form" />
    </svg>
    <p v-if="cast.flat" class="flat">
      <slot name="flat" />
    </p>
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  aspect-ratio: 1;
  background: #000;
  border-radius: var(--r);
  overflow: hidden;
}
canvas {
  width: 100%;
  height: 100%;
  display: block;
}
.hatch {
  position: absolute;
  inset: 0;
}
svg {
  position: absolute;
  inset: 0;
}
svg * {
  fill: none;
  stroke: #7fd3c3;
  stroke-width: 1.2px;
  vector-effect: non-scaling-stroke;
}
rect {
  stroke-dasharray: 3 4;
  opacity: 0.75;
}
rect.bad,
rect.form {
  stroke: #f0b45a;
  opacity: 1;
}
svg .outside {
  fill: rgb(240 180 90 / 30%);
  stroke: none;
}
.flat {
  position: absolute;
  inset: 0;
  display: grid;
  place-content: center;
  text-align: center;
  color: #d8d5cf;
  padding: 20px;
}
</style>
