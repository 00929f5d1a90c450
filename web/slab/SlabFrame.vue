<script setup lang="ts">
/**
 * The frame, its margin and reach ring over the slab. While it is being set it can be moved, sized at its corners and
 * turned.
 */
import { computed } from 'vue';
import { MARGIN_LIMIT } from '#core/checks';
import { FrameSchema, settingAt, type Frame } from '#core/settings';
import { fromScreen, toScreen, type SlabEyeState } from '../viewport/slabEye';

const props = defineProps<{
  eye: SlabEyeState;
  frame: Frame;
  width: number;
  height: number;
  marginBad: boolean;
  handles: boolean;
}>();
const emit = defineEmits<{ put: [frame: Frame] }>();
type Hold = 'move' | 'size' | 'turn';
let held: { hold: Hold; x: number; y: number; frame: Frame } | null = null;

const corners = computed(() => square(props.frame.side));
const text = (points: readonly (readonly [number, number])[]): string =>
  points.map((p) => p.map((n) => n.toFixed(1)).join(',')).join(' ');
const margin = computed(() => square(props.frame.side * (1 - 2 * MARGIN_LIMIT)));
const middle = computed(() => toScreen(props.eye, props.width, props.height, props.frame.x, props.frame.y));
const top = computed(() => {
  const [a, b] = [corners.value[2], corners.value[3]];
  const mid = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2] as const;
  const away = Math.hypot(mid[0] - middle.value[0], mid[1] - middle.value[1]) || 1;
  const share = 22 / away;
  return {
    from: mid,
    to: [mid[0] + (mid[0] - middle.value[0]) * share, mid[1] + (mid[1] - middle.value[1]) * share] as const,
  };
});

function square(side: number): [number, number][] {
  const { x, y, turn } = props.frame;
  const a = (turn * Math.PI) / 180;
  const h = side / 2;
  return (
    [
      [-h, -h],
      [h, -h],
      [h, h],
      [-h, h],
    ] as const
  ).map(([u, v]) =>
    toScreen(
      props.eye,
      props.width,
      props.height,
      x + u * Math.cos(a) - v * Math.sin(a),
      y + u * Math.sin(a) + v * Math.cos(a),
    ),
  );
}

function onSlab(e: PointerEvent): [number, number] {
  const box = (e.currentTarget as Element).closest('svg')!.getBoundingClientRect();
  return fromScreen(props.eye, props.width, props.height, e.clientX - box.left, e.clientY - box.top);
}

function take(e: PointerEvent, hold: Hold): void {
  if (e.button !== 0) return;
  const [x, y] = onSlab(e);
  held = { hold, x, y, frame: { ...props.frame } };
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
}

function drag(e: PointerEvent): void {
  if (!held) return;
  const [x, y] = onSlab(e);
  const { frame } = held;
  const { min, max } = settingAt(FrameSchema, 'side');
  if (held.hold === 'move') emit('put', { ...frame, x: frame.x + x - held.x, y: frame.y + y - held.y });
  else if (held.hold === 'size') {
    const before = Math.hypot(held.x - frame.x, held.y - frame.y);
    const side = (frame.side * Math.hypot(x - frame.x, y - frame.y)) / before;
    emit('put', { ...frame, side: Math.max(min, Math.min(max, side)) });
  } else {
    const turn = (Math.atan2(y - frame.y, x - frame.x) * 180) / Math.PI - 90;
    // Whole steps of fifteen degrees are easy to hit.
    const near = Math.round(turn / 15) * 15;
    const next = Math.abs(turn - near) < 3 ? near : Math.round(turn);
    emit('put', { ...frame, turn: ((next + 540) % 360) - 180 });
  }
}
</script>

<template>
  <svg class="frame" :class="{ bad: marginBad, handles }" aria-hidden="true">
    <polygon :points="text(corners)" class="shadow" />
    <polygon :points="text(corners)" />
    <polygon :points="text(margin)" class="margin" />
    <circle :cx="middle[0]" :cy="middle[1]" :r="(frame.side / 2) * eye.scale" class="ring" />
    <g v-if="handles" @pointermove="drag" @pointerup="held = null" @pointercancel="held = null">
      <polygon :points="text(corners)" class="body" @pointerdown.stop.prevent="take($event, 'move')" />
      <line :x1="top.from[0]" :y1="top.from[1]" :x2="top.to[0]" :y2="top.to[1]" class="stem" />
      <circle :cx="top.to[0]" :cy="top.to[1]" r="7" class="grip turn" @pointerdown.stop.prevent="take($event, 'turn')">
        <title>Turn the frame</title>
      </circle>
      <rect
        v-for="(c, i) in corners"
        :key="i"
        :x="c[0] - 6"
        :y="c[1] - 6"
        width="12"
        height="12"
        class="grip"
        @pointerdown.stop.prevent="take($event, 'size')"
      >
        <title>Size the frame</title>
      </rect>
    </g>
  </svg>
</template>

<style scoped>
.frame {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
polygon,
circle {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
.shadow {
  stroke: rgb(255 255 255 / 55%);
  stroke-width: 3;
}
.margin {
  stroke-dasharray: 4 4;
  stroke-width: 1;
  opacity: 0.7;
}
.bad .margin {
  stroke: var(--warn);
  stroke-width: 2;
  opacity: 1;
}
.ring {
  stroke: var(--act-deep);
  stroke-width: 1.4;
  opacity: 0.75;
}
.handles .body {
  fill: color-mix(in srgb, var(--act) 8%, transparent);
  stroke: var(--act);
  pointer-events: all;
  cursor: move;
}
.stem {
  stroke: var(--act);
  stroke-width: 1.4;
}
.grip {
  fill: var(--field);
  stroke: var(--act);
  stroke-width: 2;
  pointer-events: all;
  cursor: nwse-resize;
}
.turn {
  cursor: grab;
}
</style>
