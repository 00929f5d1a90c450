<script setup lang="ts">
/** The two leaves: what you make on the left, what it does on the right. The splitter moves; W widens one leaf. */
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useShortcuts } from './shortcuts';

const props = defineProps<{
  name: string;
  /** Share of the width the left leaf starts with. */
  start: number;
  /** CSS pixels that the left leaf has at the least, so that nothing in it is cut. */
  leftLeast?: number;
  leftLabel: string;
  rightLabel: string;
}>();
const share = useLocalStorage(`leaves-${props.name}`, props.start);
const whole = ref<'both' | 'left' | 'right'>('both');
const box = ref<HTMLElement>();
const dragging = ref(false);

const columns = computed(() => {
  if (whole.value === 'left') return '1fr 0 0';
  if (whole.value === 'right') return '0 0 1fr';
  return `max(${share.value * 100}%, ${props.leftLeast ?? 0}px) 7px minmax(0, 1fr)`;
});

function drag(event: PointerEvent): void {
  if (!dragging.value || !box.value) return;
  const { left, width } = box.value.getBoundingClientRect();
  share.value = Math.max(0.2, Math.min(0.8, (event.clientX - left) / width));
}
useEventListener('pointermove', drag);
useEventListener(['pointerup', 'pointercancel'], () => {
  dragging.value = false;
});

function nudge(event: KeyboardEvent): void {
  const by = event.key === 'ArrowLeft' ? -0.02 : event.key === 'ArrowRight' ? 0.02 : 0;
  if (by !== 0) share.value = Math.max(0.2, Math.min(0.8, share.value + by));
}

function toggle(leaf: 'left' | 'right'): void {
  whole.value = whole.value === leaf ? 'both' : leaf;
}
useShortcuts([
  { keys: 'W', what: `${props.rightLabel} takes the whole width, and back`, run: () => toggle('right') },
  { keys: 'Shift+W', what: `${props.leftLabel} takes the whole width, and back`, run: () => toggle('left') },
]);
</script>

<template>
  <div ref="box" class="pair" :class="{ dragging }" :style="{ gridTemplateColumns: columns }">
    <section class="leaf" :inert="whole === 'right'" :aria-label="leftLabel"><slot name="left" /></section>
    <div
      class="splitter"
      role="separator"
      aria-orientation="vertical"
      tabindex="0"
      title="Drag to share the width; double-click for the usual share"
      :aria-valuenow="Math.round(share * 100)"
      @pointerdown.prevent="dragging = true"
      @dblclick="share = start"
      @keydown="nudge"
    >
      <span />
    </div>
    <section class="leaf" :inert="whole === 'left'" :aria-label="rightLabel"><slot name="right" /></section>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  height: 100%;
  min-height: 0;
}
.leaf {
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
}
.splitter {
  position: relative;
  cursor: col-resize;
  background: var(--line-soft);
  overflow: hidden;
}
.splitter span {
  position: absolute;
  top: 50%;
  left: 1px;
  width: 5px;
  height: 44px;
  margin-top: -22px;
  border-radius: 3px;
  background: var(--ink-3);
}
.splitter:hover span,
.dragging .splitter span {
  background: var(--act);
}
.dragging {
  user-select: none;
}
</style>
