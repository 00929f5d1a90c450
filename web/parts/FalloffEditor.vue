<script setup lang="ts">
/**
 * The falloff: seven shapes and a curve of your own. On the own curve drag nodes, click the line to add one,
 * double-click a node to change corner and smooth, Delete takes it away; arrows move the chosen node.
 */
import { computed, ref } from 'vue';
import { falloffFunction } from '#core/falloff';
import { FALLOFF_KINDS, FalloffSchema, settingAt, type FalloffNode, type FalloffSettings } from '#core/settings';
import SettingSlider from './SettingSlider.vue';

const props = defineProps<{ modelValue: FalloffSettings }>();
const emit = defineEmits<{ 'update:modelValue': [value: FalloffSettings] }>();

const W = 180;
const H = 74;
const PAD = 6;
const LABELS: Record<FalloffSettings['kind'], string> = {
  full: 'Full', plateau: 'Plateau', dome: 'Dome', bell: 'Bell', cone: 'Cone', needle: 'Needle', own: 'Own curve',
};
const svg = ref<SVGSVGElement>();
const chosen = ref<number | null>(null);
let dragged = false;

const x = (rho: number): number => PAD + rho * (W - 2 * PAD);
const y = (f: number): number => H - PAD - f * (H - 2 * PAD);
const line = computed(() => {
  const f = falloffFunction(props.modelValue);
  return Array.from({ length: 91 }, (_, i) => `${x(i / 90).toFixed(2)},${y(f(i / 90)).toFixed(2)}`).join(' ');
});
const own = computed(() => props.modelValue.kind === 'own');

function put(nodes: FalloffNode[], keep: number | null): void {
  emit('update:modelValue', { ...props.modelValue, nodes });
  chosen.value = keep;
}

function setKind(kind: FalloffSettings['kind']): void {
  if (kind !== 'own' || props.modelValue.kind === 'own') return emit('update:modelValue', { ...props.modelValue, kind });
  // The curve of your own begins as the shape that was there.
  const f = falloffFunction(props.modelValue);
  const places = props.modelValue.kind === 'full' ? [0, 1] : props.modelValue.kind === 'plateau' ? [0, props.modelValue.hold, (1 + props.modelValue.hold) / 2, 1] : [0, 0.25, 0.5, 0.75, 1];
  const nodes = places.map((rho) => ({ x: rho, y: Math.round(f(rho) * 1000) / 1000, corner: false }));
  emit('update:modelValue', { ...props.modelValue, kind, nodes });
}

function place(event: MouseEvent): { x: number; y: number } {
  const box = svg.value!.getBoundingClientRect();
  const clamp = (v: number): number => Math.round(Math.max(0, Math.min(1, v)) * 1000) / 1000;
  return {
    x: clamp(((event.clientX - box.left) * (W / box.width) - PAD) / (W - 2 * PAD)),
    y: clamp((H - PAD - (event.clientY - box.top) * (H / box.height)) / (H - 2 * PAD)),
  };
}

function add(event: PointerEvent): void {
  if (!own.value || event.button !== 0) return;
  const at = place(event);
  const nodes = [...props.modelValue.nodes, { ...at, corner: false }].sort((a, b) => a.x - b.x);
  if (nodes.length > 24) return;
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

/** A node stays between its neighbours; the first and the last keep to the centre and the rim. */
function moveTo(index: number, at: { x: number; y: number }): void {
  const nodes = props.modelValue.nodes.map((n) => ({ ...n }));
  const node = nodes[index];
  if (!node) return;
  const last = nodes.length - 1;
  node.y = Math.max(0, Math.min(1, at.y));
  node.x = index === 0 ? 0 : index === last ? 1 : Math.max(nodes[index - 1]!.x + 0.01, Math.min(nodes[index + 1]!.x - 0.01, at.x));
  put(nodes, index);
}

function toggleCorner(index: number): void {
  put(props.modelValue.nodes.map((n, i) => (i === index ? { ...n, corner: !n.corner } : n)), index);
}

function key(event: KeyboardEvent, index: number): void {
  const node = props.modelValue.nodes[index]!;
  const step = event.shiftKey ? 0.1 : 0.01;
  const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
  if (by) moveTo(index, { x: node.x + by[0]!, y: node.y + by[1]! });
  else if (event.key === 'Enter') toggleCorner(index);
  else if ((event.key === 'Delete' || event.key === 'Backspace') && index > 0 && index < props.modelValue.nodes.length - 1) {
    put(props.modelValue.nodes.filter((_, i) => i !== index), null);
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div class="falloff">
    <div class="heading">
      Falloff
      <select class="field" aria-label="Falloff" :value="modelValue.kind" @change="setKind(($event.target as HTMLSelectElement).value as FalloffSettings['kind'])">
        <option v-for="kind in FALLOFF_KINDS" :key="kind" :value="kind">{{ LABELS[kind] }}</option>
      </select>
    </div>
    <svg
      ref="svg" :viewBox="`0 0 ${W} ${H}`" class="curve" :class="{ own }" role="img" :aria-label="`Falloff curve, ${LABELS[modelValue.kind]}`"
      @pointerdown="add" @pointermove="drag" @pointerup="dragged = false" @pointercancel="dragged = false"
      @dblclick="own && chosen !== null && toggleCorner(chosen)"
    >
      <line :x1="x(0)" :x2="x(1)" :y1="y(0.5)" :y2="y(0.5)" class="grid" />
      <polygon :points="`${x(0)},${y(0)} ${line} ${x(1)},${y(0)}`" class="fill" />
      <polyline :points="line" class="line" />
      <template v-if="own">
        <g
          v-for="(node, i) in modelValue.nodes" :key="i" tabindex="0" class="node" :class="{ chosen: chosen === i }"
          @pointerdown.stop="grab($event, i)" @keydown="key($event, i)" @focus="chosen = i"
        >
          <title>{{ node.corner ? 'Corner' : 'Smooth' }} node: {{ (node.y * 100).toFixed(0) }} % at {{ node.x.toFixed(2) }} r. Double-click to change, Delete to take away</title>
          <circle :cx="x(node.x)" :cy="y(node.y)" r="9" fill="transparent" />
          <rect v-if="node.corner" :x="x(node.x) - 3.5" :y="y(node.y) - 3.5" width="7" height="7" />
          <circle v-else :cx="x(node.x)" :cy="y(node.y)" r="4" />
        </g>
      </template>
    </svg>
    <div class="ends"><span>centre</span><span>rim</span></div>
    <SettingSlider
      v-if="modelValue.kind === 'plateau'" style="--label: 40px" :meta="settingAt(FalloffSchema, 'hold')" :model-value="modelValue.hold"
      @update:model-value="emit('update:modelValue', { ...modelValue, hold: $event })"
    />
  </div>
</template>

<style scoped>
.falloff { display: grid; gap: 6px; }
.heading .field { width: 108px; height: 24px; padding: 0 4px; }
.curve { width: 100%; border: 1px solid var(--line); border-radius: var(--r); background: var(--field); display: block; touch-action: none; }
.curve.own { cursor: crosshair; }
.grid { stroke: var(--line-soft); }
.fill { fill: var(--act-wash); }
.line { fill: none; stroke: var(--act); stroke-width: 1.8; }
.node { cursor: grab; outline: none; }
.node rect, .node circle:last-child { fill: var(--ink); }
.node.chosen rect, .node.chosen circle:last-child, .node:focus-visible rect, .node:focus-visible circle:last-child { fill: var(--act); stroke: var(--ink); stroke-width: 1.2; }
.ends { display: flex; justify-content: space-between; font-size: 11px; color: var(--ink-3); margin-top: -3px; }
</style>
