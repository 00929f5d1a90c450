<script setup lang="ts">
/** Four corners on the picture, dragged or moved by the arrows: what lies between becomes the whole picture. */
import { computed } from 'vue';
import { inFourSided, isFourSided } from '#core/filter';

const props = defineProps<{
  corners: readonly number[];
  /** Of a place 0–1 of width and height, on the view; and back from a place of the window. */
  place: (u: number, v: number) => [number, number];
  back: (e: PointerEvent) => [number, number];
}>();
/** `held` while a corner is dragged; `done` when it is let go. */
const emit = defineEmits<{ move: [corners: number[], held: boolean]; done: [] }>();
const NAMES = ['Upper left', 'Upper right', 'Lower right', 'Lower left'];
const STEP = 0.002;
let held = -1;

const at = computed(() => NAMES.map((_, k) => props.place(props.corners[k * 2], props.corners[k * 2 + 1])));
const sides = computed(() => at.value.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '));
const good = computed(() => isFourSided(props.corners));
/** Thirds, as they lie in the perspective. */
const thirds = computed(() => {
  const map = inFourSided(at.value);
  return [1 / 3, 2 / 3].flatMap((t) => [
    [map(t, 0), map(t, 1)],
    [map(0, t), map(1, t)],
  ]);
});

function put(k: number, u: number, v: number, dragged: boolean): void {
  const limit = (x: number): number => Math.max(-1, Math.min(2, Number(x.toFixed(5))));
  emit(
    'move',
    props.corners.map((was, i) => (i === k * 2 ? limit(u) : i === k * 2 + 1 ? limit(v) : was)),
    dragged,
  );
}
function down(e: PointerEvent, k: number): void {
  if (e.button !== 0) return;
  e.stopPropagation();
  held = k;
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
}
function move(e: PointerEvent): void {
  if (held >= 0) put(held, ...props.back(e), true);
}
function up(): void {
  held = -1;
  emit('done');
}
function key(e: KeyboardEvent, k: number): void {
  const by = STEP * (e.shiftKey ? 10 : 1);
  const ways: Record<string, [number, number]> = {
    ArrowLeft: [-by, 0],
    ArrowRight: [by, 0],
    ArrowUp: [0, -by],
    ArrowDown: [0, by],
  };
  const way = ways[e.key];
  if (!way) return;
  e.preventDefault();
  e.stopPropagation();
  put(k, props.corners[k * 2] + way[0], props.corners[k * 2 + 1] + way[1], false);
}
</script>

<template>
  <g class="corners" :class="{ bad: !good }" @pointermove="move" @pointerup="up" @pointercancel="up">
    <polygon :points="sides" class="side under" />
    <polygon :points="sides" class="side" />
    <template v-if="good">
      <line v-for="([a, b], i) in thirds" :key="i" :x1="a[0]" :y1="a[1]" :x2="b[0]" :y2="b[1]" class="third" />
    </template>
    <g
      v-for="([x, y], k) in at"
      :key="k"
      class="corner"
      tabindex="0"
      role="button"
      :aria-label="`${NAMES[k]} corner`"
      @pointerdown="down($event, k)"
      @keydown="key($event, k)"
    >
      <title>{{ NAMES[k] }} corner: drag it to a corner of something square; arrows move it finely</title>
      <circle :cx="x" :cy="y" r="16" class="reach" />
      <circle :cx="x" :cy="y" r="7" class="dot" />
    </g>
  </g>
</template>

<style scoped>
.side {
  fill: none;
  stroke: #7fd3c3;
  stroke-width: 1.6;
}
.side.under {
  stroke: rgb(0 0 0 / 55%);
  stroke-width: 4;
}
.bad .side:not(.under) {
  stroke: #f0b24a;
  stroke-dasharray: 6 4;
}
.third {
  stroke: rgb(255 255 255 / 55%);
  stroke-width: 1;
}
.corner {
  pointer-events: all;
  cursor: move;
  outline: none;
}
.reach {
  fill: transparent;
}
.dot {
  fill: #fff;
  stroke: #2a2c2d;
  stroke-width: 1.5;
}
.corner:focus-visible .dot {
  stroke: #7fd3c3;
  stroke-width: 4;
}
</style>
