<script setup lang="ts">
/**
 * Swatches: a flat sheet of single strokes to judge colours and the brush by. Drawn on with the pointer, in the first
 * colour; all strokes are run again while a setting moves.
 */
import { AlignHorizontalDistributeCenter, Download, Eraser, Palette, Undo2 } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import type { BrushAlphas } from '#core/stored';
import { worksOf, type Brush } from '#core/settings';
import { aligned, rowOfSwatches, SHEET_HIGH, SHEET_WIDE, type Swatch, type SwatchPoint } from '#core/thumbnail';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { saveFile } from '../controls/saveFile';
import { tellNotice } from '../controls/undoNotice';
import { plain } from '../api/plain';
import { usePalettes } from '../stores/palettes';
import { useStripThread } from './stripThread';

const props = defineProps<{ brush: Brush; alphas: BrushAlphas }>();
const palettes = usePalettes();
const WIDTH = 1024;
/** More strokes would take too long to run again while a setting moves. */
const MOST = 60;
const canvas = ref<HTMLCanvasElement>();
const swatches = useLocalStorage<Swatch[]>('swatches', []);
const before = ref<Swatch[][]>([]);
const drawn = ref('');
const { know, worker, end } = useStripThread();
let points: SwatchPoint[] | null = null;
let pending = false;
let busy = false;
let gone = false;
const key = (): string => JSON.stringify([worksOf(props.brush), swatches.value]);

async function draw(): Promise<void> {
  pending = true;
  if (busy) return;
  busy = true;
  try {
    while (pending && !gone) {
      pending = false;
      const now = key();
      const [form, tooth] = [await know(props.alphas.form), await know(props.alphas.tooth)];
      const made = await worker.swatches(plain(props.brush), form, tooth, plain(swatches.value), WIDTH);
      if (gone || !canvas.value) return;
      canvas.value.width = made.width;
      canvas.value.height = made.height;
      canvas.value.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(made.data), made.width), 0, 0);
      drawn.value = now;
    }
  } catch {
    // The proof says that the alpha can’t be loaded; the sheet keeps what it has.
  } finally {
    busy = false;
  }
}
onMounted(draw);
watch(() => [key(), props.alphas.form?.blob, props.alphas.tooth?.blob], draw);
onBeforeUnmount(() => {
  gone = true;
  end();
});

function put(next: Swatch[]): void {
  if (next.length > MOST) return tellNotice(`A sheet holds ${MOST} strokes.`);
  before.value = [...before.value, swatches.value].slice(-40);
  swatches.value = next;
}
function undo(): void {
  const last = before.value.at(-1);
  if (!last) return;
  before.value = before.value.slice(0, -1);
  swatches.value = last;
}
function eachColour(): void {
  const colours = palettes.colours.map(({ colour }) => colour);
  const all = colours.length > 0 ? colours : [props.brush.colour.first, props.brush.colour.second];
  put(rowOfSwatches(all.slice(0, MOST)));
}

function pointAt(e: PointerEvent): SwatchPoint {
  const box = canvas.value!.getBoundingClientRect();
  return {
    x: ((e.clientX - box.left) / box.width - 0.5) * SHEET_WIDE,
    y: (0.5 - (e.clientY - box.top) / box.height) * SHEET_HIGH,
    pressure: e.pointerType === 'mouse' ? 1 : e.pressure,
    time: e.timeStamp,
  };
}
function down(e: PointerEvent): void {
  if (e.button !== 0 || points) return;
  canvas.value!.setPointerCapture(e.pointerId);
  points = [pointAt(e)];
}
/** What is drawn is seen as a line until the worker has run it. */
function move(e: PointerEvent): void {
  if (!points) return;
  const from = points.at(-1)!;
  for (const one of e.getCoalescedEvents().length > 0 ? e.getCoalescedEvents() : [e]) points.push(pointAt(one));
  const to = canvas.value!.getContext('2d')!;
  const last = points.at(-1)!;
  const px = ({ x, y }: SwatchPoint): [number, number] => [
    (x / SHEET_WIDE + 0.5) * canvas.value!.width,
    (0.5 - y / SHEET_HIGH) * canvas.value!.height,
  ];
  to.strokeStyle = props.brush.colour.first;
  to.lineWidth = 3;
  to.beginPath();
  to.moveTo(...px(from));
  to.lineTo(...px(last));
  to.stroke();
}
function up(): void {
  if (points) put([...swatches.value, { colour: props.brush.colour.first, points }]);
  points = null;
}
function cancel(): void {
  points = null;
  void draw();
}

/** The sheet with the name of each colour under its stroke. */
async function save(): Promise<void> {
  const from = canvas.value!;
  const card = new OffscreenCanvas(from.width, from.height);
  const to = card.getContext('2d')!;
  to.drawImage(from, 0, 0);
  to.font = '13px "IBM Plex Sans", sans-serif';
  to.textAlign = 'center';
  to.fillStyle = '#26302f';
  for (const { colour, points: own } of swatches.value) {
    const [xs, ys] = [own.map(({ x }) => x), own.map(({ y }) => y)];
    const x = ((Math.min(...xs) + Math.max(...xs)) / 2 / SHEET_WIDE + 0.5) * from.width;
    const y = (0.5 - (Math.min(...ys) - 0.3) / SHEET_HIGH) * from.height;
    const name = palettes.colours.find((one) => one.colour === colour)?.name;
    to.fillText(name || colour, x, Math.min(from.height - 5, y + 6));
  }
  saveFile(`${props.brush.card.name}, swatches.png`, await card.convertToBlob({ type: 'image/png' }));
}
</script>

<template>
  <div class="sheet" :data-busy="drawn !== key()">
    <canvas
      ref="canvas"
      role="img"
      aria-label="Swatches"
      title="Draw on it: strokes take the first colour, and follow the brush’s settings"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="cancel"
    />
    <p v-if="swatches.length === 0" class="hint">
      Draw or write here, or take a stroke of every colour of the palette.
    </p>
    <ToolGroup label="The swatch sheet" class="tools-row">
      <ToolButton
        :icon="Palette"
        label="A stroke a colour"
        help="One stroke in each colour of the palette"
        @click="eachColour"
      />
      <ToolButton
        :icon="AlignHorizontalDistributeCenter"
        label="Align the strokes"
        help="Set all strokes in even rows and columns"
        :disabled="swatches.length < 2"
        @click="put(aligned(swatches))"
      />
      <ToolButton :icon="Undo2" label="Undo on the sheet" :disabled="before.length === 0" @click="undo" />
      <ToolButton :icon="Eraser" label="Clear the sheet" :disabled="swatches.length === 0" @click="put([])" />
      <ToolButton
        :icon="Download"
        label="Save the sheet as PNG"
        help="The sheet with the names of its colours, as a PNG"
        :disabled="swatches.length === 0"
        @click="save"
      />
    </ToolGroup>
  </div>
</template>

<style scoped>
.sheet {
  position: relative;
  height: 168px;
  overflow: hidden;
  border-top: 1px solid var(--line);
  background: #dad5cc;
}
canvas {
  width: 100%;
  height: 100%;
  display: block;
  cursor: crosshair;
  touch-action: none;
}
.hint {
  position: absolute;
  left: 14px;
  top: 10px;
  margin: 0;
  color: var(--ink-2);
  font-size: var(--small);
  pointer-events: none;
}
.tools-row {
  position: absolute;
  right: 44px;
  top: 6px;
  display: flex;
  gap: 2px;
  padding: 2px;
  border-radius: var(--r);
  background: color-mix(in srgb, var(--page) 88%, transparent);
}
</style>
