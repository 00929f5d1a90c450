<script setup lang="ts">
/** The alpha as the brush uses it: shrunk by fit, turned, with the reach ring or square drawn over it. */
import { computed, ref, watch } from 'vue';
import type { AlphaHead } from '#core/stored';
import type { Brush } from '#core/settings';
import { useShownAlphas } from '../stores/shownAlphas';
import { shownInside } from '../stores/shownAlpha';
import { drawGreys } from './drawGreys';

const props = defineProps<{ alpha: AlphaHead | null; form: Brush['form'] }>();
const alphas = useShownAlphas();
const canvas = ref<HTMLCanvasElement>();
const failed = ref(false);

watch(
  [() => props.alpha, canvas, () => JSON.stringify(props.form)],
  async ([alpha, at]) => {
    failed.value = false;
    if (!alpha || !at) return;
    try {
      const shown = await alphas.of(alpha);
      if (alpha === props.alpha) drawGreys(at, shownInside(shown, props.form));
    } catch {
      failed.value = true;
    }
  },
  { immediate: true },
);

/** The ring fills the box but for a little air; the picture's side is the ring's diameter over fit. */
const place = computed(() => ({
  transform: `translate(-50%, -50%) rotate(${-props.form.turn}deg) scale(${1 / props.form.fit})`,
}));
</script>

<template>
  <div class="box">
    <canvas v-show="alpha && !failed" ref="canvas" :style="place" />
    <div v-if="!alpha" class="plain">Plain form<br /><small>no alpha</small></div>
    <div v-if="failed" class="plain">The alpha can’t be loaded</div>
    <svg viewBox="-1.06 -1.06 2.12 2.12" aria-hidden="true">
      <circle v-if="form.footprint === 'round'" r="1" />
      <rect v-else x="-1" y="-1" width="2" height="2" />
    </svg>
  </div>
</template>

<style scoped>
.box {
  position: relative;
  width: 100%;
  aspect-ratio: 1;
  background: #000;
  border-radius: var(--r);
  overflow: hidden;
}
canvas {
  position: absolute;
  left: 50%;
  top: 50%;
  width: 94.3%;
  height: 94.3%;
}
svg {
  position: absolute;
  inset: 0;
}
svg * {
  fill: none;
  stroke: #7fd3c3;
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
}
.plain {
  position: absolute;
  inset: 0;
  display: grid;
  place-content: center;
  text-align: center;
  color: #d8d5cf;
}
</style>
