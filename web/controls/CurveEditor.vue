<script setup lang="ts">
/**
 * A curve from 0 to 1. Drag nodes, click the field to add one, double-click a node to change corner and smooth,
 * Delete takes it away; arrows move the chosen node.
 */
import { computed, ref } from 'vue';
import type { CurveNode } from '#core/settings';

const props = defineProps<{
  nodes: readonly CurveNode[];
  /** The curve as it is worked with. */
  value: (x: number) => number;
  editable: boolean;
  label: string;
  /** What a node says of itself. */
  describe: (node: CurveNode) => string;
  height?: number;
}>();
const emit = defineEmits<{ 'update:nodes': [nodes: CurveNode[]] }>();

const MOST_NODES = 24;
const W = 180;
const PAD = 6;
const H = computed(() => props.height ?? 74);
const svg = ref<SVGSVGElement>();
const chosen = ref<number | null>(null);
let dragged = false;

const x = (at: number): number => PAD + at * (W - 2 * PAD);
const y = (value: number): number => H.value - PAD - value * (H.value - 2 * PAD);
const line = computed(() =>
  Array.from({ length: 91 }, (_, i) => `${x(i / 90).toFixed(2)},${y(props.value(i / 90)).toFixed(2)}`).join(' '),
);

function put(nodes: CurveNode[], keep: number | null): void {
  emit('update:nodes', nodes);
  chosen.value = keep;
}

function place(event: MouseEvent): { x: number; y: number } {
  const box = svg.value!.getBoundingClientRect();
  const clamp = (v: number): number => Math.round(Math.max(0, Math.min(1, v)) * 1000) / 1000;
  return {
    x: clamp(((event.clientX - box.left) * (W / box.width) - PAD) / (W - 2 * PAD)),
    y: clamp((H.value - PAD - (event.clientY - box.top) * (H.value / box.height)) / (H.value - 2 * PAD)),
  };
}

function add(event: PointerEvent): void {
  if (!props.editable || event.button !== 0) return;
  const at = place(event);
  const nodes = [...props.nodes, { ...at, corner: false }].sort((a, b) => a.x - b.x);
  if (nodes.length > MOST_NODES) return;
  const index = nodes.findIndex((n) => n.x === at.x && n.y === at.y);
  put(nodes, index);
  grab(event, index);
}

function grab(event: PointerEvent, index: number): void {
  chosen.value = index;
  dragged = true;
  svg.value!.setPointerCapture(event.pointerId);
}

function drag(event: PointerEvent): void {
  if (!dragged || chosen.value === null) return;
  moveTo(chosen.value, place(event));
}

/** A node stays between its neighbours; the first and the last keep to their ends. */
function moveTo(index: number, at: { x: number; y: number }): void {
  const nodes = props.nodes.map((n) => ({ ...n }));
  const node = nodes[index];
  if (!node) return;
  const last = nodes.length - 1;
  node.y = Math.max(0, Math.min(1, at.y));
  node.x =
    index === 0
      ? 0
      : index === last
        ? 1
        : Math.max(nodes[index - 1].x + 0.01, Math.min(nodes[index + 1].x - 0.01, at.x));
  put(nodes, index);
}

function toggleCorner(index: number): void {
  put(
    props.nodes.map((n, i) => (i === index ? { ...n, corner: !n.corner } : n)),
    index,
  );
}

function key(event: KeyboardEvent, index: number): void {
  const node = props.nodes[index];
  const step = event.shiftKey ? 0.1 : 0.01;
  const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
  if (by) moveTo(index, { x: node.x + by[0], y: node.y + by[1] });
  else if (event.key === 'Enter') toggleCorner(index);
  else if ((event.key === 'Delete' || event.key === 'Backspace') && index > 0 && index < props.nodes.length - 1) {
    put(
      props.nodes.filter((_, i) => i !== index),
      null,
    );
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <svg
    ref="svg"
    :viewBox="`0 0 ${W} ${H}`"
    class="curve"
    :class="{ own: editable }"
    :role="editable ? 'group' : 'img'"
    :aria-label="label"
    @pointerdown="add"
    @pointermove="drag"
    @pointerup="dragged = false"
    @pointercancel="dragged = false"
    @dblclick="editable && chosen !== null && toggleCorner(chosen)"
  >
    <line :x1="x(0)" :x2="x(1)" :y1="y(0.5)" :y2="y(0.5)" class="grid" />
    <polygon :points="`${x(0)},${y(0)} ${line} ${x(1)},${y(0)}`" class="fill" />
    <polyline :points="line" class="line" />
    <template v-if="editable">
      <g
        v-for="(node, i) in nodes"
        :key="i"
        role="slider"
        tabindex="0"
        :aria-label="`Node ${i + 1} of ${nodes.length}`"
        aria-valuemin="0"
        aria-valuemax="100"
        :aria-valuenow="Math.round(node.y * 100)"
        :aria-valuetext="describe(node)"
        class="node"
        :class="{ chosen: chosen === i }"
        @pointerdown.stop="grab($event, i)"
        @keydown="key($event, i)"
        @focus="chosen = i"
      >
        <title>
          {{ node.corner ? 'Corner' : 'Smooth' }} node: {{ describe(node) }}. Double-click to change, Delete to take
          away
        </title>
        <circle :cx="x(node.x)" :cy="y(node.y)" r="9" fill="transparent" />
        <rect v-if="node.corner" :x="x(node.x) - 3.5" :y="y(node.y) - 3.5" width="7" height="7" />
        <circle v-else :cx="x(node.x)" :cy="y(node.y)" r="4" />
      </g>
    </template>
  </svg>
</template>

<style scoped>
.curve {
  width: 100%;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--field);
  display: block;
  touch-action: none;
  /* Nodes at its ends are pressed beyond them too. */
  overflow: visible;
}
.curve.own {
  cursor: crosshair;
}
.grid {
  stroke: var(--line-soft);
}
.fill {
  fill: var(--act-wash);
}
.line {
  fill: none;
  stroke: var(--act);
  stroke-width: 1.8;
}
.node {
  cursor: grab;
  outline: none;
}
.node rect,
.node circle:last-child {
  fill: var(--ink);
}
.node.chosen rect,
.node.chosen circle:last-child,
.node:focus-visible rect,
.node:focus-visible circle:last-child {
  fill: var(--act);
  stroke: var(--ink);
  stroke-width: 1.2;
}
@media (pointer: coarse) {
  .node circle:first-of-type {
    r: 22px;
  }
}
</style>
