<script setup lang="ts">
/** The scan in clay with its patches as frames that lie on it: laid by a press, moved, sized and turned by hand. */
import { Frame as FrameIcon, House, Redo2, Rotate3d, Undo2 } from '@lucide/vue';
import { useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch } from 'vue';
import { faceNormal, pick } from '#core/mesh';
import { patchFrame, type Vec3 } from '#core/scan';
import { FrameSchema, settingAt, type Patch } from '#core/settings';
import ToolButton from '../controls/ToolButton.vue';
import { useShortcuts } from '../controls/shortcuts';
import { useLooking } from '../proof/useLooking';
import ViewCross from '../proof/ViewCross.vue';
import { useScanBench } from '../stores/scanBench';
import { BodyEye } from '../viewport/bodyEye';
import { ClayView } from '../viewport/clayView';
import { useFingers } from '../viewport/useFingers';
import { outlineOf, type Outline } from './patchOutline';
import PatchFrames, { type Grip } from './PatchFrames.vue';

const bench = useScanBench();
const surface = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const size = reactive({ width: 1, height: 1 });
const eye = shallowRef<BodyEye | null>(null);
/** Counts up when the eye moved: what lies over the view follows. */
const looks = ref(0);
let view: ClayView | null = null;
let pointer: { x: number; y: number } | null = null;

interface Hit {
  at: Vec3;
  face: Vec3;
}
function hitAt(x: number, y: number): Hit | null {
  const mesh = bench.mesh;
  const hit = mesh && eye.value && pick(mesh, eye.value.ray(x, y));
  return hit ? { at: [hit.x, hit.y, hit.z], face: towardEye(faceNormal(mesh, hit.triangle)) } : null;
}
/** Of a face that is turned away its other side is meant. */
function towardEye(normal: readonly [number, number, number]): Vec3 {
  const { toward } = eye.value!.basis();
  const facing = normal[0] * toward[0] + normal[1] * toward[1] + normal[2] * toward[2];
  const length = Math.hypot(...normal) || 1;
  const sign = (facing < 0 ? -1 : 1) / length;
  return [normal[0] * sign, normal[1] * sign, normal[2] * sign];
}

const looking = useLooking({
  eye: () => eye.value,
  under: () => (pointer ? (hitAt(pointer.x, pointer.y)?.at ?? null) : null),
});
const fingers = useFingers(surface, {
  began: () => abandon(),
  moved: (by) => eye.value?.fingers(by),
});

/** Outlines are draped anew when their patch or the scan changes, not when the eye moves. */
const draped = new Map<string, { key: string; outline: Outline }>();
const outlines = computed(() => {
  const mesh = bench.mesh;
  if (!mesh || !bench.doc) return [];
  return bench.doc.patches.map((patch) => {
    const { turn, side } = patch.cast.frame;
    const key = JSON.stringify([bench.shown, patch.at, patch.normal, turn, side]);
    const known = draped.get(patch.id);
    if (known?.key === key) return known.outline;
    const outline = outlineOf(mesh, patch);
    draped.set(patch.id, { key, outline });
    return outline;
  });
});

/** A patch that is being laid, moved, sized or turned, and how it was before. */
let held: { grip: Grip; patch: Patch; from: { x: number; y: number } } | null = null;
let laid: { id: string; at: Vec3; x: number; y: number } | null = null;

const clampSide = (side: number): number => {
  const { min, max } = settingAt(FrameSchema, 'side');
  return Math.max(min, Math.min(max, side));
};
const placeOf = (e: PointerEvent | MouseEvent): { x: number; y: number } => {
  const box = surface.value!.getBoundingClientRect();
  return { x: e.clientX - box.left, y: e.clientY - box.top };
};

function down(e: PointerEvent): void {
  if (e.button !== 0 || fingers.busy() || !bench.laying || looking.held.value) return;
  const { x, y } = placeOf(e);
  const hit = hitAt(x, y);
  const id = hit && bench.lay(hit.at, hit.face);
  if (!hit || !id) return;
  laid = { id, at: hit.at, x, y };
  eye.value?.leftTurns(false);
  surface.value!.setPointerCapture(e.pointerId);
}

function move(e: PointerEvent): void {
  const { x, y } = placeOf(e);
  pointer = { x, y };
  if (!laid) return eye.value?.leftTurns(!fingers.busy() && !(bench.laying && hitAt(x, y)));
  const far = Math.hypot(x - laid.x, y - laid.y);
  if (far < 6) return;
  const side = clampSide((2 * far) / pixelsPerUnit(laid.at));
  const { id } = laid;
  bench.editPatch(id, 'cast', (patch) => (patch.cast.frame.side = side));
}

/** The patch that was laid lies as the surface under all of it does. */
function up(): void {
  if (laid) bench.level(laid.id);
  laid = null;
}

function abandon(): void {
  if (laid) bench.undo();
  laid = null;
  held = null;
}

function pixelsPerUnit(at: Vec3): number {
  const { right } = eye.value!.basis();
  const step = 0.01;
  const a = eye.value!.seen(at);
  const b = eye.value!.seen([at[0] + right[0] * step, at[1] + right[1] * step, at[2] + right[2] * step]);
  return Math.hypot(a.x - b.x, a.y - b.y) / step;
}

function take(e: PointerEvent, id: string, grip: Grip): void {
  const patch = bench.doc?.patches.find((p) => p.id === id);
  if (!patch || e.button !== 0) return;
  bench.chosenId = id;
  held = { grip, patch: JSON.parse(JSON.stringify(patch)) as Patch, from: placeOf(e) };
}

function drag(e: PointerEvent): void {
  if (!held || !bench.mesh) return;
  const { x, y } = placeOf(e);
  if (Math.hypot(x - held.from.x, y - held.from.y) < 3 && held.grip === 'move') return;
  const { patch } = held;
  const {
    at,
    right,
    up: along,
    out,
  } = patchFrame({ ...patch, cast: { ...patch.cast, frame: { ...patch.cast.frame, turn: 0 } } });
  if (held.grip === 'move') {
    // The place that was taken hold of stays under the pointer.
    const middle = eye.value!.seen(at);
    const hit = hitAt(middle.x + x - held.from.x, middle.y + y - held.from.y);
    if (hit) bench.move(patch.id, hit.at, hit.face);
    return;
  }
  const place = onPlane(x, y, at, out);
  if (!place) return;
  const u = place.reduce((sum, p, k) => sum + (p - at[k]) * right[k], 0);
  const v = place.reduce((sum, p, k) => sum + (p - at[k]) * along[k], 0);
  if (held.grip === 'size') {
    const side = clampSide(Math.hypot(u, v) * Math.SQRT2);
    bench.editPatch(patch.id, 'cast', (p) => (p.cast.frame.side = side));
  } else {
    const turn = (Math.atan2(v, u) * 180) / Math.PI - 90;
    // Whole steps of fifteen degrees are easy to hit.
    const near = Math.round(turn / 15) * 15;
    const next = Math.abs(turn - near) < 3 ? near : Math.round(turn);
    bench.editPatch(patch.id, 'cast', (p) => (p.cast.frame.turn = ((next + 540) % 360) - 180));
  }
}

/** Where the ray through a point of the view meets the frame's plane. */
function onPlane(x: number, y: number, at: Vec3, out: Vec3): Vec3 | null {
  const { origin: o, direction: d } = eye.value!.ray(x, y);
  const slope = d[0] * out[0] + d[1] * out[1] + d[2] * out[2];
  if (Math.abs(slope) < 1e-4) return null;
  const t = ((at[0] - o[0]) * out[0] + (at[1] - o[1]) * out[1] + (at[2] - o[2]) * out[2]) / slope;
  return t > 0 ? [o[0] + d[0] * t, o[1] + d[1] * t, o[2] + d[2] * t] : null;
}

/** Looks straight at the chosen patch. */
function face(): void {
  const patch = bench.chosen;
  if (!patch || !eye.value) return;
  const { at, out, side } = patchFrame(patch);
  const far = Math.max(1.2, side * 3);
  const position = [0, 1, 2].map((k) => at[k] + out[k] * far) as [number, number, number];
  eye.value.look({ position, target: [at[0], at[1], at[2]], parallel: eye.value.pose.parallel });
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
  if (bench.mesh) view.show(bench.mesh);
  looking.moved();
});
onBeforeUnmount(() => {
  eye.value?.dispose();
  view?.dispose();
  view = null;
});
useResizeObserver(surface, fit);
watch(
  () => bench.mesh,
  (mesh) => {
    if (mesh) view?.show(mesh);
  },
);

const nudge = (change: (patch: Patch) => void, label: string) => (): void => {
  if (bench.chosen) bench.editPatch(bench.chosen.id, label, change);
};
useShortcuts([
  { keys: 'Esc', what: 'Abandon the patch that is being laid', run: () => (laid ? abandon() : (bench.laying = false)) },
  {
    keys: 'N',
    what: 'Lay a patch: press on the scan and drag out its size',
    run: () => (bench.laying = !bench.laying),
  },
  { keys: 'J', what: 'Look straight at the chosen patch', run: face },
  {
    keys: 'K',
    what: 'Lay the chosen patch as the surface lies',
    run: () => bench.chosen && bench.level(bench.chosen.id),
  },
  { keys: 'Delete', what: 'Take the chosen patch away', run: () => bench.chosen && bench.remove(bench.chosen.id) },
  {
    keys: '[',
    what: 'Smaller patch',
    run: nudge((p) => (p.cast.frame.side = clampSide(p.cast.frame.side / 1.06)), 'cast'),
  },
  {
    keys: ']',
    what: 'Larger patch',
    run: nudge((p) => (p.cast.frame.side = clampSide(p.cast.frame.side * 1.06)), 'cast'),
  },
  {
    keys: ',',
    what: 'Turn the patch left',
    run: nudge((p) => (p.cast.frame.turn = turned(p.cast.frame.turn, 5)), 'cast'),
  },
  {
    keys: '.',
    what: 'Turn the patch right',
    run: nudge((p) => (p.cast.frame.turn = turned(p.cast.frame.turn, -5)), 'cast'),
  },
  { keys: 'Ctrl+Z', what: 'Undo', run: () => bench.undo() },
  { keys: 'Ctrl+Shift+Z', what: 'Redo', run: () => bench.redo() },
  { keys: 'Ctrl+Y', what: 'Redo', silent: true, run: () => bench.redo() },
]);
const turned = (turn: number, by: number): number => ((((turn + by + 180) % 360) + 360) % 360) - 180;
</script>

<template>
  <div
    class="proof scan"
    :class="{ laying: bench.laying }"
    :data-patches="bench.doc?.patches.length ?? 0"
    :data-busy="bench.mesh === null || bench.mending !== null"
  >
    <div
      ref="surface"
      class="surface"
      @contextmenu.prevent
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="abandon"
    >
      <canvas ref="canvas" />
      <PatchFrames
        v-if="eye && bench.mesh"
        :eye="eye"
        :looks="looks"
        :outlines="outlines"
        :names="bench.doc?.patches.map((p) => p.name) ?? []"
        :chosen="bench.chosenId"
        :resting="bench.laying"
        @take="take"
        @drag="drag"
        @done="held = null"
      />
    </div>
    <p v-if="bench.laying && bench.mesh" class="hint" role="status">
      Press on the scan and drag out the patch’s size. Esc leaves it.
    </p>
    <div class="tools">
      <ToolButton
        look="round"
        :icon="FrameIcon"
        label="Lay a patch"
        help="Lay a patch: press on the scan and drag out its size"
        keys="N"
        :on="bench.laying"
        @click="bench.laying = !bench.laying"
      />
      <ToolButton
        look="round"
        :icon="Rotate3d"
        label="Look straight at the patch"
        keys="J"
        :disabled="!bench.chosen"
        @click="face"
      />
      <ToolButton
        look="round"
        :icon="Undo2"
        label="Undo"
        keys="Ctrl+Z"
        :disabled="bench.past.length === 0"
        @click="bench.undo()"
      />
      <ToolButton
        look="round"
        :icon="Redo2"
        label="Redo"
        keys="Ctrl+Shift+Z"
        :disabled="bench.future.length === 0"
        @click="bench.redo()"
      />
      <ToolButton
        look="round"
        :icon="House"
        label="The whole scan"
        help="The whole scan, from the front"
        @click="eye?.home()"
      />
    </div>
    <ViewCross
      v-if="looking.basis.value"
      :basis="looking.basis.value"
      :parallel="looking.parallel.value"
      @look="(side) => (side === 'front' ? eye?.home() : eye?.from(side))"
      @turn="(dx, dy) => eye?.turn(dx, dy)"
      @toggle="looking.toggle"
    />
    <div v-if="!bench.mesh" class="cover" role="status">Laying out the scan…</div>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.laying .surface {
  cursor: crosshair;
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
</style>
