<script setup lang="ts">
/** A page from a flatbed on the network: its address, a preview with the area, resolution, colour, and the scan. */
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { previewUrl } from '../api/client';
import ChoiceBar from '../controls/ChoiceBar.vue';
import DialogBox from '../controls/DialogBox.vue';
import NumberField from '../controls/NumberField.vue';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import SelectField from '../controls/SelectField.vue';
import TextField from '../controls/TextField.vue';
import { tellNotice } from '../controls/undoNotice';
import { useScanner } from '../stores/scanner';

const visible = defineModel<boolean>('visible', { required: true });
const scanner = useScanner();
const router = useRouter();
const dpi = ref(300);
const colour = ref<'colour' | 'grey'>('colour');
/** Millimetres; null is the whole glass. */
const area = ref<{ x: number; y: number; width: number; height: number } | null>(null);
const glass = ref<HTMLElement>();
const PREVIEW_PX = 640;
const MM_PER_INCH = 25.4;
const LEAST_MM = 5;

const shown = computed(
  () => area.value ?? { x: 0, y: 0, width: scanner.found!.widthMm, height: scanner.found!.heightMm },
);
const pixels = computed(() => {
  const px = (mm: number): number => Math.round((mm / MM_PER_INCH) * dpi.value);
  const [width, height] = [px(shown.value.width), px(shown.value.height)];
  return `${width} × ${height} px, ${((width * height) / 1e6).toFixed(0)} million`;
});
watch(
  () => scanner.found,
  (can) => {
    if (!can) return;
    area.value = null;
    if (!can.resolutions.includes(dpi.value))
      dpi.value = can.resolutions.find((d) => d >= 300) ?? can.resolutions.at(-1)!;
    if (!can.colours.includes(colour.value)) colour.value = can.colours[0] ?? 'grey';
  },
);
watch(visible, (open) => {
  if (open && scanner.address.trim() && !scanner.found && !scanner.looking) void scanner.look();
});

let from: { x: number; y: number } | null = null;
/** Millimetres on the glass under the pointer. */
function placeOf(e: PointerEvent): { x: number; y: number } {
  const box = glass.value!.getBoundingClientRect();
  const share = (v: number): number => Math.max(0, Math.min(1, v));
  return {
    x: share((e.clientX - box.left) / box.width) * scanner.found!.widthMm,
    y: share((e.clientY - box.top) / box.height) * scanner.found!.heightMm,
  };
}
function down(e: PointerEvent): void {
  if (e.button !== 0) return;
  from = placeOf(e);
  glass.value!.setPointerCapture(e.pointerId);
}
function move(e: PointerEvent): void {
  if (!from) return;
  const to = placeOf(e);
  const [width, height] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)];
  if (width < LEAST_MM || height < LEAST_MM) return;
  area.value = { x: Math.min(from.x, to.x), y: Math.min(from.y, to.y), width, height };
}
function put(key: 'x' | 'y' | 'width' | 'height', value: number): void {
  area.value = { ...shown.value, [key]: value };
}
const box = computed(() => {
  const { x, y, width, height } = shown.value;
  const { widthMm, heightMm } = scanner.found!;
  return {
    left: `${(x / widthMm) * 100}%`,
    top: `${(y / heightMm) * 100}%`,
    width: `${(width / widthMm) * 100}%`,
    height: `${(height / heightMm) * 100}%`,
  };
});

async function scan(): Promise<void> {
  const made = await scanner.page({ dpi: dpi.value, colour: colour.value, area: area.value && { ...area.value } });
  if (!made) return;
  if (made.odd) tellNotice(made.odd);
  if (!visible.value) return tellNotice('The page is scanned, and stands among the sheets.');
  visible.value = false;
  await router.push(`/bench/sheet/${made.id}`);
}
</script>

<template>
  <DialogBox v-model:visible="visible" title="Scan a page" :width-px="640">
    <form id="scanner" class="where" @submit.prevent="scanner.look()">
      <span class="label">Address</span>
      <TextField
        v-model="scanner.address"
        aria-label="Address of the scanner"
        placeholder="192.168.1.20"
        maxlength="300"
      />
      <PushButton native-type="submit" :disabled="scanner.looking || !scanner.address.trim()">
        {{ scanner.looking ? 'Looking…' : 'Find it' }}
      </PushButton>
    </form>
    <div v-if="scanner.outside" class="asked" role="alert">
      <span>{{ scanner.outside }} What is scanned and asked goes there.</span>
      <PushButton @click="scanner.look(true)">Use it anyway</PushButton>
    </div>
    <p v-if="scanner.problem" class="sentence-bad" role="alert">{{ scanner.problem }}</p>
    <p v-if="!scanner.found && !scanner.problem && !scanner.outside" class="muted">
      Any flatbed that scans without a driver (eSCL) is found by its address on the network.
    </p>
    <div v-if="scanner.found" class="page">
      <div
        ref="glass"
        class="glass"
        :style="{ aspectRatio: `${scanner.found.widthMm} / ${scanner.found.heightMm}` }"
        @pointerdown="down"
        @pointermove="move"
        @pointerup="from = null"
        @pointercancel="from = null"
      >
        <img
          v-if="scanner.preview"
          :src="previewUrl(scanner.preview.blob, PREVIEW_PX)"
          alt="What lies on the glass"
          draggable="false"
        />
        <p v-else>The glass.<br />Preview it, and drag the area.</p>
        <div class="area" :style="box" />
      </div>
      <div class="settings">
        <b>{{ scanner.found.name }}</b>
        <div class="row">
          <span class="label">Resolution</span>
          <SelectField
            v-model="dpi"
            label="Resolution"
            :choices="scanner.found.resolutions.map((d) => ({ value: d, label: `${d} dpi` }))"
          />
        </div>
        <div class="row">
          <span class="label">Colours</span>
          <ChoiceBar
            v-model="colour"
            label="Colours"
            :options="[
              { value: 'colour', label: 'Colour', disabled: !scanner.found.colours.includes('colour') },
              { value: 'grey', label: 'Grey', disabled: !scanner.found.colours.includes('grey') },
            ]"
          />
        </div>
        <span class="label">Area, in millimetres</span>
        <div class="two">
          <NumberField
            v-for="key in ['x', 'y', 'width', 'height'] as const"
            :key="key"
            :label="{ x: 'Left', y: 'Top', width: 'Width', height: 'Height' }[key]"
            unit="mm"
            :model-value="Number(shown[key].toFixed(1))"
            :min="key === 'x' || key === 'y' ? 0 : LEAST_MM"
            :max="key === 'x' || key === 'width' ? scanner.found.widthMm : scanner.found.heightMm"
            :step="1"
            @update:model-value="put(key, $event)"
          />
        </div>
        <PushButton small :disabled="!area" @click="area = null">The whole glass</PushButton>
        <p class="muted">{{ pixels }}. Rather too large than too small: marks are cut out and sized later.</p>
        <div v-if="scanner.scanning" role="status">
          <ProgressLine :share="scanner.scanning.share" :label="scanner.scanning.what" />
          <p class="muted">{{ scanner.scanning.what }}, {{ scanner.scanning.detail }}</p>
        </div>
      </div>
    </div>
    <template #footer>
      <PushButton v-if="scanner.scanning" @click="scanner.scanning.cancel()">Cancel</PushButton>
      <PushButton v-else @click="visible = false">Close</PushButton>
      <PushButton :disabled="!scanner.found || scanner.scanning !== null" @click="scanner.look75()">Preview</PushButton>
      <PushButton look="main" :disabled="!scanner.found || scanner.scanning !== null" @click="scan">Scan</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
.where {
  display: grid;
  grid-template-columns: 70px 1fr auto;
  gap: 8px;
  align-items: center;
}
.asked {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 10px;
  border-radius: var(--r);
  background: var(--warn-wash);
  color: var(--warn);
}
.page {
  display: grid;
  grid-template-columns: 280px 1fr;
  gap: 18px;
  margin-top: 10px;
}
.glass {
  position: relative;
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--well);
  cursor: crosshair;
  touch-action: none;
  user-select: none;
}
.glass img {
  width: 100%;
  height: 100%;
  display: block;
}
.glass p {
  position: absolute;
  inset: 0;
  display: grid;
  place-content: center;
  text-align: center;
  color: var(--ink-2);
}
.area {
  position: absolute;
  border: 2px solid var(--act);
  box-shadow: 0 0 0 999px rgb(28 36 40 / 30%);
  pointer-events: none;
}
.settings {
  display: grid;
  gap: 10px;
  align-content: start;
  --label: 76px;
  --name: 46px;
}
.settings .row {
  grid-template-columns: 76px 1fr;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
