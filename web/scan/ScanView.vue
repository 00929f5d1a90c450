<script setup lang="ts">
/** The scan in clay with its patches as frames that lie on it: laid by a press, moved, sized and turned by hand. */
import { Frame as FrameIcon, House, Redo2, Rotate3d, Undo2 } from '@lucide/vue';
import { useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch } from 'vue';
import { patchFrame } from '#core/scan';
import type { Patch } from '#core/settings';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { useShortcuts } from '../keys/shortcuts';
import { useLooking } from '../proof/useLooking';
import ViewCross from '../proof/ViewCross.vue';
import { useScanBench } from '../stores/scanBench';
import { useScanParts } from '../stores/scanParts';
import { BodyEye } from '../viewport/bodyEye';
import { ClayView } from '../viewport/clayView';
import { useFingers } from '../viewport/useFingers';
import { outlineOf, type Outline } from './patchOutline';
import PatchFrames from './PatchFrames.vue';
import { useCaptureHands } from './useCaptureHands';
import { clampSide, usePatchHands } from './usePatchHands';

const bench = useScanBench();
const parts = useScanParts();
const surface = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const size = reactive({ width: 1, height: 1 });
const eye = shallowRef<BodyEye | null>(null);
/** Counts up when the eye moved: what lies over the view follows. */
const looks = ref(0);
let view: ClayView | null = null;

const hands = usePatchHands({
  eye: () => eye.value,
  surface: () => surface.value!,
  resting: () => fingers.busy() || looking.held.value,
});
const capturing = useCaptureHands({
  eye: () => eye.value,
  surface: () => surface.value!,
  resting: () => fingers.busy() || looking.held.value,
});
const looking = useLooking({ eye: () => eye.value, under: hands.placeUnder });
const fingers = useFingers(surface, { began: abandon, moved: (by) => eye.value?.fingers(by) });

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

function down(e: PointerEvent): void {
  if (!capturing.down(e)) hands.down(e);
}
function move(e: PointerEvent): void {
  if (capturing.move(e)) return;
  if (parts.mode === 'region') eye.value?.leftTurns(false);
  else hands.move(e);
}
function up(): void {
  if (!capturing.up()) hands.up();
}
function abandon(): void {
  if (!capturing.abandon()) hands.abandon();
}
function leave(): void {
  if (capturing.abandon()) return;
  if (parts.mode) parts.mode = null;
  else if (hands.isLaying()) hands.abandon();
  else bench.laying = false;
}
const lassoPoints = computed(() => capturing.lasso.value.map(({ x, y }) => `${x},${y}`).join(' '));

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
  {
    command: 'cancel',
    what: 'Cancel the patch or the lasso',
    run: leave,
  },
  {
    command: 'patch',
    run: () => (bench.laying = !bench.laying),
  },
  { command: 'lookAt', what: 'Look straight at the chosen patch', run: face },
  {
    command: 'level',
    run: () => bench.chosen && bench.level(bench.chosen.id),
  },
  { command: 'remove', what: 'Remove the chosen patch', run: () => bench.chosen && bench.remove(bench.chosen.id) },
  {
    command: 'smaller',
    what: 'Smaller patch',
    run: nudge((p) => (p.cast.frame.side = clampSide(p.cast.frame.side / 1.06)), 'cast'),
  },
  {
    command: 'larger',
    what: 'Larger patch',
    run: nudge((p) => (p.cast.frame.side = clampSide(p.cast.frame.side * 1.06)), 'cast'),
  },
  {
    command: 'turnLeft',
    what: 'Turn the patch left',
    run: nudge((p) => (p.cast.frame.turn = turned(p.cast.frame.turn, 5)), 'cast'),
  },
  {
    command: 'turnRight',
    what: 'Turn the patch right',
    run: nudge((p) => (p.cast.frame.turn = turned(p.cast.frame.turn, -5)), 'cast'),
  },
  { command: 'undo', run: () => bench.undo() },
  { command: 'redo', run: () => bench.redo() },
]);
const turned = (turn: number, by: number): number => ((((turn + by + 180) % 360) + 360) % 360) - 180;
</script>

<template>
  <div
    class="proof scan"
    :class="{ laying: bench.laying || parts.mode }"
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
        :resting="bench.laying || parts.mode !== null"
        @take="hands.take"
        @drag="hands.drag"
        @done="hands.letGo"
      />
      <svg v-if="lassoPoints" class="lasso" aria-hidden="true"><polygon :points="lassoPoints" /></svg>
    </div>
    <p v-if="parts.mode" class="hint" role="status">
      {{
        parts.mode === 'region'
          ? 'Draw round the region that becomes a part, as you see it. Esc leaves it.'
          : 'Press on the component that becomes a part. Esc leaves it.'
      }}
    </p>
    <p v-else-if="bench.laying && bench.mesh" class="hint" role="status">
      Press on the scan and drag out the patch’s size. Esc leaves it.
    </p>
    <ToolGroup label="Patches, view and steps" class="tools">
      <ToolButton
        look="round"
        :icon="FrameIcon"
        label="Lay a patch"
        help="Lay a patch: press on the scan and drag out its size"
        command="patch"
        :on="bench.laying"
        @click="bench.laying = !bench.laying"
      />
      <ToolButton
        look="round"
        :icon="Rotate3d"
        label="Look straight at the patch"
        command="lookAt"
        :disabled="!bench.chosen"
        @click="face"
      />
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
      <ToolButton
        look="round"
        :icon="House"
        label="The whole scan"
        help="The whole scan, from the front"
        @click="eye?.home()"
      />
    </ToolGroup>
    <ViewCross
      v-if="looking.basis.value"
      :basis="looking.basis.value"
      :parallel="looking.parallel.value"
      @look="(side) => (side === 'front' ? eye?.home() : eye?.from(side))"
      @turn="(dx, dy) => eye?.turn(dx, dy)"
      @toggle="looking.toggle"
    />
    <div v-if="!bench.mesh" class="cover" role="status">Preparing the scan…</div>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.lasso {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.lasso polygon {
  fill: rgb(255 255 255 / 18%);
  stroke: #fff;
  stroke-width: 1.5px;
  stroke-dasharray: 5 4;
}
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
