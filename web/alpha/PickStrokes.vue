<script setup lang="ts">
/** Strokes over the picture: what is inside, drawn through; what is outside, dashed. */
import { computed } from 'vue';
import type { PickStroke } from '#core/settings';

const props = defineProps<{
  strokes: readonly PickStroke[];
  /** Of a place in shares of the longer side, on the view. */
  place: (x: number, y: number) => [number, number];
  /** CSS pixels of the longer side. */
  longer: number;
}>();
const lines = computed(() =>
  props.strokes.map(({ inside, size, points }) => ({
    inside,
    width: Math.max(2, (size / 50) * props.longer),
    path: Array.from({ length: points.length / 2 }, (_, k) => {
      const [x, y] = props.place(points[k * 2], points[k * 2 + 1]);
      return `${x.toFixed(1)},${y.toFixed(1)}`;
    }),
  })),
);
</script>

<template>
  <g class="strokes">
    <g v-for="({ inside, width, path }, i) in lines" :key="i" :class="inside ? 'inside' : 'outside'">
      <polyline :points="[...path, path.at(-1)].join(' ')" class="band" :stroke-width="width" />
      <polyline :points="[...path, path.at(-1)].join(' ')" class="line" />
    </g>
  </g>
</template>

<style scoped>
polyline {
  fill: none;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.inside .band {
  stroke: rgb(127 211 195 / 45%);
}
.inside .line {
  stroke: #e4fff9;
  stroke-width: 2;
}
.outside .band {
  stroke: rgb(20 22 24 / 50%);
}
.outside .line {
  stroke: #fff;
  stroke-width: 2;
  stroke-dasharray: 2 6;
}
</style>
