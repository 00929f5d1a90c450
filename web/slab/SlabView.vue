<script setup lang="ts">
/**
 * The clay seen straight from above: strokes, mask shapes, set forms and the frame, each taken by the hand that is for
 * it.
 */
import {
  FlipHorizontal2 as MirrorY,
  FlipVertical2 as MirrorX,
  Frame as FrameIcon,
  House,
  Redo2,
  RotateCcw as TurnLeft,
  RotateCw as TurnRight,
  Undo2,
} from '@lucide/vue';
import { useEventListener, useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch, useTemplateRef } from 'vue';
import { setFormReach } from '#core/setForm';
import type { Brush, Symmetry } from '#core/settings';
import { useAdjusting } from '../keys/adjusting';
import { useBrushKeys } from '../keys/brushKeys';
import GuidesMenu from '../controls/GuidesMenu.vue';
import { useShortcuts } from '../keys/shortcuts';
import { hinderedBy, useGuides } from '../controls/useGuides';
import { tellNotice } from '../controls/undoNotice';
import { useFilesDropped } from '../controls/useFilesDropped';
import { useSlabBench } from '../stores/slabBench';
import { useSlabCast } from '../stores/slabCast';
import { useSlabTools } from '../stores/slabTools';
import { ClayView } from '../viewport/clayView';
import { maskDrag } from '../viewport/maskDrag';
import { SlabEye } from '../viewport/slabEye';
import { Fingers } from '../viewport/fingers';
import { StrokeInput } from '../viewport/strokeInput';
import { isMeshFile } from '../workers/meshFiles';
import { useSlabParts } from '../stores/slabParts';
import { useSlabReferences } from '../stores/slabReferences';
import SlabFrame from './SlabFrame.vue';
import SlabOverlay from './SlabOverlay.vue';
import SlabReferences from './SlabReferences.vue';
import { useSlabHands } from './slabHands';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { useLengths } from '../controls/lengths';
import { useTouch } from '../stores/touch';

const bench = useSlabBench();
const cast = useSlabCast();
const tools = useSlabTools();
const references = useSlabReferences();
const parts = useSlabParts();
const sculptor = bench.sculptor!;
const surface = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const size = reactive({ width: 1, height: 1 });
const onClay = ref(false);
const known = ref('');
const taking = ref(false);
let view: ClayView | null = null;
const eye = shallowRef<SlabEye | null>(null);
let input: StrokeInput | null = null;
let fingers: Fingers | null = null;
const drawn = maskDrag(() => eye.value);

const key = computed(() => JSON.stringify([tools.brush, tools.alpha?.blob]));
async function follow(): Promise<void> {
  const wanted = key.value;
  await sculptor
    .use(tools.brush, { form: tools.alpha, tooth: null, parts: [] })
    .catch(() => tellNotice('The brush’s alpha can’t be loaded; it works as a plain form until it is.'));
  known.value = wanted;
  input?.hover();
}
watch(key, follow);

function fit(): void {
  size.width = surface.value!.clientWidth;
  size.height = surface.value!.clientHeight;
  view?.resize(size.width, size.height);
  eye.value?.refit();
}

const guides = useGuides('slab', { mesh: () => sculptor.mesh, moved: () => input?.hover() });
const touch = useTouch();
const adjusting = useAdjusting({
  surface,
  brush: () => tools.brush,
  edit: (change) => tools.edit(change),
  changed: () => input?.hover(),
});
const hands = useSlabHands({
  eye: () => eye.value,
  input: () => input,
  drawn,
  taking,
  settled: (at) => guides.settling.value?.onSlab(at) ?? at,
  fingers: () => fingers?.busy ?? false,
  adjusting: () => adjusting.held.value,
  movesView: touch.moves,
});
onMounted(() => {
  view = new ClayView(canvas.value!, { grazing: true });
  eye.value = new SlabEye(view);
  fit();
  fingers = new Fingers(surface.value!, {
    began: () => hands.drop(),
    moved: (by) => eye.value?.fingers(by),
    rests: () => input?.penDown ?? false,
  });
  guides.begin(view, eye.value);
  input = new StrokeInput({
    surface: surface.value!,
    view,
    eye: eye.value,
    sculptor,
    brush: () => tools.brush,
    symmetry: () => ({ ...bench.doc!.symmetry }),
    ready: () => known.value !== '',
    blocked: hands.blocked,
    movesView: touch.moves,
    settle: (at) => guides.settling.value!.settle(at),
    onStamped: (origin) => guides.settling.value!.stamped(origin),
    onHover: (frame) => (onClay.value = frame !== null),
    onEnd: () => {
      hands.stroked();
      bench.touched();
    },
    onPenWithoutPressure: () => tellNotice('This pen sends no pressure, so strokes are laid at full pressure.'),
  });
  sculptor.onChange = (leaves) => view?.update(leaves);
  sculptor.onReopen = () => {
    view?.show(sculptor.mesh!);
    void cast.reopen();
  };
  view.show(sculptor.mesh!);
  void follow();
});
onBeforeUnmount(() => {
  input?.abandon();
  sculptor.unseen();
  input?.dispose();
  fingers?.dispose();
  view?.dispose();
  view = null;
});
useResizeObserver(surface, fit);

function wheel(e: WheelEvent): void {
  eye.value?.zoom(Math.exp(-e.deltaY * 0.0015), e.offsetX, e.offsetY);
  input?.hover();
}
const place = useTemplateRef<HTMLElement>('place');
const dropping = useFilesDropped(place, (data) => {
  for (const file of data.files) void (isMeshFile(file) ? parts.add(file) : references.add(file));
});
useEventListener(window, 'paste', (e: ClipboardEvent) => {
  for (const file of e.clipboardData?.files ?? []) void references.add(file);
});

const edit = (change: (brush: Brush) => void): void => tools.edit(change);
async function stampAt(x: number, y: number): Promise<void> {
  const at = guides.settling.value?.typed(x, y);
  if (at) await input?.stampAt(at);
  else tellNotice('There is no clay there.');
}
function lookAtChosen(): void {
  const setForm = tools.tab === 'setForms' ? bench.setForms.find(({ id }) => id === tools.setFormId) : undefined;
  if (setForm) eye.value?.lookAt(setForm.x, setForm.y, setFormReach(setForm) * 2);
  else if (bench.doc) {
    const { x, y, side } = bench.doc.cast.frame;
    eye.value?.lookAt(x, y, side);
  }
}
const turnBy = (degrees: number): void => eye.value?.turn((degrees * Math.PI) / 180);
const flip = (side: 'mirrorX' | 'mirrorY'): void =>
  bench.edit((slab) => {
    slab.symmetry[side] = !slab.symmetry[side];
  });
useBrushKeys({
  brush: () => tools.brush,
  edit,
  dig: (down) => {
    taking.value = down;
    input?.setDig(down);
  },
});
useShortcuts([
  {
    command: 'cancel',
    what: 'Cancel the stroke or shape in progress',
    run: () => adjusting.cancel() || hands.abandon(),
  },
  { command: 'smooth', what: 'Held: smooth; tapped: the Smooth brush', hold: hands.holdSmooth },
  { command: 'undo', what: 'Undo the last step', run: () => void bench.undo() },
  { command: 'redo', run: () => void bench.redo() },
  { command: 'mirrorX', run: () => flip('mirrorX') },
  { command: 'mirrorY', run: () => flip('mirrorY') },
  { command: 'takeHold', what: 'Take hold of the frame, and let it go', run: () => (cast.framing = !cast.framing) },
  { command: 'whole', what: 'The whole slab, upright', run: () => eye.value?.home() },
  { command: 'viewLeft', run: () => turnBy(15) },
  { command: 'viewRight', run: () => turnBy(-15) },
  { gesture: 'Right drag', what: 'Pan; with Shift turn; the wheel zooms' },
  {
    command: 'move',
    what: 'Held: a drag anywhere pans; with Shift it turns the view',
    hold: (down) => hands.holdLooking('move', down),
  },
  {
    command: 'zoom',
    hold: (down) => hands.holdLooking('nearer', down),
  },
  { command: 'lookAt', what: 'Look at the chosen set form, or at the frame', run: lookAtChosen },
]);

const marginBad = computed(() => cast.result?.checks.some((c) => c.name === 'margin' && !c.ok) ?? false);
const symmetry = computed<Symmetry>(() => bench.doc!.symmetry);
/** Sizes are read to this, body units. */
const SIZE_STEP = 0.01;
const lengths = useLengths();
const numbers = computed(() => [
  { what: 'size', value: lengths.told(tools.brush.stroke.size, SIZE_STEP) },
  { what: 'depth', value: `${tools.brush.form.depth} %` },
  { what: 'strength', value: `${tools.brush.touch.strength} %` },
  { what: 'turn', value: `${tools.brush.form.turn}°` },
  { what: 'spacing', value: `${tools.brush.stroke.spacing} %` },
]);
</script>

<template>
  <div
    ref="place"
    class="slab"
    :class="{ dropping }"
    :data-strokes="sculptor.state.strokes"
    :data-busy="sculptor.state.busy || known !== key"
    :data-vertices="sculptor.state.vertices"
  >
    <div
      ref="surface"
      class="surface"
      :class="{ over: onClay && !hands.blocked() }"
      @contextmenu.prevent
      @wheel.prevent="wheel"
      @pointerdown="hands.down"
      @pointermove="hands.move"
      @pointerup="hands.up"
      @pointercancel="hands.up"
    >
      <canvas ref="canvas" />
    </div>
    <template v-if="eye && bench.doc">
      <SlabReferences
        :references="bench.doc.references"
        :eye="eye.state"
        v-bind="size"
        :movable="tools.tab === 'pictures'"
        :chosen="tools.referenceId"
        @choose="(id) => (tools.referenceId = id)"
      />
      <SlabFrame
        :eye="eye.state"
        :frame="bench.doc.cast.frame"
        v-bind="size"
        :margin-bad="marginBad"
        :handles="cast.framing"
        @put="
          (frame) =>
            cast.edit((c) => {
              c.frame = frame;
            })
        "
      />
      <SlabOverlay
        :eye="eye.state"
        v-bind="size"
        :symmetry="symmetry"
        :drawn="drawn.state"
        :taking="taking"
        :set-forms="tools.tab === 'setForms' ? bench.setForms : []"
        :chosen="tools.setFormId"
      />
    </template>
    <div class="numbers">
      <span v-for="n in numbers" :key="n.what"
        ><i>{{ n.what }}</i> {{ n.value }}</span
      >
    </div>
    <ToolGroup label="View and steps" class="tools">
      <GuidesMenu
        v-model="guides.guides.value"
        :axes="['X', 'Y']"
        :hindered="hinderedBy(tools.brush)"
        @stamp="stampAt"
      />
      <ToolButton
        look="round"
        :icon="MirrorX"
        label="Mirror left and right"
        command="mirrorX"
        :on="symmetry.mirrorX"
        @click="flip('mirrorX')"
      />
      <ToolButton
        look="round"
        :icon="MirrorY"
        label="Mirror up and down"
        command="mirrorY"
        :on="symmetry.mirrorY"
        @click="flip('mirrorY')"
      />
      <ToolButton
        look="round"
        :icon="FrameIcon"
        label="Take hold of the frame"
        command="takeHold"
        :on="cast.framing"
        @click="cast.framing = !cast.framing"
      />
      <ToolButton look="round" :icon="TurnLeft" label="Turn the view left" command="viewLeft" @click="turnBy(15)" />
      <ToolButton look="round" :icon="TurnRight" label="Turn the view right" command="viewRight" @click="turnBy(-15)" />
      <ToolButton
        look="round"
        :icon="House"
        label="The whole slab"
        help="The whole slab, upright"
        command="whole"
        @click="eye?.home()"
      />
      <ToolButton
        look="round"
        :icon="Undo2"
        label="Undo"
        help="Undo the last step"
        command="undo"
        :disabled="!sculptor.state.canUndo"
        @click="bench.undo()"
      />
      <ToolButton
        look="round"
        :icon="Redo2"
        label="Redo"
        command="redo"
        :disabled="!sculptor.state.canRedo"
        @click="bench.redo()"
      />
    </ToolGroup>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.numbers {
  right: 12px;
  top: auto;
  bottom: 10px;
}
.tools {
  gap: 5px;
}
</style>
