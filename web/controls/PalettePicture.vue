<script setup lang="ts">
/** Colours out of a photograph: a few that stand for all of it, and those that are clicked. */
import { buildPaletteSync, utils } from 'image-q';
import { ref, shallowRef, useTemplateRef, watch, nextTick } from 'vue';
import { hexOf } from '#core/colour';
import DialogBox from './DialogBox.vue';
import PushButton from './PushButton.vue';
import SettingSlider from './SettingSlider.vue';
import { usePickFiles } from './pickFiles';
import { pixelsOf } from './paletteStrip';
import { failNotice, orSay } from './undoNotice';

const visible = defineModel<boolean>('visible', { required: true });
/** What is painted now, as a picture; null where nothing is. */
const props = defineProps<{ painted?: (() => Promise<File | null>) | undefined }>();
const emit = defineEmits<{ add: [name: string, colours: { colour: string; name: string }[]] }>();
const [WIDE, HIGH] = [520, 340];
/** Colours are gathered from a copy of about so many pixels. */
const SAMPLE = 96;
const COUNT = {
  label: 'Colours',
  unit: '',
  min: 2,
  max: 24,
  step: 1,
  fallback: 6,
  scale: 'linear',
  help: 'How many colours to find in the picture',
} as const;

const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
const picture = shallowRef<{ name: string; bitmap: ImageBitmap } | null>(null);
const shown = shallowRef<ImageData | null>(null);
const count = ref(6);
const found = ref<string[]>([]);
const clicked = ref<string[]>([]);

async function open(file: File): Promise<void> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return failNotice(`“${file.name}” can’t be read as a picture.`);
  picture.value = { name: file.name.replace(/\.[^.]+$/, ''), bitmap };
  clicked.value = [];
  await nextTick();
  show();
  gather();
}
/** What is painted is taken without what is clear. */
async function openPainted(): Promise<void> {
  const file = await props.painted?.();
  if (file) await open(file);
  else failNotice('Nothing is painted on the body yet.');
}
const pick = usePickFiles({ accept: 'image/*' }, ([file]) => file && void open(file));

function show(): void {
  if (!picture.value || !canvas.value) return;
  const { bitmap } = picture.value;
  const by = Math.min(WIDE / bitmap.width, HIGH / bitmap.height);
  const [width, height] = [Math.max(1, Math.round(bitmap.width * by)), Math.max(1, Math.round(bitmap.height * by))];
  shown.value = pixelsOf(bitmap, width, height);
  canvas.value.width = width;
  canvas.value.height = height;
  canvas.value.getContext('2d')!.putImageData(shown.value, 0, 0);
}

/** Those that cover for the most part. */
function solidPixels(data: Uint8ClampedArray): Uint8Array {
  const out: number[] = [];
  for (let i = 0; i < data.length; i += 4) if (data[i + 3] > 127) out.push(data[i], data[i + 1], data[i + 2], 255);
  return Uint8Array.from(out);
}

/** Clusters of colours, from dark to light. */
function gather(): void {
  if (!picture.value) return;
  const { bitmap } = picture.value;
  const by = SAMPLE / Math.max(bitmap.width, bitmap.height);
  const small = pixelsOf(
    bitmap,
    Math.max(1, Math.round(bitmap.width * by)),
    Math.max(1, Math.round(bitmap.height * by)),
  );
  const solid = solidPixels(small.data);
  if (solid.length === 0) return void (found.value = []);
  const points = utils.PointContainer.fromUint8Array(solid, solid.length / 4, 1);
  const palette = buildPaletteSync([points], {
    colors: count.value,
    paletteQuantization: 'wuquant',
    colorDistanceFormula: 'ciede2000',
  });
  found.value = palette
    .getPointContainer()
    .getPointArray()
    .sort((p, q) => p.r * 2 + p.g * 5 + p.b - (q.r * 2 + q.g * 5 + q.b))
    .map(({ r, g, b }) => hexOf([r / 255, g / 255, b / 255]));
}
watch(count, gather);

/** Takes the colour at a share of the picture's width and height. */
function takeAt(across: number, down: number): void {
  if (!shown.value) return;
  const { width, height, data } = shown.value;
  const at =
    (Math.min(Math.floor(down * height), height - 1) * width + Math.min(Math.floor(across * width), width - 1)) * 4;
  const [r, g, b] = data.subarray(at, at + 3);
  clicked.value.push(hexOf([r / 255, g / 255, b / 255]));
}
function click(e: MouseEvent): void {
  const box = canvas.value!.getBoundingClientRect();
  cross.value = { x: (e.clientX - box.left) / box.width, y: (e.clientY - box.top) / box.height };
  takeAt(cross.value.x, cross.value.y);
}
/** Where the keys are on the picture, shares of it. */
const cross = ref({ x: 0.5, y: 0.5 });
function key(e: KeyboardEvent): void {
  const step = e.shiftKey ? 0.1 : 0.01;
  const ways: Record<string, [number, number]> = {
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
    ArrowUp: [0, -step],
    ArrowDown: [0, step],
  };
  const by = ways[e.key];
  if (by) {
    const [x, y] = [cross.value.x + by[0], cross.value.y + by[1]].map((at) => Math.max(0, Math.min(1, at)));
    cross.value = { x, y };
  } else if (e.key === 'Enter' || e.key === ' ') takeAt(cross.value.x, cross.value.y);
  else return;
  e.preventDefault();
}
function add(): void {
  const all = [...new Set([...found.value, ...clicked.value])];
  emit(
    'add',
    picture.value?.name ?? 'Picture',
    all.map((colour) => ({ colour, name: '' })),
  );
  visible.value = false;
}
</script>

<template>
  <DialogBox v-model:visible="visible" title="Colours of a picture" :width-px="570">
    <div class="body">
      <div class="from">
        <PushButton @click="pick">{{ picture ? 'Another picture…' : 'Choose a picture…' }}</PushButton>
        <PushButton v-if="painted" title="The colours that are on the body now" @click="orSay(openPainted)">
          What is painted
        </PushButton>
      </div>
      <template v-if="picture">
        <div
          class="sheet"
          role="button"
          tabindex="0"
          aria-label="The picture: arrows move the cross, Enter takes the colour under it"
          title="Click to take a colour"
          @click="click"
          @keydown="key"
        >
          <canvas ref="canvas" />
          <i class="cross" :style="{ left: `${cross.x * 100}%`, top: `${cross.y * 100}%` }" />
        </div>
        <SettingSlider v-model="count" :meta="COUNT" />
        <div class="row" aria-label="Colours found">
          <PushButton
            v-for="(colour, i) in found"
            :key="`f${i}`"
            look="face"
            class="well"
            :style="{ background: colour }"
            :title="`${colour}; click to leave it out`"
            :aria-label="`Leave out ${colour}`"
            @click="found.splice(i, 1)"
          />
          <span v-if="clicked.length > 0" class="between" />
          <PushButton
            v-for="(colour, i) in clicked"
            :key="`c${i}`"
            look="face"
            class="well"
            :style="{ background: colour }"
            :title="`${colour}, clicked; click to leave it out`"
            :aria-label="`Leave out ${colour}`"
            @click="clicked.splice(i, 1)"
          />
        </div>
      </template>
      <p v-else class="muted">A few colours that stand for all of it; more by clicking on it.</p>
    </div>
    <template #footer>
      <PushButton @click="visible = false">Cancel</PushButton>
      <PushButton look="main" :disabled="found.length + clicked.length === 0" @click="add">Make a palette</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
.body {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.sheet {
  position: relative;
  cursor: crosshair;
}
canvas {
  display: block;
  border-radius: var(--r);
}
/* Seen while the keys have it. */
.cross {
  position: absolute;
  width: 14px;
  height: 14px;
  border: 2px solid #fff;
  border-radius: 50%;
  outline: 1px solid #000;
  transform: translate(-50%, -50%);
  pointer-events: none;
  visibility: hidden;
}
.sheet:focus-visible .cross {
  visibility: visible;
}
.from {
  display: flex;
  gap: 8px;
}
.body > .slider {
  width: 320px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.between {
  width: 10px;
}
.well {
  width: 30px;
  height: 30px;
  border-radius: 4px;
  border: 1px solid rgb(0 0 0 / 22%);
}
</style>
