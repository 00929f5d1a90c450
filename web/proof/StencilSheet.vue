<script setup lang="ts">
/**
 * The stencil: the alpha as a sheet over the view. A held key, or the button, lets the pointer move it; a corner turns
 * and scales it, and so does the wheel. Otherwise strokes go through it.
 */
import { computed, ref, watch } from 'vue';
import type { StencilPlace } from '#core/stroke';
import type { AlphaHead } from '#core/stored';
import type { Brush } from '#core/settings';
import { drawGreys } from '../controls/drawGreys';
import { shownInside } from '../stores/shownAlpha';
import { useShownAlphas } from '../stores/shownAlphas';
import { useShortcuts } from '../keys/shortcuts';
import PushButton from '../controls/PushButton.vue';
import { keyOf } from '../keys/chosen';

const shownAlphas = useShownAlphas();
const props = defineProps<{ alpha: AlphaHead | null; form: Brush['form']; width: number; height: number }>();
const place = defineModel<StencilPlace>({ required: true });
const pinned = ref(false);
const keyed = ref(false);
const moving = computed(() => pinned.value || keyed.value);
const canvas = ref<HTMLCanvasElement>();
let held: { kind: 'move' | 'turn'; x: number; y: number; from: StencilPlace } | null = null;

watch(
  [() => props.alpha?.blob, canvas, () => JSON.stringify(props.form)],
  async () => {
    const { alpha } = props;
    if (!alpha || !canvas.value) return;
    const shown = await shownAlphas.of(alpha).catch(() => null);
    if (shown && canvas.value && alpha === props.alpha) drawGreys(canvas.value, shownInside(shown, props.form));
  },
  { immediate: true },
);

const half = computed(() => props.height / 2);
const middle = computed(() => ({
  x: props.width / 2 + place.value.x * half.value,
  y: half.value - place.value.y * half.value,
}));
const box = computed(() => {
  const side = place.value.half * 2 * half.value;
  return {
    left: `${middle.value.x - side / 2}px`,
    top: `${middle.value.y - side / 2}px`,
    width: `${side}px`,
    height: `${side}px`,
    transform: `rotate(${-place.value.turnRad}rad)`,
  };
});
const least = 0.05;
const most = 3;
const sized = (value: number): number => Math.max(least, Math.min(most, value));

function grab(e: PointerEvent, kind: 'move' | 'turn'): void {
  (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
  held = { kind, x: e.clientX, y: e.clientY, from: { ...place.value } };
}
function drag(e: PointerEvent): void {
  if (!held) return;
  const { from } = held;
  if (held.kind === 'move') {
    place.value = {
      ...from,
      x: from.x + (e.clientX - held.x) / half.value,
      y: from.y - (e.clientY - held.y) / half.value,
    };
    return;
  }
  const view = (e.currentTarget as HTMLElement).closest('.proof')!.getBoundingClientRect();
  const polar = (x: number, y: number) => ({
    r: Math.hypot(x - view.left - middle.value.x, y - view.top - middle.value.y),
    a: Math.atan2(middle.value.y - (y - view.top), x - view.left - middle.value.x),
  });
  const was = polar(held.x, held.y);
  const now = polar(e.clientX, e.clientY);
  const turn = from.turnRad + now.a - was.a;
  place.value = {
    ...from,
    half: sized((from.half * now.r) / Math.max(1, was.r)),
    turnRad: e.shiftKey ? Math.round(turn / (Math.PI / 12)) * (Math.PI / 12) : turn,
  };
}
function wheel(e: WheelEvent): void {
  if (e.shiftKey) place.value = { ...place.value, turnRad: place.value.turnRad - (e.deltaY || e.deltaX) * 0.002 };
  else place.value = { ...place.value, half: sized(place.value.half * Math.exp(-e.deltaY * 0.0012)) };
}
function nudge(change: Partial<StencilPlace>): void {
  place.value = { ...place.value, ...change };
}
useShortcuts([
  {
    command: 'stencil',
    what: 'Held: the pointer moves the stencil; arrows, comma, full stop, + and − too',
    hold: (down) => (keyed.value = down),
  },
  {
    command: 'left',
    what: 'Stencil: left',
    silent: true,
    when: () => moving.value,
    run: () => nudge({ x: place.value.x - 0.02 }),
  },
  {
    command: 'right',
    what: 'Stencil: right',
    silent: true,
    when: () => moving.value,
    run: () => nudge({ x: place.value.x + 0.02 }),
  },
  {
    command: 'up',
    what: 'Stencil: up',
    silent: true,
    when: () => moving.value,
    run: () => nudge({ y: place.value.y + 0.02 }),
  },
  {
    command: 'down',
    what: 'Stencil: down',
    silent: true,
    when: () => moving.value,
    run: () => nudge({ y: place.value.y - 0.02 }),
  },
  {
    command: 'turnLeft',
    what: 'Stencil: turn anticlockwise',
    silent: true,
    when: () => moving.value,
    run: () => nudge({ turnRad: place.value.turnRad + Math.PI / 36 }),
  },
  {
    command: 'turnRight',
    what: 'Stencil: turn clockwise',
    silent: true,
    when: () => moving.value,
    run: () => nudge({ turnRad: place.value.turnRad - Math.PI / 36 }),
  },
  {
    command: 'stencilSmaller',
    silent: true,
    when: () => moving.value,
    run: () => nudge({ half: sized(place.value.half / 1.05) }),
  },
  {
    command: 'stencilLarger',
    silent: true,
    when: () => moving.value,
    run: () => nudge({ half: sized(place.value.half * 1.05) }),
  },
]);
</script>

<template>
  <div class="stencil" :class="{ moving }">
    <div
      v-if="alpha"
      class="sheet"
      :style="box"
      @pointerdown.stop.prevent="grab($event, 'move')"
      @pointermove="drag"
      @pointerup="held = null"
      @pointercancel="held = null"
      @wheel.stop.prevent="wheel"
    >
      <canvas ref="canvas" />
      <i
        v-for="corner in ['lt', 'rt', 'lb', 'rb']"
        :key="corner"
        :class="corner"
        title="Drag to turn and scale; Shift keeps to steps of 15°"
        @pointerdown.stop.prevent="grab($event, 'turn')"
        @pointermove.stop="drag"
        @pointerup.stop="held = null"
        @pointercancel="held = null"
      />
    </div>
    <div class="hint">
      <PushButton :on="pinned" @click="pinned = !pinned">
        {{ pinned ? 'Stroke through it' : 'Move the stencil' }}
      </PushButton>
      <PushButton @click="place = { x: 0, y: 0, half: 0.5, turnRad: 0 }">Put it back</PushButton>
      <span v-if="!alpha">A stencil needs an alpha.</span
      ><span v-else>{{
        moving ? 'drag moves, corners turn and scale, wheel scales' : `hold ${keyOf('stencil')} to move it`
      }}</span>
    </div>
  </div>
</template>

<style scoped>
.stencil {
  position: absolute;
  inset: 0;
  pointer-events: none;
  overflow: hidden;
}
.sheet {
  position: absolute;
  outline: 1.5px dashed #7fd3c3;
  outline-offset: 0;
}
.sheet canvas {
  width: 100%;
  height: 100%;
  display: block;
  opacity: 0.3;
}
.moving .sheet {
  pointer-events: auto;
  cursor: move;
  touch-action: none;
}
.moving .sheet canvas {
  opacity: 0.5;
}
.sheet i {
  display: none;
  position: absolute;
  width: 14px;
  height: 14px;
  border-radius: 50%;
  background: #fff;
  border: 2px solid var(--act);
  cursor: grab;
  touch-action: none;
}
.moving .sheet i {
  display: block;
}
.lt {
  left: -8px;
  top: -8px;
}
.rt {
  right: -8px;
  top: -8px;
}
.lb {
  left: -8px;
  bottom: -8px;
}
.rb {
  right: -8px;
  bottom: -8px;
}
.hint {
  position: absolute;
  left: 12px;
  bottom: 52px;
  display: flex;
  gap: 8px;
  align-items: center;
  pointer-events: auto;
}
.hint .on {
  background: var(--act-wash);
  border-color: var(--act);
}
.hint .push {
  flex: none;
  pointer-events: auto;
}
.hint span {
  background: rgb(28 36 40 / 72%);
  color: #fff;
  border-radius: 12px;
  padding: 3px 10px;
  font-size: 12px;
}
</style>
