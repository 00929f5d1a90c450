<script setup lang="ts">
/** What of the open step is set on the picture it is given: corners, the lamp, strokes. */
import { computed, ref } from 'vue';
import { useAlphaBench } from '../stores/alphaBench';
import CornerHandles from './CornerHandles.vue';
import LightHandle from './LightHandle.vue';
import PickStrokes from './PickStrokes.vue';
import { onPicture, onSquare, type Shape } from './pictureShape';
import type { pictureEye } from './pictureEye';

const props = defineProps<{
  eye: ReturnType<typeof pictureEye>;
  shape: Shape;
  /** Place of the pointer on the view. */
  back: (e: PointerEvent) => [number, number];
}>();
const bench = useAlphaBench();

const onView = (x: number, y: number): [number, number] => {
  const { at } = props.eye;
  return [at.x + x * at.side, at.y + y * at.side];
};
const place = (u: number, v: number): [number, number] => onView(...onSquare(props.shape, u, v));
const long = (x: number, y: number): [number, number] => {
  const { width, height } = props.shape;
  const longer = Math.max(width, height);
  return place((x * longer) / width, (y * longer) / height);
};
const own = (e: PointerEvent): [number, number] => onPicture(props.shape, ...props.eye.toPicture(...props.back(e))).own;
const middle = computed(() => place(0.5, 0.5));
const radius = computed(
  () =>
    (props.eye.at.side * Math.min(props.shape.width, props.shape.height) * 0.44) /
    Math.max(props.shape.width, props.shape.height),
);

/** Counts drags: each is a step of undo of its own. */
const drag = ref(0);
function put(change: object, held: boolean): void {
  const what = Object.keys(change).join();
  bench.editStep(bench.step!.id, (step) => Object.assign(step, change), held ? `${what} ${drag.value}` : what, {
    held,
  });
}
</script>

<template>
  <svg class="handles" :viewBox="`0 0 ${eye.at.width} ${eye.at.height}`">
    <CornerHandles
      v-if="bench.step?.kind === 'perspective'"
      :corners="bench.step.corners"
      :place="place"
      :back="own"
      @move="(corners, held) => put({ corners }, held)"
      @done="drag++"
    />
    <LightHandle
      v-else-if="bench.step?.kind === 'shading'"
      :light="bench.step.light"
      :middle="middle"
      :radius="radius"
      :back="back"
      @turn="(light, held) => put({ light }, held)"
      @done="drag++"
    />
    <PickStrokes
      v-else-if="bench.step?.kind === 'pickOut'"
      :strokes="bench.step.strokes"
      :place="long"
      :longer="eye.at.side"
    />
  </svg>
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
</style>
