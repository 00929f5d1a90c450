<script setup lang="ts">
/** Frame, margin, reach ring and mirror lines drawn over the slab. */
import { computed } from 'vue';
import { MARGIN_LIMIT } from '#core/checks';
import { SLAB_SIDE, type CastSettings } from '#core/settings';
import type { SlabEyeState } from '../viewport/slabEye';

const props = defineProps<{ eye: SlabEyeState; frame: CastSettings['frame']; width: number; height: number; mirrorX: boolean; mirrorY: boolean; marginBad: boolean }>();

const toScreen = computed(() => {
  const c = Math.cos(-props.eye.turnRad);
  const s = Math.sin(-props.eye.turnRad);
  return (x: number, y: number): [number, number] => {
    const dx = (x - props.eye.x) * props.eye.scale;
    const dy = (y - props.eye.y) * props.eye.scale;
    return [props.width / 2 + dx * c - dy * s, props.height / 2 - (dx * s + dy * c)];
  };
});

function square(side: number): string {
  const { x, y, turn } = props.frame;
  const a = (turn * Math.PI) / 180;
  const h = side / 2;
  return [[-h, -h], [h, -h], [h, h], [-h, h]].map(([u, v]) => toScreen.value(
    x + u! * Math.cos(a) - v! * Math.sin(a), y + u! * Math.sin(a) + v! * Math.cos(a),
  ).map((n) => n.toFixed(1)).join(',')).join(' ');
}
const frame = computed(() => square(props.frame.side));
const margin = computed(() => square(props.frame.side * (1 - 2 * MARGIN_LIMIT)));
const middle = computed(() => toScreen.value(props.frame.x, props.frame.y));
const half = SLAB_SIDE / 2;
const axes = computed(() => [
  ...(props.mirrorX ? [[toScreen.value(0, -half), toScreen.value(0, half)] as const] : []),
  ...(props.mirrorY ? [[toScreen.value(-half, 0), toScreen.value(half, 0)] as const] : []),
]);
</script>

<template>
  <svg class="frame" :class="{ bad: marginBad }" aria-hidden="true">
    <polygon :points="frame" class="shadow" /><polygon :points="frame" />
    <polygon :points="margin" class="margin" />
    <circle :cx="middle[0]" :cy="middle[1]" :r="(props.frame.side / 2) * eye.scale" class="ring" />
    <line v-for="(axis, i) in axes" :key="i" :x1="axis[0][0]" :y1="axis[0][1]" :x2="axis[1][0]" :y2="axis[1][1]" class="axis" />
  </svg>
</template>

<style scoped>
.frame { position: absolute; inset: 0; width: 100%; height: 100%; pointer-events: none; }
polygon, circle { fill: none; stroke: var(--ink); stroke-width: 1.4; }
.shadow { stroke: rgb(255 255 255 / 55%); stroke-width: 3; }
.margin { stroke-dasharray: 4 4; stroke-width: 1; opacity: .7; }
.bad .margin { stroke: var(--warn); stroke-width: 2; opacity: 1; }
.ring { stroke: var(--act-deep); stroke-width: 1.4; opacity: .75; }
.axis { stroke: var(--act); stroke-width: 1.4; stroke-dasharray: 10 5; }
</style>
