<script setup lang="ts">
/** The nodes of the path that is being laid, over the body. Dragged with the pointer; a right click takes one away. */
import { ref } from 'vue';
import PushButton from '../controls/PushButton.vue';

defineProps<{ places: readonly { x: number; y: number }[]; closed: boolean }>();
const emit = defineEmits<{
  move: [index: number, x: number, y: number];
  remove: [index: number];
  keep: [];
  abandon: [];
  close: [];
}>();
const held = ref<number | null>(null);
const box = ref<SVGSVGElement>();

function drag(e: PointerEvent, index: number): void {
  if (held.value !== index) return;
  const view = box.value!.getBoundingClientRect();
  emit('move', index, e.clientX - view.left, e.clientY - view.top);
}
</script>

<template>
  <svg ref="box" class="path">
    <circle
      v-for="(p, i) in places"
      :key="i"
      :cx="p.x"
      :cy="p.y"
      r="6"
      :class="{ held: held === i }"
      @pointerdown.stop="
        held = i;
        ($event.currentTarget as Element).setPointerCapture($event.pointerId);
      "
      @pointermove="drag($event, i)"
      @pointerup="held = null"
      @pointercancel="held = null"
      @contextmenu.stop.prevent="emit('remove', i)"
    >
      <title>Node {{ i + 1 }}: drag it; a right click takes it away</title>
    </circle>
  </svg>
  <div class="hint">
    <template v-if="places.length">
      <PushButton look="main" @click="emit('keep')">Keep the row</PushButton>
      <PushButton :disabled="places.length < 3" :on="closed" @click="emit('close')">
        {{ closed ? 'Open it' : 'Close it' }}
      </PushButton>
      <PushButton @click="emit('abandon')">Abandon</PushButton>
      <span
        >{{ places.length }} {{ places.length === 1 ? 'node' : 'nodes' }} · Enter keeps, Esc abandons, Backspace takes
        the last away</span
      >
    </template>
    <span v-else>click the nodes of the row on the body</span>
  </div>
</template>

<style scoped>
.path {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
circle {
  fill: #fff;
  stroke: var(--act);
  stroke-width: 2.5;
  pointer-events: auto;
  cursor: grab;
  touch-action: none;
}
circle.held,
circle:hover {
  fill: var(--act-wash);
}
.hint {
  position: absolute;
  left: 12px;
  right: 190px;
  bottom: 52px;
  display: flex;
  gap: 8px;
  align-items: center;
  pointer-events: none;
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
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
