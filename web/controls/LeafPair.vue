<script setup lang="ts">
/** The two leaves: what you make on the left, what it does on the right. The splitter moves; W widens one leaf. */
import { useElementSize, useLocalStorage } from '@vueuse/core';
import { ElSplitter, ElSplitterPanel } from 'element-plus';
import { computed, ref, watchPostEffect } from 'vue';
import LeafScope from './LeafScope.vue';
import { useShortcuts } from '../keys/shortcuts';

const props = defineProps<{
  name: string;
  /** Share of the width the left leaf starts with. */
  start: number;
  /** CSS pixels that the left leaf has at the least, so that nothing in it is cut. */
  leftLeast?: number;
  leftLabel: string;
  rightLabel: string;
  /** Each leaf has keys of its own: they are those of the leaf that the pointer or the focus was in last. */
  ownKeys?: boolean;
}>();
const hand = ref<'left' | 'right'>('left');
const handIn = (leaf: 'left' | 'right') => ({
  pointerenter: () => (hand.value = leaf),
  pointerdown: () => (hand.value = leaf),
  focusin: () => (hand.value = leaf),
});
/** Neither leaf gets narrower than this share of the width by hand. */
const LEAST = 0.2;
const NUDGE = 0.02;
const share = useLocalStorage(`leaves-${props.name}`, props.start);
const whole = ref<'both' | 'left' | 'right'>('both');
const box = ref<HTMLElement>();
const { width } = useElementSize(box);

const leastPx = computed(() => Math.max(LEAST * width.value, props.leftLeast ?? 0));
const leftPx = computed(() => {
  if (whole.value === 'left') return width.value;
  // Whole pixels: between two fractions of one theirs was seen to go to and fro without an end.
  return whole.value === 'right' ? 0 : Math.round(Math.max(share.value * width.value, leastPx.value));
});

function put(to: number): void {
  share.value = Math.max(LEAST, Math.min(1 - LEAST, to));
}
const onBar = (event: Event): boolean => (event.target as Element).closest('.el-splitter-bar') !== null;
function usual(event: MouseEvent): void {
  if (onBar(event)) share.value = props.start;
}
function nudge(event: KeyboardEvent): void {
  const by = { ArrowLeft: -NUDGE, ArrowRight: NUDGE }[event.key];
  if (by && onBar(event)) put(leftPx.value / width.value + by);
}
/** Theirs is moved by the pointer alone: ours is found by the keyboard and by those who don't see it, too. */
watchPostEffect(() => {
  const bar = width.value > 0 && box.value?.querySelector('.el-splitter-bar');
  if (!(bar instanceof HTMLElement)) return;
  bar.tabIndex = 0;
  bar.title = 'Drag to share the width; double-click for the usual share';
  bar.setAttribute('role', 'separator');
  bar.setAttribute('aria-orientation', 'vertical');
  bar.setAttribute('aria-valuenow', String(Math.round((100 * leftPx.value) / width.value)));
});

function toggle(leaf: 'left' | 'right'): void {
  whole.value = whole.value === leaf ? 'both' : leaf;
}
useShortcuts([
  { command: 'rightLeaf', what: `${props.rightLabel} takes the whole width, and back`, run: () => toggle('right') },
  { command: 'leftLeaf', what: `${props.leftLabel} takes the whole width, and back`, run: () => toggle('left') },
]);
</script>

<template>
  <div ref="box" class="pair" :class="{ whole: whole !== 'both' }" @dblclick="usual" @keydown="nudge">
    <ElSplitter v-if="width > 0" @resize="(_: number, [left]: number[]) => put(left! / width)">
      <ElSplitterPanel :size="leftPx" :min="whole === 'both' ? leastPx : 0">
        <section class="leaf" :inert="whole === 'right'" data-leaf="left" :aria-label="leftLabel" v-on="handIn('left')">
          <LeafScope :here="!ownKeys || hand === 'left'"><slot name="left" /></LeafScope>
        </section>
      </ElSplitterPanel>
      <ElSplitterPanel :min="whole === 'both' ? LEAST * width : 0">
        <section
          class="leaf"
          :inert="whole === 'left'"
          data-leaf="right"
          :aria-label="rightLabel"
          v-on="handIn('right')"
        >
          <LeafScope :here="!ownKeys || hand === 'right'"><slot name="right" /></LeafScope>
        </section>
      </ElSplitterPanel>
    </ElSplitter>
  </div>
</template>

<style scoped>
.pair {
  height: 100%;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
}
.pair :deep(.el-splitter-panel) {
  overflow: hidden;
}
.pair :deep(.el-splitter-panel:first-child) {
  flex-shrink: 0;
}
.leaf {
  position: relative;
  width: 100%;
  height: 100%;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
}
.pair :deep(.el-splitter-bar) {
  flex: none;
  width: 7px !important;
  background: var(--line-soft);
}
.whole :deep(.el-splitter-bar) {
  display: none;
}
.pair :deep(.el-splitter-bar__dragger)::before {
  width: 5px;
  height: 44px;
  border-radius: 3px;
  background: var(--ink-3);
}
.pair :deep(.el-splitter-bar:hover .el-splitter-bar__dragger)::before {
  background: var(--act);
}
</style>
