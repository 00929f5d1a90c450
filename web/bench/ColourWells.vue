<script setup lang="ts">
/** The brush’s two colours, and the cloud of colours that their drift gives. */
import { ArrowLeftRight } from '@lucide/vue';
import { onMounted, ref, watch } from 'vue';
import { resolvePaint } from '#core/brush';
import { hexOf, okLabOf, srgbOf } from '#core/colour';
import { DabColours } from '#core/paint';
import type { Brush } from '#core/settings';
import ColourField from '../controls/ColourField.vue';
import ToolButton from '../controls/ToolButton.vue';
import { usePalettes } from '../stores/palettes';
import { keyOf } from '../keys/chosen';

const props = defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const palettes = usePalettes();
const cloud = ref<HTMLCanvasElement>();
const [WIDE, HIGH, DOTS] = [178, 74, 220];

function choose(which: 'first' | 'second', colour: string | null): void {
  if (!colour) return;
  palettes.chose(colour);
  emit('edit', (b) => (b.colour[which] = colour));
}
function swap(): void {
  emit('edit', (b) => ([b.colour.first, b.colour.second] = [b.colour.second, b.colour.first]));
}

/** Each dot is the colour of one dab, right by its red, up by its yellow, in a space that is even to the eye. */
function draw(): void {
  const to = cloud.value?.getContext('2d');
  const paint = resolvePaint({ ...props.brush, colour: { ...props.brush.colour, too: true } }, null);
  if (!to || !paint) return;
  const ratio = Math.min(2, window.devicePixelRatio);
  cloud.value!.width = WIDE * ratio;
  cloud.value!.height = HIGH * ratio;
  to.scale(ratio, ratio);
  const colours = new DabColours({ ...paint, pickup: 0 }, 7);
  const strokes = Array.from({ length: DOTS }, (_, i) => {
    // A stroke has one colour: its cloud is that of many strokes.
    const one = paint.per === 'stroke' ? new DabColours({ ...paint, pickup: 0 }, i + 1) : colours;
    return one.next(i * 0.5, false);
  });
  const places = strokes.map((colour) => okLabOf(colour));
  const span = (k: 1 | 2): readonly [number, number] => {
    const of = places.map((p) => p[k]);
    const middle = (Math.min(...of) + Math.max(...of)) / 2;
    return [middle, Math.max(0.06, (Math.max(...of) - Math.min(...of)) * 0.58)];
  };
  const [[a, aSpan], [b, bSpan]] = [span(1), span(2)];
  strokes.forEach((colour, i) => {
    const [light, red, yellow] = places[i];
    to.fillStyle = hexOf(srgbOf(colour));
    to.beginPath();
    const x = WIDE / 2 + ((red - a) / aSpan) * (WIDE / 2 - 10);
    const y = HIGH / 2 - ((yellow - b) / bSpan) * (HIGH / 2 - 10);
    to.arc(x, y, 4 + light * 4, 0, 7);
    to.fill();
  });
}
onMounted(draw);
watch(() => JSON.stringify(props.brush.colour), draw);
</script>

<template>
  <div class="heading">Colour</div>
  <div class="wells">
    <ColourField
      label="First colour"
      :offers="palettes.offers"
      :model-value="brush.colour.first"
      @update:model-value="(colour) => choose('first', colour)"
    />
    <code>{{ brush.colour.first }}</code>
    <ToolButton
      :icon="ArrowLeftRight"
      label="Swap the colours"
      :help="`Swaps the first and the second colour; ${keyOf('dig')} held paints with the second`"
      command="swapColours"
      @click="swap"
    />
    <ColourField
      label="Second colour"
      :offers="palettes.offers"
      :model-value="brush.colour.second"
      @update:model-value="(colour) => choose('second', colour)"
    />
  </div>
  <canvas
    ref="cloud"
    class="cloud"
    role="img"
    title="Colours of many dabs, as they drift: reds to the right, yellows up"
    aria-label="The cloud of colours that the drift gives"
  />
</template>

<style scoped>
.heading {
  margin-top: 2px;
}
.wells {
  display: flex;
  align-items: center;
  gap: 8px;
}
code {
  flex: 1;
  font-size: var(--small);
  color: var(--ink-2);
}
.cloud {
  width: 100%;
  height: 74px;
  border-radius: var(--r);
  background: #8f8d89;
}
</style>
