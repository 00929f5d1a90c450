<script setup lang="ts">
/** Reference pictures over the slab: laid on it, see-through, or pinned beside it. They are seen, never cast. */
import type { Reference } from '#core/settings';
import BlobPicture from '../controls/BlobPicture.vue';
import { useSlabBench } from '../stores/slabBench';
import { fromScreen, toScreen, type SlabEyeState } from '../viewport/slabEye';

const props = defineProps<{
  references: readonly Reference[];
  eye: SlabEyeState;
  width: number;
  height: number;
  movable: boolean;
  chosen: string | null;
}>();
const emit = defineEmits<{ choose: [id: string] }>();
const bench = useSlabBench();

/** A picture beside the slab is sized by the view's height, one on it by the slab. */
function place(r: Reference): Record<string, string> {
  const wide = r.pin === 'slab' ? r.size * props.eye.scale : r.size * props.height * 0.3;
  const [x, y] =
    r.pin === 'slab'
      ? toScreen(props.eye, props.width, props.height, r.x, r.y)
      : [(0.5 + r.x) * props.width, (0.5 - r.y) * props.height];
  const turn = r.pin === 'slab' ? -r.turn + (props.eye.turnRad * 180) / Math.PI : -r.turn;
  return {
    width: `${wide}px`,
    height: `${(wide * r.height) / r.width}px`,
    opacity: String(r.opacity / 100),
    transform: `translate(${x}px, ${y}px) translate(-50%, -50%) rotate(${turn}deg)`,
  };
}

let held: { id: string; x: number; y: number } | null = null;
function take(e: PointerEvent, r: Reference): void {
  if (e.button !== 0) return;
  emit('choose', r.id);
  held = { id: r.id, x: e.clientX, y: e.clientY };
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
}
function drag(e: PointerEvent): void {
  if (!held) return;
  const { id } = held;
  const dx = e.clientX - held.x;
  const dy = e.clientY - held.y;
  held = { id, x: e.clientX, y: e.clientY };
  bench.edit((slab) => {
    const r = slab.references.find((one) => one.id === id);
    if (!r) return;
    if (r.pin === 'slab') {
      const [a, b] = toScreen(props.eye, props.width, props.height, r.x, r.y);
      [r.x, r.y] = fromScreen(props.eye, props.width, props.height, a + dx, b + dy);
    } else {
      r.x = Math.max(-0.5, Math.min(0.5, r.x + dx / props.width));
      r.y = Math.max(-0.5, Math.min(0.5, r.y - dy / props.height));
    }
  });
}
</script>

<template>
  <div class="references" :class="{ movable }">
    <BlobPicture
      v-for="r in references"
      :key="r.id"
      :blob="r.blob"
      type="image/webp"
      :alt="`Reference: ${r.name}`"
      :style="place(r)"
      :class="{ chosen: movable && r.id === chosen }"
      draggable="false"
      @pointerdown.stop.prevent="take($event, r)"
      @pointermove="drag"
      @pointerup="held = null"
      @pointercancel="held = null"
    />
  </div>
</template>

<style scoped>
.references {
  position: absolute;
  inset: 0;
  overflow: hidden;
  pointer-events: none;
}
img {
  position: absolute;
  left: 0;
  top: 0;
  transform-origin: center;
  user-select: none;
}
.movable img {
  pointer-events: auto;
  cursor: move;
}
.chosen {
  outline: 2px solid var(--act);
}
</style>
