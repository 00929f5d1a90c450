<script setup lang="ts">
/**
 * A small cross that turns as the body does. Each end is a side: a click looks from there, a drag turns the body.
 */
import { computed } from 'vue';
import type { View } from '#core/stroke';
import { seenSides, type Side } from '../viewport/sides';
import PushButton from '../controls/PushButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { inHint } from '../keys/chosen';
import { SIDE_COMMANDS } from './useLooking';

const props = defineProps<{ basis: View; parallel: boolean }>();
const emit = defineEmits<{ look: [side: Side['name']]; turn: [dx: number, dy: number]; toggle: [] }>();
const ARM = 25;
const MIDDLE = 40;
/** Fewer pixels than this are a click. */
const CLICK = 4;
const ends = computed(() => seenSides(props.basis));
let drag: { x: number; y: number; far: number } | null = null;

function down(e: PointerEvent): void {
  drag = { x: e.clientX, y: e.clientY, far: 0 };
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
}
function move(e: PointerEvent): void {
  if (!drag) return;
  const [dx, dy] = [e.clientX - drag.x, e.clientY - drag.y];
  drag = { x: e.clientX, y: e.clientY, far: drag.far + Math.hypot(dx, dy) };
  if (drag.far > CLICK) emit('turn', dx, dy);
}
function up(e: PointerEvent): void {
  if (drag && drag.far <= CLICK) {
    const name = document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-side]')?.getAttribute('data-side');
    if (name) emit('look', name as Side['name']);
  }
  drag = null;
}
</script>

<template>
  <ToolGroup label="Where it is looked at from" class="cross">
    <svg
      viewBox="0 0 80 80"
      role="group"
      aria-label="Sides to look from"
      @pointerdown.stop="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="drag = null"
    >
      <circle :cx="MIDDLE" :cy="MIDDLE" r="38" class="ground" />
      <g v-for="{ side, x, y, near } in ends" :key="side.name" :opacity="0.5 + 0.5 * (near + 1) * 0.5">
        <line :x1="MIDDLE" :y1="MIDDLE" :x2="MIDDLE + x * ARM" :y2="MIDDLE + y * ARM" class="arm" />
        <g
          :data-side="side.name"
          role="button"
          tabindex="0"
          :aria-label="side.label"
          class="end"
          :class="{ faced: near > 0.999 }"
          @keydown.enter.prevent="emit('look', side.name)"
          @keydown.space.prevent="emit('look', side.name)"
        >
          <title>{{ side.label }}{{ inHint(SIDE_COMMANDS[side.name]) }}</title>
          <circle :cx="MIDDLE + x * ARM" :cy="MIDDLE + y * ARM" r="10" />
          <text :x="MIDDLE + x * ARM" :y="MIDDLE + y * ARM + 3.5">{{ side.name[0].toUpperCase() }}</text>
        </g>
      </g>
    </svg>
    <PushButton
      small
      :title="
        parallel
          ? `Parallel: nothing gets smaller with distance${inHint('parallel')}`
          : `Perspective, as an eye sees it${inHint('parallel')}`
      "
      @click="emit('toggle')"
      >{{ parallel ? 'Parallel' : 'Perspective' }}</PushButton
    >
  </ToolGroup>
</template>

<style scoped>
.cross {
  position: absolute;
  right: 12px;
  top: 46px;
  display: grid;
  justify-items: center;
  gap: 4px;
}
svg {
  width: 72px;
  height: 72px;
  cursor: grab;
  user-select: none;
  touch-action: none;
}
.ground {
  fill: color-mix(in srgb, var(--page) 34%, transparent);
}
.arm {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.end {
  cursor: pointer;
}
.end circle {
  fill: var(--page);
  stroke: var(--line);
}
.end text {
  font-size: 10px;
  font-weight: 600;
  text-anchor: middle;
  fill: var(--ink-2);
  pointer-events: none;
}
.end:hover circle,
.end.faced circle {
  fill: var(--act);
  stroke: var(--act);
}
.end:hover text,
.end.faced text {
  fill: #fff;
}
</style>
