<script setup lang="ts">
/** The overall shape that is taken out of the heights, seen from above, and what becomes of the patch’s sides. */
import { computed, ref, watch } from 'vue';
import { DetrendSchema, PatchSchema, settingAt, type DetrendKind } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import TickBox from '../controls/TickBox.vue';
import { useScanBench } from '../stores/scanBench';
import { useScanCast } from '../stores/scanCast';

const KINDS: { value: DetrendKind; label: string; help: string }[] = [
  { value: 'none', label: 'None', help: 'Heights as they are over the flat frame' },
  { value: 'plane', label: 'Plane', help: 'A slope is taken out' },
  { value: 'quadratic', label: 'Dome', help: 'A bulge, a hollow or a saddle is taken out (quadratic)' },
  { value: 'cubic', label: 'Wave', help: 'A bend that turns the other way is taken out too (cubic)' },
  { value: 'gaussian', label: 'Wide', help: 'Whatever is wider than the width is taken out (Gaussian)' },
];
const bench = useScanBench();
const cast = useScanCast();
const canvas = ref<HTMLCanvasElement>();
const patch = computed(() => bench.chosen!);
const depth = computed(() => {
  const heights = cast.result?.shape.heights;
  if (!heights) return null;
  let low = Infinity;
  let high = -Infinity;
  for (const h of heights) {
    low = Math.min(low, h);
    high = Math.max(high, h);
  }
  return { low, high };
});
const said = computed(() => {
  if (patch.value.detrend.kind === 'none') return 'Nothing is taken out.';
  if (!depth.value || !cast.result) return '';
  const share = patch.value.detrend.strength / 100;
  const removed = (depth.value.high - depth.value.low) * share;
  const times = removed / Math.max(1e-9, cast.result.crown - cast.result.floor);
  return `${removed.toFixed(3)} body units of shape are taken out, ${times.toFixed(1)} × the relief that is left.`;
});
const edit = (change: (p: typeof patch.value) => void): void => bench.editPatch(patch.value.id, 'shape', change);

/** Bands of one height each, as on a map. */
const BANDS = 9;
watch(
  [() => cast.result?.shape, canvas],
  ([shape, at]) => {
    if (!shape || !at || !depth.value) return;
    const { low, high } = depth.value;
    at.width = shape.side;
    at.height = shape.side;
    const image = new ImageData(shape.side, shape.side);
    shape.heights.forEach((h, i) => {
      const share = high > low ? (h - low) / (high - low) : 0.5;
      const band = share * BANDS;
      const line = high > low && band % 1 < 0.1 && band > 0.5 ? 0.72 : 1;
      const tone = (90 + 150 * share) * line;
      image.data.set([tone * 0.93, tone, tone * 0.97, 255], i * 4);
    });
    at.getContext('2d')!.putImageData(image, 0, 0);
  },
  { immediate: true },
);
</script>

<template>
  <div class="shape">
    <div class="heading">Overall shape</div>
    <ChoiceBar
      label="Overall shape"
      :model-value="patch.detrend.kind"
      :options="KINDS"
      @update:model-value="edit((p) => (p.detrend.kind = $event))"
    />
    <div class="pair">
      <canvas ref="canvas" role="img" aria-label="The shape that is taken out, lighter where it is higher" />
      <div class="sliders">
        <SettingSlider
          :meta="settingAt(DetrendSchema, 'strength')"
          :disabled="patch.detrend.kind === 'none'"
          :model-value="patch.detrend.strength"
          @update:model-value="edit((p) => (p.detrend.strength = $event))"
        />
        <SettingSlider
          v-if="patch.detrend.kind === 'gaussian'"
          :meta="settingAt(DetrendSchema, 'width')"
          :model-value="patch.detrend.width"
          @update:model-value="edit((p) => (p.detrend.width = $event))"
        />
        <p class="muted">{{ said }}</p>
      </div>
    </div>
    <div class="edge">
      <span class="label">Its sides</span>
      <ChoiceBar
        label="Its sides"
        :model-value="patch.edge"
        :options="[
          { value: 'cut', label: 'As cut', help: 'The relief runs to the sides of the frame' },
          { value: 'fade', label: 'Fade', help: 'The relief fades to the ground inside the reach ring' },
          { value: 'repeat', label: 'Repeat', help: 'The sides are blended, so that it tiles without a seam' },
        ]"
        @update:model-value="edit((p) => (p.edge = $event))"
      />
    </div>
    <SettingSlider
      v-if="patch.edge !== 'cut'"
      :meta="settingAt(PatchSchema, 'edgeWidth')"
      :model-value="patch.edgeWidth"
      @update:model-value="edit((p) => (p.edgeWidth = $event))"
    />
    <TickBox
      v-if="bench.doc!.coloured"
      :model-value="patch.colours"
      @update:model-value="edit((p) => (p.colours = $event))"
      >Cast its colours beside the heights</TickBox
    >
  </div>
</template>

<style scoped>
.shape {
  display: grid;
  gap: 8px;
  padding: 8px 0;
  border-top: 1px solid var(--line-soft);
  border-bottom: 1px solid var(--line-soft);
  --label: 72px;
}
.pair {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr);
  gap: 12px;
  align-items: center;
}
canvas {
  width: 84px;
  height: 84px;
  border-radius: var(--r);
  background: var(--well);
}
.edge {
  display: grid;
  grid-template-columns: var(--label) 1fr;
  align-items: center;
  gap: 8px;
}
.sliders {
  display: grid;
  gap: 4px;
}
</style>
