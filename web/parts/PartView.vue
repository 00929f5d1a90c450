<script setup lang="ts">
/**
 * The part on its seat: a small ground that is bent by its edge, a line between how it was captured and how it is set
 * down, and faces to rest it on.
 */
import { House, Redo2, Undo2 } from '@lucide/vue';
import { useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch } from 'vue';
import { faceNormal, pick } from '#core/mesh';
import { groundRim, seatAlong, seatFromView, snappedSeat, turnedSeat } from '#core/part';
import { spaced } from '#core/words';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { useShortcuts } from '../keys/shortcuts';
import { useLooking } from '../proof/useLooking';
import ViewCross from '../proof/ViewCross.vue';
import { usePartBench } from '../stores/partBench';
import { BodyEye } from '../viewport/bodyEye';
import { ClayView } from '../viewport/clayView';
import { useFingers } from '../viewport/useFingers';
import { fromView } from './fromView';
import { placeOnPart, restUnder, type Picking } from './picking';

const bench = usePartBench();
/** The next press picks the face that the part rests on. */
const picking = defineModel<Picking>('picking', { required: true });
const surface = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const size = reactive({ width: 1, height: 1 });
const eye = shallowRef<BodyEye | null>(null);
/** Counts up when the eye moved: what lies over the view follows. */
const looks = ref(0);
let view: ClayView | null = null;
/** A hand that presses without moving picks; one that moves turns. */
let pressed: { x: number; y: number } | null = null;
const STILL_PX = 4;
const KEY_STEP = 0.05;

const looking = useLooking({ eye: () => eye.value, under: () => null });
const fingers = useFingers(surface, { began: () => (pressed = null), moved: (by) => eye.value?.fingers(by) });

const rim = computed(() => {
  void looks.value;
  return eye.value && bench.after ? eye.value.seen(groundRim(bench.ground.bend)) : null;
});
const lineAt = computed(() => bench.split * size.width);

function home(): void {
  eye.value?.look({ position: [0, 2.1, 3.9], target: [0, 0.2, 0], parallel: eye.value.pose.parallel });
  looking.moved();
  looks.value++;
}
function fit(): void {
  if (!surface.value) return;
  size.width = surface.value.clientWidth;
  size.height = surface.value.clientHeight;
  view?.resize(size.width, size.height);
  looks.value++;
}
onMounted(() => {
  view = new ClayView(canvas.value!, { grazing: false });
  eye.value = new BodyEye(view, surface.value!);
  eye.value.leftTurns(true);
  eye.value.setParallel(looking.parallel.value);
  eye.value.onMoved = () => {
    looking.moved();
    looks.value++;
  };
  fit();
  home();
  show();
});
onBeforeUnmount(() => {
  eye.value?.dispose();
  view?.dispose();
  view = null;
});
useResizeObserver(surface, fit);

function show(): void {
  if (!bench.after || !view) return;
  view.show(bench.after.mesh);
  view.showEdges(bench.after.edges);
  looks.value++;
}
watch(() => bench.after, show);
watch(
  () => [bench.before, bench.split] as const,
  ([before, share]) => view?.showBefore(before?.mesh ?? null, share),
);

/** Ways of the view in the part’s own coordinates. */
const way = (of: readonly [number, number, number]) => fromView(bench.doc!.seat, of);

function seatFromHere(): void {
  if (!eye.value || !bench.doc) return;
  const { toward, up } = eye.value.basis();
  bench.reseat('from the view', (mesh) => seatFromView(mesh, way(toward), way(up)));
  home();
}
defineExpose({ seatFromHere });

function down(e: PointerEvent): void {
  pressed = e.button === 0 ? placeOf(e) : null;
}
function up(e: PointerEvent): void {
  const at = placeOf(e);
  const still = pressed && Math.hypot(at.x - pressed.x, at.y - pressed.y) < STILL_PX;
  pressed = null;
  if (!picking.value || !still || fingers.busy() || !eye.value || !bench.after) return;
  const { mesh } = bench.after;
  const hit = pick(mesh, eye.value.ray(at.x, at.y));
  if (!hit) return;
  if (picking.value === 'rest') {
    const place = bench.raw && placeOnPart(bench.raw, mesh, hit);
    if (place) bench.reseat('rest point', (_, now) => ({ ...now, rest: restUnder(now, place) }));
    if (place) picking.value = null;
    return;
  }
  const normal = faceNormal(mesh, hit.triangle);
  if (!(Math.hypot(...normal) > 0)) return;
  const rests = way([-normal[0], -normal[1], -normal[2]]);
  bench.reseat('on a face', (part, now) => seatAlong(part, rests, now.forward));
  picking.value = null;
}
const placeOf = (e: PointerEvent): { x: number; y: number } => {
  const box = surface.value!.getBoundingClientRect();
  return { x: e.clientX - box.left, y: e.clientY - box.top };
};

let bending: { y: number; from: number } | null = null;
function takeRim(e: PointerEvent): void {
  (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
  bending = { y: e.clientY, from: bench.ground.bend };
}
function dragRim(e: PointerEvent): void {
  if (bending) bench.bend(bending.from + (e.clientY - bending.y) / 120);
}
let sliding = false;
function takeLine(e: PointerEvent): void {
  (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
  sliding = true;
}
function dragLine(e: PointerEvent): void {
  if (!sliding) return;
  const share = (e.clientX - surface.value!.getBoundingClientRect().left) / size.width;
  bench.setSplit(share < 0.015 ? 0 : share);
}
function keyed(e: KeyboardEvent, less: string, more: string, by: (step: number) => void): void {
  if (e.key !== less && e.key !== more) return;
  e.preventDefault();
  by(e.key === more ? KEY_STEP : -KEY_STEP);
}

const QUARTER = Math.PI / 2;
const turn = (angles: { roll?: number; tip?: number; turn?: number }) => (): void =>
  bench.reseat('by angles', (mesh, now) => turnedSeat(mesh, now, { roll: 0, tip: 0, turn: 0, ...angles }));
useShortcuts([
  { command: 'cancel', what: 'Leave picking a face', run: () => (picking.value = null) },
  { command: 'seat', run: seatFromHere },
  { command: 'restFace', run: () => (picking.value = 'face') },
  { command: 'restPlace', run: () => (picking.value = 'rest') },
  { command: 'snapSeat', run: () => bench.reseat('snapped', snappedSeat) },
  { command: 'tip', run: turn({ tip: QUARTER }) },
  { command: 'turnLeft', what: 'Turn it left', run: turn({ turn: Math.PI / 36 }) },
  { command: 'turnRight', what: 'Turn it right', run: turn({ turn: -Math.PI / 36 }) },
  {
    command: 'compare',
    what: 'As it was captured, over all of the view',
    run: () => bench.setSplit(bench.split > 0 ? 0 : 1),
  },
  { command: 'undo', run: () => bench.undo() },
  { command: 'redo', run: () => bench.redo() },
]);
</script>

<template>
  <div class="proof part" :class="{ picking: picking !== null }" :data-busy="bench.after === null || bench.busy">
    <div ref="surface" class="surface" @contextmenu.prevent @pointerdown="down" @pointerup="up">
      <canvas ref="canvas" />
    </div>
    <template v-if="bench.after && bench.doc">
      <div
        v-if="rim"
        class="rim"
        role="slider"
        tabindex="0"
        aria-label="Bend of the ground"
        aria-valuemin="-100"
        aria-valuemax="100"
        :aria-valuenow="Math.round(bench.ground.bend * 100)"
        title="Drag up for a hollow ground, down for a round one; double-click for a flat one"
        :style="{ left: `${rim.x}px`, top: `${rim.y}px` }"
        @pointerdown.prevent.stop="takeRim"
        @pointermove="dragRim"
        @pointerup="bending = null"
        @pointercancel="bending = null"
        @dblclick="bench.bend(0)"
        @keydown="(e: KeyboardEvent) => keyed(e, 'ArrowUp', 'ArrowDown', (by) => bench.bend(bench.ground.bend + by))"
      />
      <div v-if="bench.split > 0" class="line" :style="{ left: `${lineAt}px` }" />
      <div
        class="grip"
        role="slider"
        tabindex="0"
        aria-label="How much is seen as it was captured"
        aria-valuemin="0"
        aria-valuemax="100"
        :aria-valuenow="Math.round(bench.split * 100)"
        title="Drag: as it was captured on the left, as it is set down on the right (V)"
        :style="{ left: `${Math.min(size.width - 14, Math.max(14, lineAt))}px` }"
        @pointerdown.prevent.stop="takeLine"
        @pointermove="dragLine"
        @pointerup="sliding = false"
        @pointercancel="sliding = false"
        @keydown="(e: KeyboardEvent) => keyed(e, 'ArrowLeft', 'ArrowRight', (by) => bench.setSplit(bench.split + by))"
      >
        ‹›
      </div>
      <div class="numbers">
        <span v-if="bench.split > 0"><i>captured</i>{{ spaced(bench.doc.wholeTriangles) }} faces</span>
        <span><i>set down</i>{{ spaced(bench.doc.triangles) }} faces</span>
        <span><i>largest difference</i>{{ bench.doc.error.largest.toFixed(2) }} % of its size</span>
      </div>
    </template>
    <p v-if="picking" class="hint" role="status">
      Click the {{ picking === 'face' ? 'face that it rests on' : 'place under which it rests' }}. Esc leaves it.
    </p>
    <ToolGroup label="View and steps" class="tools">
      <ToolButton
        look="round"
        :icon="Undo2"
        label="Undo"
        command="undo"
        :disabled="bench.past.length === 0"
        @click="bench.undo()"
      />
      <ToolButton
        look="round"
        :icon="Redo2"
        label="Redo"
        command="redo"
        :disabled="bench.future.length === 0"
        @click="bench.redo()"
      />
      <ToolButton look="round" :icon="House" label="The whole part" help="The whole part, from above" @click="home" />
    </ToolGroup>
    <ViewCross
      v-if="looking.basis.value"
      :basis="looking.basis.value"
      :parallel="looking.parallel.value"
      @look="(side) => eye?.from(side)"
      @turn="(dx, dy) => eye?.turn(dx, dy)"
      @toggle="looking.toggle"
    />
    <div v-if="!bench.after" class="cover" role="status">Standing the part on its seat…</div>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.picking .surface {
  cursor: crosshair;
}
.rim,
.grip {
  position: absolute;
  touch-action: none;
}
.rim {
  width: 18px;
  height: 18px;
  margin: -9px;
  border-radius: 50%;
  background: var(--act);
  box-shadow: 0 0 0 2px #fff;
  cursor: ns-resize;
}
.line {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  margin-left: -1px;
  background: #fff;
  pointer-events: none;
}
.grip {
  bottom: 44px;
  width: 26px;
  height: 26px;
  margin-left: -13px;
  border-radius: 13px;
  display: grid;
  place-content: center;
  background: #fff;
  color: var(--act-deep);
  box-shadow: 0 1px 4px rgb(28 36 40 / 40%);
  cursor: ew-resize;
}
.hint {
  position: absolute;
  left: 12px;
  bottom: 12px;
  padding: 5px 12px;
  border-radius: 12px;
  background: rgb(28 36 40 / 82%);
  color: #fff;
  font-size: 12.5px;
  pointer-events: none;
}
@media (pointer: coarse) {
  .grip {
    width: 44px;
    height: 44px;
  }
}
</style>
