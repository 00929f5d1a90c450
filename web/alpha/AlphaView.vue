<script setup lang="ts">
/**
 * The alpha large: ring and footprint over it, zoomed to the pixel, repeated, before and after, with the cut line of
 * the profile; retouched by hand.
 */
import {
  Grid3x3,
  Circle,
  Image as ImageIcon,
  Maximize,
  ScanLine,
  SplitSquareHorizontal,
  Undo2,
  Redo2,
} from '@lucide/vue';
import { useResizeObserver } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { DIRT_CELLS } from '#core/checks';
import { useShortcuts } from '../keys/shortcuts';
import { useAlphaBench } from '../stores/alphaBench';
import { useFingers } from '../viewport/useFingers';
import { pictureEye } from './pictureEye';
import { usePickStrokes } from '../stores/pickStrokes';
import { useRetouch } from '../stores/retouch';
import { onPicture } from './pictureShape';
import StepHandles from './StepHandles.vue';
import { usePictureCanvas, type ShownPicture } from './usePictureCanvas';
import type { CutLine } from './cutLine';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { useTouch } from '../stores/touch';

const props = defineProps<{ cut: CutLine }>();
const emit = defineEmits<{ cut: [line: CutLine] }>();
const bench = useAlphaBench();
const hand = useRetouch();
const pick = usePickStrokes();
const eye = pictureEye();
const box = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const ring = ref(true);
const repeated = ref(false);
const before = ref(false);
/** The open step’s result, in place of what it is given. */
const result = ref(false);
const pointer = ref<[number, number] | null>(null);
let held: 'pan' | 'stroke' | 'pick' | 'from' | 'to' | null = null;
let last: [number, number] = [0, 0];

/** What the open step is given, where that is set on it by hand and its result isn't wanted in its place. */
const given = computed(() => {
  const picture = bench.answer?.given;
  return picture && picture.stepId === bench.step?.id && !before.value && !result.value ? picture : null;
});
const shown = computed<ShownPicture | null>(() => {
  if (before.value && bench.bare) return bench.bare;
  return given.value ?? (bench.answer && { size: bench.answer.size, heights: bench.answer.heights });
});
usePictureCanvas({ canvas, eye, shown, repeated });
useResizeObserver(box, () => eye.resize(box.value!.clientWidth, box.value!.clientHeight));

const retouching = computed(() => (bench.step?.kind === 'retouch' ? bench.step : null));
const clicking = computed(() => bench.step?.kind === 'background' && bench.step.by === 'click');
const picking = computed(() => (given.value && bench.step?.kind === 'pickOut' ? bench.step : null));
const shape = computed(() => given.value?.shape ?? bench.answer?.shape ?? { width: 1, height: 1 });
const onRaster = (x: number, y: number) => onPicture(shape.value, x, y);
/** A stroke's size in CSS pixels. */
const strokeRadius = computed(() => ((picking.value ? pick.size : hand.tool.size) / 100) * eye.at.side);
/** Of the strokes that the pointer draws: takes back the one that isn't released. */
const abandon = (): boolean => hand.abandon() || pick.abandon();
watch(
  () => bench.chosen,
  () => (result.value = false),
);

function place(e: PointerEvent): [number, number] {
  const b = box.value!.getBoundingClientRect();
  return [e.clientX - b.left, e.clientY - b.top];
}
const pressure = (e: PointerEvent): number => (e.pointerType === 'pen' && e.pressure > 0 ? e.pressure : 1);

const touch = useTouch();
const fingers = useFingers(box, {
  began: () => {
    abandon();
    held = null;
  },
  moved: ({ dx, dy, factor, x, y }) => {
    eye.pan(dx, dy);
    eye.zoom(factor, x, y, mostSide());
  },
});
const mostSide = (): number => (shown.value?.size ?? 512) * 24;

function down(e: PointerEvent): void {
  if (fingers.busy()) return;
  const at = place(e);
  last = at;
  const [x, y] = eye.toPicture(...at);
  box.value!.setPointerCapture(e.pointerId);
  if (e.button !== 0 || touch.moves(e)) {
    held = 'pan';
    return;
  }
  if (clicking.value) {
    const [u, v] = onRaster(x, y).own;
    if (u >= 0 && v >= 0 && u < 1 && v < 1)
      bench.editStep(bench.step!.id, (own) => Object.assign(own, { x: u, y: v }), 'click');
    return;
  }
  if (picking.value) {
    held = 'pick';
    pick.begin(picking.value.id, ...onRaster(x, y).long, e.altKey);
    return;
  }
  if (retouching.value) {
    const { long } = onRaster(x, y);
    if (e.altKey) hand.source = long;
    else {
      held = 'stroke';
      hand.begin(retouching.value.id, ...long, pressure(e));
    }
    return;
  }
  const near = (px: number, py: number): boolean =>
    Math.hypot(px * eye.at.side + eye.at.x - at[0], py * eye.at.side + eye.at.y - at[1]) < 14;
  held = near(props.cut.x0, props.cut.y0) ? 'from' : near(props.cut.x1, props.cut.y1) ? 'to' : 'pan';
}
function move(e: PointerEvent): void {
  const at = place(e);
  pointer.value = at;
  const [x, y] = eye.toPicture(...at);
  if (held === 'pan') eye.pan(at[0] - last[0], at[1] - last[1]);
  else if (held === 'stroke') hand.extend(...onRaster(x, y).long, pressure(e));
  else if (held === 'pick') pick.extend(...onRaster(x, y).long);
  else if (held) {
    const clamp = (v: number): number => Math.max(0, Math.min(1, v));
    emit(
      'cut',
      held === 'from' ? { ...props.cut, x0: clamp(x), y0: clamp(y) } : { ...props.cut, x1: clamp(x), y1: clamp(y) },
    );
  }
  last = at;
}
function up(): void {
  if (held === 'stroke') hand.end();
  if (held === 'pick') pick.end();
  held = null;
}
function wheel(e: WheelEvent): void {
  const b = box.value!.getBoundingClientRect();
  eye.zoom(Math.exp(-e.deltaY * 0.0016), e.clientX - b.left, e.clientY - b.top, mostSide());
}
/** One picture pixel to one screen pixel. */
function toPixel(): void {
  const size = (shown.value?.size ?? 512) / (window.devicePixelRatio || 1);
  eye.zoom(size / eye.at.side, eye.at.width / 2, eye.at.height / 2, size * 24);
}
function resizeStroke(by: number): void {
  if (picking.value) pick.size = Math.max(0.2, Math.min(20, pick.size * by));
  else hand.tool.size = Math.max(0.2, Math.min(40, hand.tool.size * by));
}
useShortcuts([
  {
    command: 'cancel',
    what: 'Cancel the stroke in progress; close the open step',
    run: () => {
      if (!abandon()) bench.chosen = null;
    },
  },
  { command: 'undo', what: 'Undo the last change', run: () => bench.undo() },
  { command: 'redo', run: () => bench.redo() },
  { command: 'remove', what: 'Remove the open step', run: () => bench.chosen && bench.removeStep(bench.chosen) },
  { command: 'compare', what: 'Held: the picture before its first step', hold: (now) => (before.value = now) },
  { command: 'repeat', run: () => (repeated.value = !repeated.value) },
  { command: 'ring', run: () => (ring.value = !ring.value) },
  { command: 'onePixel', run: toPixel },
  { command: 'whole', what: 'The whole picture', run: eye.fit },
  { command: 'smaller', what: 'Strokes on the picture: smaller', run: () => resizeStroke(1 / 1.15) },
  { command: 'larger', what: 'Strokes on the picture: larger', run: () => resizeStroke(1.15) },
  { command: 'invert', what: 'Picking out: swap inside and outside', run: () => (pick.inside = !pick.inside) },
  { command: 'result', run: () => (result.value = !result.value) },
  { gesture: 'Drag', what: 'Pan; the wheel zooms; the ends of the cut line move it' },
]);
const specks = computed(() =>
  repeated.value || before.value || given.value ? [] : (bench.answer?.checks.background.specks ?? []),
);
const dirty = computed(() => {
  const found = bench.answer?.checks.checks.some((c) => c.name === 'dirt' && !c.ok);
  return found && !repeated.value && !before.value && !given.value ? bench.answer!.checks.background.dirty : [];
});
const zoomed = computed(() =>
  Math.round(((eye.at.side * (window.devicePixelRatio || 1)) / (shown.value?.size ?? 1)) * 100),
);
</script>

<template>
  <div
    class="alpha-view"
    :data-busy="!bench.answer || (!bench.exact && !bench.vector)"
    :data-size="bench.answer?.size ?? 0"
  >
    <div
      ref="box"
      class="surface"
      :class="{ hand: retouching || clicking || picking }"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @pointerleave="pointer = null"
      @wheel.prevent="wheel"
      @contextmenu.prevent
    >
      <canvas ref="canvas" />
      <svg v-if="shown" class="over" :viewBox="`0 0 ${eye.at.width} ${eye.at.height}`">
        <g v-if="!repeated" :transform="`translate(${eye.at.x} ${eye.at.y}) scale(${eye.at.side})`">
          <template v-if="ring && !given">
            <circle cx="0.5" cy="0.5" r="0.5" class="ring" />
            <rect width="1" height="1" class="square" />
          </template>
          <rect
            v-for="(d, i) in dirty"
            :key="`d${i}`"
            :x="d.x"
            :y="d.y"
            :width="1 / DIRT_CELLS"
            :height="1 / DIRT_CELLS"
            class="dirt"
          >
            <title>Dirt on the ground</title>
          </rect>
          <circle v-for="(s, i) in specks" :key="i" :cx="s.x" :cy="s.y" :r="s.r + 8 / eye.at.side" class="speck">
            <title>A speck</title>
          </circle>
          <template v-if="!retouching && !clicking && !given">
            <line :x1="cut.x0" :y1="cut.y0" :x2="cut.x1" :y2="cut.y1" class="cut" />
            <circle
              v-for="end in [
                [cut.x0, cut.y0],
                [cut.x1, cut.y1],
              ] as const"
              :key="end.join()"
              :cx="end[0]"
              :cy="end[1]"
              :r="5 / eye.at.side"
              class="end"
            >
              <title>Cut of the profile: drag</title>
            </circle>
          </template>
        </g>
        <template v-if="(retouching || picking) && pointer">
          <circle :cx="pointer[0]" :cy="pointer[1]" :r="strokeRadius" class="reach" />
        </template>
      </svg>
      <StepHandles v-if="given && !repeated" :eye="eye" :shape="given.shape" :back="place" />
    </div>
    <ToolGroup label="View and steps" class="tools">
      <ToolButton
        v-if="bench.answer?.given"
        look="round"
        :icon="ImageIcon"
        label="The open step’s result"
        command="result"
        :on="result"
        @click="result = !result"
      />
      <ToolButton
        look="round"
        :icon="Circle"
        label="Ring and footprint"
        command="ring"
        :on="ring"
        @click="ring = !ring"
      />
      <ToolButton
        look="round"
        :icon="Grid3x3"
        label="Repeat three by three"
        command="repeat"
        :on="repeated"
        @click="repeated = !repeated"
      />
      <ToolButton
        look="round"
        :icon="SplitSquareHorizontal"
        label="Before the first step"
        help="Before the first step"
        command="compare"
        :on="before"
        @click="before = !before"
      />
      <ToolButton
        look="round"
        :icon="ScanLine"
        label="One to one"
        help="One pixel to one of the screen"
        command="onePixel"
        @click="toPixel"
      />
      <ToolButton look="round" :icon="Maximize" label="The whole picture" command="whole" @click="eye.fit()" />
      <ToolButton
        look="round"
        :icon="Undo2"
        label="Undo"
        command="undo"
        :disabled="!bench.past.length"
        @click="bench.undo()"
      />
      <ToolButton
        look="round"
        :icon="Redo2"
        label="Redo"
        command="redo"
        :disabled="!bench.future.length"
        @click="bench.redo()"
      />
    </ToolGroup>
    <div v-if="shown" class="numbers">
      <span><i>zoom</i> {{ zoomed }} %</span>
      <span v-if="before"><i>before</i> the first step</span>
      <span v-else-if="given"><i>shown</i> the step’s input</span>
      <span v-else-if="bench.answer?.through"><i>up to</i> the open step</span>
      <span v-else><i>shown</i> {{ shown.size }} px</span>
    </div>
    <div v-else class="cover">Opening…</div>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.alpha-view {
  position: relative;
  width: 100%;
  height: 100%;
  overflow: hidden;
  background: #55585a;
}
.surface {
  cursor: grab;
}
.surface.hand {
  cursor: crosshair;
}
.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.over * {
  vector-effect: non-scaling-stroke;
  fill: none;
}
.ring {
  stroke: #7fd3c3;
  stroke-width: 1.5;
}
.square {
  stroke: #7fd3c3;
  stroke-width: 1;
  stroke-dasharray: 4 4;
}
.speck {
  stroke: #f0b24a;
  stroke-width: 1.5;
}
.over .dirt {
  fill: rgb(240 178 74 / 30%);
}
.cut {
  stroke: #ffffff;
  stroke-width: 1.2;
  mix-blend-mode: difference;
}
.over .end {
  fill: #fff;
  stroke: var(--ink);
  stroke-width: 1;
}
.reach {
  stroke: #fff;
  stroke-width: 1.2;
  mix-blend-mode: difference;
}
.numbers {
  top: auto;
  bottom: 10px;
  right: 12px;
}
</style>
