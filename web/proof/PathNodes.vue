<script setup lang="ts">
/** The nodes of the path that is being laid, over the body. Dragged with the pointer; a right click takes one away. */
import { ref } from 'vue';
import PushButton from '../controls/PushButton.vue';

defineProps<{ places: readonly { x: number; y: number; corner: boolean }[]; closed: boolean }>();
const emit = defineEmits<{
  move: [index: number, x: number, y: number];
  remove: [index: number];
  corner: [index: number];
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
    <rect
      v-for="(p, i) in places"
      :key="i"
      :x="p.x - 6"
      :y="p.y - 6"
      width="12"
      height="12"
      :rx="p.corner ? 0 : 6"
      :class="{ held: held === i }"
      @pointerdown.stop="
        held = i;
        ($event.currentTarget as Element).setPointerCapture($event.pointerId);
      "
      @pointermove="drag($event, i)"
      @pointerup="held = null"
      @pointercancel="held = null"
      @contextmenu.stop.prevent="emit('remove', i)"
      @dblclick.stop="emit('corner', i)"
    >
      <title>
        {{ p.corner ? 'Corner' : 'Node' }} {{ i + 1 }}: drag it; a double click makes it
        {{ p.corner ? 'smooth' : 'a corner' }}, a right click takes it away
      </title>
    </rect>
  </svg>
  <div class="hint">
    <template v-if="places.length">
      <PushButton look="main" @click="emit('keep')">Finish the path</PushButton>
      <PushButton :disabled="places.length < 3" :on="closed" @click="emit('close')">
        {{ closed ? 'Open it' : 'Close it' }}
      </PushButton>
      <PushButton @click="emit('abandon')">Cancel</PushButton>
      <span
        >{{ places.length }} {{ places.length === 1 ? 'node' : 'nodes' }} · double click for a corner · Enter keeps, Esc
        abandons, Backspace takes the last away</span
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
rect {
  fill: #fff;
  stroke: var(--act);
  stroke-width: 2.5;
  pointer-events: auto;
  cursor: grab;
  touch-action: none;
}
rect.held,
rect:hover {
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
  user-select: none;
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
