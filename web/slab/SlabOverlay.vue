<script setup lang="ts">
/** What is drawn over the slab: symmetry, the outline of a mask being drawn, and the chosen set form. */
import { computed } from 'vue';
import { setFormPlaces, setFormReach } from '#core/setForm';
import { SLAB_SIDE, type SetForm, type Symmetry } from '#core/settings';
import type { MaskDrag } from '../viewport/maskDrag';
import { shapeOf } from '../viewport/maskDrag';
import { toScreen, type SlabEyeState } from '../viewport/slabEye';

const props = defineProps<{
  eye: SlabEyeState;
  width: number;
  height: number;
  symmetry: Symmetry;
  drawn: MaskDrag['state'];
  taking: boolean;
  setForms: readonly SetForm[];
  chosen: string | null;
}>();
const at = computed(() => (x: number, y: number) => toScreen(props.eye, props.width, props.height, x, y));

const axes = computed(() => {
  const { x, y, mirrorX, mirrorY, copies } = props.symmetry;
  const far = SLAB_SIDE / 2;
  const out: { from: [number, number]; to: [number, number]; mirror: boolean }[] = [];
  if (mirrorX) out.push({ from: at.value(x, -far), to: at.value(x, far), mirror: true });
  if (mirrorY) out.push({ from: at.value(-far, y), to: at.value(far, y), mirror: true });
  for (let k = 0; k < copies && copies > 1; k++) {
    const angle = (2 * Math.PI * k) / copies + Math.PI / 2;
    out.push({
      from: at.value(x + Math.cos(angle) * 0.04, y + Math.sin(angle) * 0.04),
      to: at.value(x + Math.cos(angle) * far, y + Math.sin(angle) * far),
      mirror: false,
    });
  }
  return out;
});
const point = computed(() => at.value(props.symmetry.x, props.symmetry.y));
const shown = computed(() => props.symmetry.copies > 1 || props.symmetry.mirrorX || props.symmetry.mirrorY);

const outline = computed(() => {
  const { kind, points } = props.drawn;
  if (points.length < 2) return '';
  if (kind === 'lasso') return points.map(([x, y]) => at.value(x, y).join(',')).join(' ');
  const shape = shapeOf(kind, points, props.eye.turnRad);
  if (!shape || shape.kind === 'lasso') return '';
  const c = Math.cos(shape.turnRad);
  const s = Math.sin(shape.turnRad);
  const corner = (u: number, v: number): string => at.value(shape.x + u * c - v * s, shape.y + u * s + v * c).join(',');
  if (kind === 'rectangle')
    return [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ]
      .map(([u, v]) => corner(u! * shape.halfWidth, v! * shape.halfHeight))
      .join(' ');
  return Array.from({ length: 48 }, (_, i) =>
    corner(Math.cos((i * Math.PI) / 24) * shape.halfWidth, Math.sin((i * Math.PI) / 24) * shape.halfHeight),
  ).join(' ');
});
const rings = computed(() =>
  props.setForms.flatMap((setForm) =>
    setFormPlaces(setForm).map((place) => ({
      id: setForm.id,
      at: at.value(place.x, place.y),
      r: setFormReach(setForm) * props.eye.scale,
      chosen: setForm.id === props.chosen,
    })),
  ),
);
</script>

<template>
  <svg class="over" aria-hidden="true">
    <line
      v-for="(axis, i) in axes"
      :key="i"
      :x1="axis.from[0]"
      :y1="axis.from[1]"
      :x2="axis.to[0]"
      :y2="axis.to[1]"
      class="axis"
      :class="{ spoke: !axis.mirror }"
    />
    <g v-if="shown" :transform="`translate(${point[0]} ${point[1]})`" class="point">
      <circle r="5" />
      <circle r="1.5" class="dot" />
    </g>
    <circle
      v-for="(ring, i) in rings"
      :key="`p${i}`"
      :cx="ring.at[0]"
      :cy="ring.at[1]"
      :r="ring.r"
      class="set-form"
      :class="{ chosen: ring.chosen }"
    />
    <polygon v-if="outline" :points="outline" class="drawn" :class="{ taking }" />
  </svg>
</template>

<style scoped>
.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.axis {
  stroke: var(--act);
  stroke-width: 1.4;
  stroke-dasharray: 10 5;
}
.spoke {
  stroke-width: 1;
  stroke-dasharray: 2 5;
}
.point circle {
  fill: none;
  stroke: var(--act-deep);
  stroke-width: 1.6;
}
.point .dot {
  fill: var(--act-deep);
}
.set-form {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 3 4;
  opacity: 0.55;
}
.set-form.chosen {
  stroke: var(--act-deep);
  stroke-width: 2;
  stroke-dasharray: none;
  opacity: 1;
}
.drawn {
  fill: rgb(28 36 40 / 18%);
  stroke: var(--ink);
  stroke-width: 1.4;
}
.drawn.taking {
  fill: color-mix(in srgb, var(--field) 35%, transparent);
  stroke-dasharray: 4 3;
}
</style>
