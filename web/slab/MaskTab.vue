<script setup lang="ts">
/** Masks: what the Mask brush draws, changes of the whole mask, and masks made from an alpha, heights or slopes. */
import { computed, ref, watch } from 'vue';
import { SLAB_BRUSHES } from '#core/presets';
import NumberField from '../controls/NumberField.vue';
import { useLibrary } from '../stores/library';
import { useSlabBench } from '../stores/slabBench';
import { useSlabCast } from '../stores/slabCast';
import { MASK_SHAPES, useSlabTools } from '../stores/slabTools';
import PushButton from '../controls/PushButton.vue';
import SelectField from '../controls/SelectField.vue';
import KeyCap from '../controls/KeyCap.vue';

const bench = useSlabBench();
const cast = useSlabCast();
const tools = useSlabTools();
const library = useLibrary();

const FROM = [
  { value: 'height', label: 'Height' },
  { value: 'slope', label: 'Slope' },
  { value: 'alpha', label: 'An alpha in the frame' },
] as const;
const MODES = [
  { value: 'add', label: 'Add' },
  { value: 'subtract', label: 'Take away' },
] as const;
const steps = ref(4);
const mode = ref<'add' | 'subtract'>('add');
const from = ref<'height' | 'slope' | 'alpha'>('height');
const alphaId = ref('');
const height = ref({ low: 0.02, high: 1, soft: 0.01 });
const slope = ref({ low: 30, high: 90, soft: 5 });
const isMask = computed(() => tools.brush.touch.action === 'mask');

/** The upper half of what there is, to begin with. */
watch(
  () => cast.result,
  (now) => {
    if (now && height.value.high === 1)
      height.value = { low: (now.floor + now.crown) / 2, high: now.crown, soft: (now.crown - now.floor) / 20 };
  },
);

function take(shape: (typeof MASK_SHAPES)[number]): void {
  tools.maskShape = shape;
  const mask = SLAB_BRUSHES.find((b) => b.touch.action === 'mask')!;
  tools.choose(mask.id);
}

async function make(): Promise<void> {
  if (from.value === 'height') return bench.make({ kind: 'mask-height', ...height.value, mode: mode.value });
  if (from.value === 'slope') return bench.make({ kind: 'mask-slope', ...slope.value, mode: mode.value });
  const alpha = library.alpha(alphaId.value);
  if (!alpha || !bench.doc) return;
  await bench.sculptor?.know(alpha);
  await bench.make({ kind: 'mask-alpha', alphaId: alpha.id, frame: { ...bench.doc.cast.frame }, mode: mode.value });
}
</script>

<template>
  <div class="tab">
    <div class="two">
      <PushButton
        v-for="shape in MASK_SHAPES"
        :key="shape"
        :on="isMask && tools.maskShape === shape"
        @click="take(shape)"
      >
        {{ shape[0].toUpperCase() + shape.slice(1) }}
      </PushButton>
    </div>
    <p class="muted">Masked clay is dark and stays as it is. Hold <KeyCap command="dig" /> to take away.</p>
    <div class="heading">The whole mask</div>
    <div class="two">
      <PushButton @click="bench.make({ kind: 'mask-invert' })">Invert</PushButton>
      <PushButton @click="bench.make({ kind: 'mask-clear' })">Clear</PushButton>
    </div>
    <NumberField v-model="steps" label="By" unit="steps" :min="1" :max="64" :step="1" />
    <div class="three">
      <PushButton @click="bench.make({ kind: 'mask-soften', steps })">Soften</PushButton>
      <PushButton @click="bench.make({ kind: 'mask-grow', steps })">Grow</PushButton>
      <PushButton @click="bench.make({ kind: 'mask-grow', steps: -steps })">Shrink</PushButton>
    </div>
    <div class="heading">Mask from</div>
    <SelectField v-model="from" label="Mask from" :choices="FROM" />
    <template v-if="from === 'height'">
      <NumberField v-model="height.low" label="From" unit="body units" :min="-4" :max="4" :step="0.005" />
      <NumberField v-model="height.high" label="To" unit="body units" :min="-4" :max="4" :step="0.005" />
      <NumberField v-model="height.soft" label="Soft" unit="body units" :min="0" :max="1" :step="0.002" />
    </template>
    <template v-else-if="from === 'slope'">
      <NumberField v-model="slope.low" label="From" unit="degrees" :min="0" :max="180" :step="1" />
      <NumberField v-model="slope.high" label="To" unit="degrees" :min="0" :max="180" :step="1" />
      <NumberField v-model="slope.soft" label="Soft" unit="degrees" :min="0" :max="90" :step="1" />
    </template>
    <SelectField
      v-else
      v-model="alphaId"
      label="Alpha"
      placeholder="Choose an alpha"
      :choices="library.alphas.map(({ id, card }) => ({ value: id, label: card.name }))"
    />
    <div class="two">
      <SelectField v-model="mode" label="Add or take away" :choices="MODES" />
      <PushButton :disabled="from === 'alpha' && alphaId === ''" @click="make">Mask it</PushButton>
    </div>
  </div>
</template>
