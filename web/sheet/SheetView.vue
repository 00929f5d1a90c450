<script setup lang="ts">
/**
 * The sheet with its marks outlined: click to include or exclude, drag a lasso, draw a line that splits; the wheel
 * zooms.
 */
import { Lasso, Maximize, MousePointer2, Redo2, Scissors, Undo2 } from '@lucide/vue';
import { useResizeObserver } from '@vueuse/core';
import { computed, ref } from 'vue';
import { isInside, lassoOutline } from '#core/marks';
import type { Mark } from '#core/settings';
import { previewUrl } from '../api/client';
import { useShortcuts } from '../keys/shortcuts';
import { useSheetBench } from '../stores/sheetBench';
import { useFingers } from '../viewport/useFingers';
import { sheetEye } from './sheetEye';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { useTouch } from '../stores/touch';

const bench = useSheetBench();
const tool = ref<'choose' | 'lasso' | 'split'>('choose');
const box = ref<HTMLElement>();
const eye = sheetEye(() => bench.doc?.file ?? { width: 1, height: 1 });
const drawn = ref<[number, number][]>([]);
const over = ref<string | null>(null);
let held: 'pan' | 'draw' | 'press' | null = null;
let last: [number, number] = [0, 0];
let pressed: [number, number] = [0, 0];
useResizeObserver(box, () => eye.resize(box.value!.clientWidth, box.value!.clientHeight));

const url = computed(() => (bench.doc ? previewUrl(bench.doc.file.blob) : ''));
const path = (mark: Mark): string =>
  mark.outlines
    .map((o) => `M${o.map((v, k) => (k % 2 === 0 ? v * eye.at.w : v * eye.at.h).toFixed(2)).join(' ')}Z`)
    .join('');
const drawing = computed(() =>
  drawn.value.map(([x, y], k) => `${k ? 'L' : 'M'}${(x * eye.at.w).toFixed(1)} ${(y * eye.at.h).toFixed(1)}`).join(''),
);

function markAt(x: number, y: number): Mark | null {
  return bench.marks.findLast((m) => isInside(m.outlines, x, y)) ?? null;
}
function place(e: PointerEvent | WheelEvent): [number, number] {
  const b = box.value!.getBoundingClientRect();
  return [e.clientX - b.left, e.clientY - b.top];
}
const touch = useTouch();
const fingers = useFingers(box, {
  began: drop,
  moved: ({ dx, dy, factor, x, y }) => {
    eye.pan(dx, dy);
    eye.zoom(factor, x, y);
  },
});
function drop(): void {
  held = null;
  drawn.value = [];
}
function down(e: PointerEvent): void {
  if (fingers.busy()) return;
  last = place(e);
  pressed = last;
  box.value!.setPointerCapture(e.pointerId);
  const at = eye.toSheet(...last);
  // A tap still chooses; only drawing is the pen’s.
  if (e.button !== 0 || (touch.moves(e) && tool.value !== 'choose')) held = 'pan';
  else if (tool.value === 'choose') held = 'press';
  else {
    held = 'draw';
    drawn.value = [at];
  }
}
function move(e: PointerEvent): void {
  const at = place(e);
  const on = eye.toSheet(...at);
  if (held === 'press' && Math.hypot(at[0] - pressed[0], at[1] - pressed[1]) > 5) held = 'pan';
  if (held === 'pan') eye.pan(at[0] - last[0], at[1] - last[1]);
  else if (held === 'draw') drawn.value = tool.value === 'split' ? [drawn.value[0], on] : [...drawn.value, on];
  else over.value = markAt(...on)?.id ?? null;
  last = at;
}
function up(e: PointerEvent): void {
  const was = held;
  held = null;
  if (was === 'press') click(e);
  else if (was === 'draw') finish();
}
/** A click includes or excludes; with Shift it chooses marks to be joined or deleted. */
function click(e: PointerEvent): void {
  const mark = markAt(...eye.toSheet(...place(e)));
  if (!mark) bench.chosen = [];
  else if (e.shiftKey)
    bench.chosen = bench.chosen.includes(mark.id)
      ? bench.chosen.filter((id) => id !== mark.id)
      : [...bench.chosen, mark.id];
  else {
    bench.include([mark.id], !mark.included);
    bench.chosen = [mark.id];
  }
}
function finish(): void {
  const points = drawn.value;
  drawn.value = [];
  if (points.length < 2) return;
  if (tool.value === 'lasso') {
    const outline = lassoOutline(points);
    if (outline) bench.addMark([outline]);
    return;
  }
  const [a, b] = [points[0], points.at(-1)!];
  if (Math.hypot(a[0] - b[0], a[1] - b[1]) < 0.004) return;
  const crossed = bench.marks.filter((m) =>
    Array.from({ length: 41 }, (_, k) => k / 40).some((t) =>
      isInside(m.outlines, a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t),
    ),
  );
  bench.split(
    ...a,
    ...b,
    crossed.map((m) => m.id),
  );
}
function wheel(e: WheelEvent): void {
  eye.zoom(Math.exp(-e.deltaY * 0.0016), ...place(e));
}
useShortcuts([
  { command: 'chooseMarks', run: () => (tool.value = 'choose') },
  { command: 'lasso', run: () => (tool.value = 'lasso') },
  { command: 'split', run: () => (tool.value = 'split') },
  { command: 'join', run: () => bench.join() },
  { command: 'remove', what: 'Remove the chosen marks', run: () => bench.chosen.length && bench.remove(bench.chosen) },
  {
    command: 'cancel',
    what: 'Cancel the line in progress; choose nothing',
    run: () => {
      drop();
      bench.chosen = [];
    },
  },
  { command: 'undo', what: 'Undo the last change', run: () => bench.undo() },
  { command: 'redo', run: () => bench.redo() },
  { command: 'whole', what: 'The whole sheet', run: eye.fit },
  { gesture: 'Drag', what: 'Pan; the wheel zooms' },
]);
const TOOLS = [
  { tool: 'choose', label: 'Include or exclude', command: 'chooseMarks', icon: MousePointer2 },
  { tool: 'lasso', label: 'Lasso', command: 'lasso', icon: Lasso },
  { tool: 'split', label: 'Split along a line', command: 'split', icon: Scissors },
] as const;
</script>

<template>
  <div class="sheet-view" :data-busy="bench.finding" :data-marks="bench.marks.length">
    <div
      ref="box"
      class="surface"
      :class="tool"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="drop"
      @wheel.prevent="wheel"
      @contextmenu.prevent
    >
      <div
        class="page"
        :style="{
          transform: `translate(${eye.at.x}px, ${eye.at.y}px)`,
          width: `${eye.at.w}px`,
          height: `${eye.at.h}px`,
        }"
      >
        <img :src="url" alt="" draggable="false" @load="eye.fit()" />
        <svg :viewBox="`0 0 ${eye.at.w} ${eye.at.h}`">
          <path
            v-for="m in bench.marks"
            :key="m.id"
            :d="path(m)"
            class="mark"
            :class="{
              included: m.included,
              chosen: bench.chosen.includes(m.id),
              over: m.id === over && tool === 'choose',
            }"
            :data-included="m.included"
          />
          <path v-if="drawing" :d="drawing" class="drawing" />
        </svg>
      </div>
    </div>
    <ToolGroup label="Tools, view and steps" class="tools">
      <ToolButton
        v-for="t in TOOLS"
        :key="t.tool"
        look="round"
        :icon="t.icon"
        :label="t.label"
        :command="t.command"
        :on="tool === t.tool"
        @click="tool = t.tool"
      />
      <ToolButton look="round" :icon="Maximize" label="The whole sheet" command="whole" @click="eye.fit()" />
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
    <div v-if="bench.finding || bench.opening" class="cover">Looking for marks…</div>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.sheet-view {
  position: relative;
  width: 100%;
  height: 100%;
  overflow: hidden;
  background: #55585a;
}
.surface.lasso,
.surface.split {
  cursor: crosshair;
}
.page {
  position: absolute;
  left: 0;
  top: 0;
  transform-origin: 0 0;
}
.page img {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  user-select: none;
}
.page svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
}
.mark {
  fill: rgb(28 36 40 / 8%);
  stroke: #6b767b;
  stroke-width: 1.4;
  stroke-dasharray: 5 4;
}
.mark.included {
  fill: color-mix(in srgb, var(--act) 13%, transparent);
  stroke: var(--act);
  stroke-width: 2;
  stroke-dasharray: none;
}
.mark.over {
  fill: color-mix(in srgb, var(--act) 26%, transparent);
}
.mark.chosen {
  stroke: #d08a1d;
  stroke-width: 2.6;
}
.drawing {
  fill: rgb(208 138 29 / 15%);
  stroke: #d08a1d;
  stroke-width: 2;
}
</style>
