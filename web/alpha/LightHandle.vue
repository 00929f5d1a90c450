<script setup lang="ts">
/** Where the light comes from: a lamp on a ring round the picture's middle, dragged or moved by the arrows. */
import { computed } from 'vue';

const props = defineProps<{
  /** Degrees, anticlockwise from the right. */
  light: number;
  /** Of the ring, on the view. */
  middle: readonly [number, number];
  radius: number;
  /** Place of the pointer on the view. */
  back: (e: PointerEvent) => [number, number];
}>();
/** `held` while the lamp is dragged; `done` when it is let go. */
const emit = defineEmits<{ turn: [light: number, held: boolean]; done: [] }>();
let held = false;

const lamp = computed(() => {
  const turn = (props.light * Math.PI) / 180;
  return [props.middle[0] + Math.cos(turn) * props.radius, props.middle[1] - Math.sin(turn) * props.radius];
});
/** Where its light goes. */
const ray = computed(() => [0.2, 0.72].map((t) => lamp.value.map((v, k) => v + (props.middle[k] - v) * t)));

function down(e: PointerEvent): void {
  if (e.button !== 0) return;
  e.stopPropagation();
  held = true;
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
}
function move(e: PointerEvent): void {
  if (!held) return;
  const [x, y] = props.back(e);
  emit('turn', Math.round((Math.atan2(props.middle[1] - y, x - props.middle[0]) * 180) / Math.PI), true);
}
function up(): void {
  held = false;
  emit('done');
}
function key(e: KeyboardEvent): void {
  const by = { ArrowLeft: 1, ArrowUp: 1, ArrowRight: -1, ArrowDown: -1 }[e.key];
  if (!by) return;
  e.preventDefault();
  e.stopPropagation();
  const next = props.light + by * (e.shiftKey ? 15 : 1);
  emit('turn', ((((next + 180) % 360) + 360) % 360) - 180, false);
}
</script>

<template>
  <g class="light">
    <circle :cx="middle[0]" :cy="middle[1]" :r="radius" class="ring" />
    <line :x1="ray[0][0]" :y1="ray[0][1]" :x2="ray[1][0]" :y2="ray[1][1]" class="ray" />
    <g
      class="lamp"
      tabindex="0"
      role="slider"
      aria-label="Light"
      aria-valuemin="-180"
      aria-valuemax="180"
      :aria-valuenow="light"
      :aria-valuetext="`from ${light}°`"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @keydown="key"
    >
      <title>Drag it to where the light comes from</title>
      <circle :cx="lamp[0]" :cy="lamp[1]" r="18" class="reach" />
      <circle :cx="lamp[0]" :cy="lamp[1]" r="9" class="dot" />
    </g>
  </g>
</template>

<style scoped>
.ring {
  fill: none;
  stroke: rgb(255 255 255 / 60%);
  stroke-width: 1.2;
  stroke-dasharray: 3 5;
}
.ray {
  stroke: #fff3cf;
  stroke-width: 3;
  stroke-linecap: round;
}
.lamp {
  pointer-events: all;
  cursor: grab;
  outline: none;
}
.reach {
  fill: transparent;
}
.dot {
  fill: #fff3cf;
  stroke: #2a2c2d;
  stroke-width: 1.5;
}
.lamp:focus-visible .dot {
  stroke: #7fd3c3;
  stroke-width: 4;
}
</style>
