<script lang="ts">
export type Grip = 'move' | 'size' | 'turn';
</script>

<script setup lang="ts">
/** Frames of patches over the view; the chosen one has grips. Those on the far side are faint. */
import { computed } from 'vue';
import type { Vec3 } from '#core/scan';
import type { BodyEye } from '../viewport/bodyEye';
import type { Outline } from './patchOutline';

const props = defineProps<{
  eye: BodyEye;
  /** Counts up when the eye moved. */
  looks: number;
  outlines: readonly Outline[];
  names: readonly string[];
  chosen: string | null;
  /** Nothing can be taken hold of. */
  resting: boolean;
}>();
const emit = defineEmits<{
  take: [e: PointerEvent, id: string, grip: Grip];
  drag: [e: PointerEvent];
  done: [];
}>();

const seen = computed(() => {
  void props.looks;
  const on = (at: Vec3): { x: number; y: number } => props.eye.seen(at);
  const { toward } = props.eye.basis();
  return props.outlines.map((outline, i) => {
    const { out } = outline;
    const corners = outline.corners.map(on);
    return {
      id: outline.id,
      name: props.names[i] ?? '',
      far: out[0] * toward[0] + out[1] * toward[1] + out[2] * toward[2] < -0.05,
      points: outline.rim
        .map(on)
        .map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`)
        .join(' '),
      corners,
      top: {
        from: { x: (corners[2].x + corners[3].x) / 2, y: (corners[2].y + corners[3].y) / 2 },
        to: on(outline.top),
      },
      label: corners.reduce((a, b) => (b.y - b.x * 0.2 < a.y - a.x * 0.2 ? b : a)),
    };
  });
});

function take(e: PointerEvent, id: string, grip: Grip): void {
  // Other buttons move the eye.
  if (e.button !== 0) return;
  e.stopPropagation();
  e.preventDefault();
  emit('take', e, id, grip);
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
}
</script>

<template>
  <svg
    class="frames"
    :class="{ resting }"
    @pointermove="emit('drag', $event)"
    @pointerup="emit('done')"
    @pointercancel="emit('done')"
  >
    <g v-for="frame in seen" :key="frame.id" :class="{ far: frame.far, chosen: frame.id === chosen }">
      <polygon :points="frame.points" class="shadow" />
      <polygon
        :points="frame.points"
        class="body"
        role="button"
        :aria-label="`Patch ${frame.name}`"
        :aria-pressed="frame.id === chosen"
        @pointerdown="take($event, frame.id, 'move')"
      >
        <title>{{ frame.name }}: drag to move it along the surface</title>
      </polygon>
      <text :x="frame.label.x + 4" :y="frame.label.y - 7">{{ frame.name }}</text>
      <template v-if="frame.id === chosen && !frame.far">
        <line :x1="frame.top.from.x" :y1="frame.top.from.y" :x2="frame.top.to.x" :y2="frame.top.to.y" class="stem" />
        <circle
          :cx="frame.top.to.x"
          :cy="frame.top.to.y"
          r="7"
          class="grip turn"
          @pointerdown="take($event, frame.id, 'turn')"
        >
          <title>Turn the patch</title>
        </circle>
        <rect
          v-for="(corner, i) in frame.corners"
          :key="i"
          :x="corner.x - 6"
          :y="corner.y - 6"
          width="12"
          height="12"
          class="grip"
          @pointerdown="take($event, frame.id, 'size')"
        >
          <title>Size the patch</title>
        </rect>
      </template>
    </g>
  </svg>
</template>

<style scoped>
.frames {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
polygon {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
  stroke-linejoin: round;
}
.shadow {
  stroke: rgb(255 255 255 / 60%);
  stroke-width: 3.6;
}
.body {
  fill: color-mix(in srgb, var(--act) 5%, transparent);
  pointer-events: all;
  cursor: move;
}
.body:hover {
  fill: color-mix(in srgb, var(--act) 16%, transparent);
}
.chosen .body {
  stroke: var(--act);
  stroke-width: 2.2;
  fill: color-mix(in srgb, var(--act) 12%, transparent);
}
.far {
  opacity: 0.32;
}
.far .body,
.resting .body,
.resting .grip {
  pointer-events: none;
}
text {
  font-size: 12px;
  font-weight: 600;
  fill: var(--ink);
  stroke: rgb(255 255 255 / 75%);
  stroke-width: 3px;
  paint-order: stroke;
}
.chosen text {
  fill: var(--act-deep);
}
.stem {
  stroke: var(--act);
  stroke-width: 1.6;
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
