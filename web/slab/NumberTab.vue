<script setup lang="ts">
/** Changes by number of everything unmasked: shown while the number moves, kept by Apply, made again by Again. */
import { computed, onBeforeUnmount, ref } from 'vue';
import { ByNumberSchema, NUMBER_KINDS, settingAt, SLAB_SIDE, type ByNumber, type NumberKind } from '#core/settings';
import SettingSlider from '../controls/SettingSlider.vue';
import { useSlabBench } from '../stores/slabBench';
import { useSlabCast } from '../stores/slabCast';
import { useSlabTools } from '../stores/slabTools';
import PushButton from '../controls/PushButton.vue';
import { useLengths } from '../controls/lengths';

const lengths = useLengths();
const bench = useSlabBench();
const cast = useSlabCast();
const tools = useSlabTools();
const kind = ref<NumberKind>('inflate');
const trying = ref(false);

const LABELS: Record<NumberKind, string> = {
  inflate: 'Inflate',
  lift: 'Lift',
  smooth: 'Smooth',
  flatten: 'Flatten',
  noise: 'Noise',
  terrace: 'Terrace',
};
const more = computed<(keyof ByNumber)[]>(() =>
  kind.value === 'noise' ? ['noiseScale', 'noiseSeed'] : kind.value === 'terrace' ? ['terraceSoft'] : [],
);
const inBodyUnits = computed(() => settingAt(ByNumberSchema, kind.value).unit === 'body');
const plain = (): ByNumber => ({ ...tools.numbers });

function put(key: keyof ByNumber, value: number): void {
  tools.numbers[key] = value;
  trying.value = true;
  void bench.sculptor?.edits
    .tryEdit({ kind: 'by-number', change: kind.value, numbers: plain() })
    .then(() => cast.look());
}

/** A stroke in between takes what was only shown away: it is shown again before it is kept. */
async function apply(): Promise<void> {
  if (!trying.value) return;
  trying.value = false;
  await bench.sculptor?.edits.tryEdit({ kind: 'by-number', change: kind.value, numbers: plain() });
  tools.lastNumber = { change: kind.value, numbers: plain() };
  await bench.sculptor?.edits.keepEdit();
  bench.touched();
  tools.numbers[kind.value] = 0;
}

async function drop(): Promise<void> {
  if (!trying.value) return;
  trying.value = false;
  tools.numbers[kind.value] = 0;
  await bench.sculptor?.edits.dropEdit();
  cast.look();
}

async function choose(next: NumberKind): Promise<void> {
  await drop();
  kind.value = next;
}

async function again(): Promise<void> {
  if (!tools.lastNumber) return;
  await drop();
  await bench.make({ kind: 'by-number', ...tools.lastNumber });
}
onBeforeUnmount(() => void drop());
</script>

<template>
  <div class="tab" @keydown.enter="apply" @keydown.esc="drop">
    <div class="two">
      <PushButton v-for="k in NUMBER_KINDS" :key="k" :on="kind === k" @click="choose(k)">
        {{ LABELS[k] }}
      </PushButton>
    </div>
    <SettingSlider
      :key="kind"
      :meta="settingAt(ByNumberSchema, kind)"
      :model-value="tools.numbers[kind]"
      style="--label: 72px"
      @update:model-value="(v) => put(kind, v)"
    />
    <SettingSlider
      v-for="key in more"
      :key="key"
      :meta="settingAt(ByNumberSchema, key)"
      :model-value="tools.numbers[key]"
      style="--label: 72px"
      @update:model-value="(v) => put(key, v)"
    />
    <p v-if="inBodyUnits" class="muted">
      In {{ lengths.unit.value }}: the slab is {{ lengths.told(SLAB_SIDE, 1) }} across, so
      {{ lengths.told(SLAB_SIDE / 100, 0.01) }} is 1 % of it.
    </p>
    <div class="two">
      <PushButton look="main" :disabled="!trying" title="Keep it (Enter)" @click="apply">Apply</PushButton>
      <PushButton :disabled="!trying" title="Esc" @click="drop">Cancel</PushButton>
    </div>
    <PushButton :disabled="!tools.lastNumber" @click="again">
      {{
        tools.lastNumber
          ? `Again: ${LABELS[tools.lastNumber.change]} ${tools.lastNumber.numbers[tools.lastNumber.change]}`
          : 'Again'
      }}
    </PushButton>
    <p class="muted">Works on everything that isn’t masked.</p>
  </div>
</template>

<style scoped>
.tab :deep(.slider) {
  grid-template-columns: 1fr 60px;
}
.tab :deep(.slider .label) {
  grid-column: 1 / -1;
}
</style>
