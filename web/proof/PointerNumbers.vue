<script setup lang="ts">
/** The numbers a sculptor asks for, beside the pointer while it is over the body, otherwise in the corner. */
import { computed } from 'vue';
import { paints, paintsOnly, type Brush } from '#core/settings';
import { useLengths } from '../controls/lengths';

const props = defineProps<{
  brush: Brush;
  held: string | null;
  live: { radius: number; turn: number } | null;
  at: { x: number; y: number } | null;
  width: number;
  height: number;
}>();

/** Sizes are read to this, body units. */
const SIZE_STEP = 0.01;
const lengths = useLengths();
const numbers = computed(() => [
  { what: 'size', value: lengths.told(props.live?.radius ?? props.brush.stroke.size, SIZE_STEP) },
  ...(props.brush.touch.action === 'insert' || paintsOnly(props.brush)
    ? []
    : [
        { what: 'depth', value: `${props.brush.form.depth} %` },
        { what: 'strength', value: `${props.brush.touch.strength} %` },
      ]),
  ...(paints(props.brush) ? [{ what: 'flow', value: `${props.brush.colour.flow} %` }] : []),
  { what: 'turn', value: `${Math.round(props.live?.turn ?? props.brush.form.turn)}°` },
  { what: 'spacing', value: `${props.brush.stroke.spacing} %` },
]);
/** Below and right of the pointer, on the other side where there is no room. */
const place = computed(() => {
  const { at } = props;
  if (!at) return {};
  const left = at.x + 190 > props.width ? at.x - 108 : at.x + 26;
  const top = at.y + 130 > props.height ? at.y - 118 : at.y + 26;
  return { left: `${Math.max(8, left)}px`, top: `${Math.max(8, top)}px` };
});
</script>

<template>
  <dl class="beside" :class="{ near: at, narrow: width < 640 }" :style="place" aria-label="Numbers of the brush">
    <div v-if="held" class="held">{{ held }}</div>
    <div v-for="n in numbers" :key="n.what">
      <dt>{{ n.what }}</dt>
      <dd>{{ n.value }}</dd>
    </div>
  </dl>
</template>

<style scoped>
.beside {
  position: absolute;
  left: 12px;
  top: 10px;
  margin: 0;
  display: grid;
  gap: 0;
  padding: 4px 9px;
  border-radius: var(--r);
  background: rgb(28 36 40 / 72%);
  color: #fff;
  font-size: 11.5px;
  line-height: 1.38;
  pointer-events: none;
  min-width: 84px;
  white-space: nowrap;
}
.beside:not(.near) {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  border-radius: 12px;
  max-width: calc(100% - 300px);
}
.beside.narrow:not(.near) {
  top: 46px;
  max-width: calc(100% - 116px);
}
.beside > div {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
dt {
  color: #c9cfd1;
}
dd {
  margin: 0;
  font-weight: 500;
  font-variant-numeric: tabular-nums;
}
.held {
  font-weight: 600;
  text-transform: capitalize;
}
</style>
