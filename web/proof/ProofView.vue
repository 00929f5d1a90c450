<script setup lang="ts">
/**
 * The body in clay with the brush at hand on it: strokes, the cursor with the stamp's picture, and the five numbers.
 */
import { useLocalStorage, useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch, useTemplateRef } from 'vue';
import type { DabFrame } from '#core/brush';
import type { BrushAlphas } from '#core/stored';
import { paints, worksOf, type Brush } from '#core/settings';
import type { StencilPlace } from '#core/stroke';
import { shownInside } from '../stores/shownAlpha';
import { useShownAlphas } from '../stores/shownAlphas';
import { useAdjusting } from '../keys/adjusting';
import { useBrushKeys } from '../keys/brushKeys';
import { useShortcuts } from '../keys/shortcuts';
import { hinderedBy, useGuides } from '../controls/useGuides';
import { tellNotice } from '../controls/undoNotice';
import { useFilesDropped } from '../controls/useFilesDropped';
import { sentence } from '../stores/connection';
import { usePainting } from '../stores/painting';
import { useProof } from '../stores/proof';
import { BodyEye, type Pose } from '../viewport/bodyEye';
import { ClayView } from '../viewport/clayView';
import { Fingers } from '../viewport/fingers';
import { StrokeInput } from '../viewport/strokeInput';
import { isMeshFile } from '../workers/meshFiles';
import { showPainted } from './showPainted';
import { useColourPicking } from './useColourPicking';
import { useHeldBrushes } from './heldBrushes';
import { CLAYS, useLook } from './looks';
import { usePath } from './pathHand';
import PartTray from './PartTray.vue';
import PieceList from './PieceList.vue';
import { usePartTray } from './usePartTray';
import { useProofPieces } from './useProofPieces';
import LayerList from './LayerList.vue';
import PathNodes from './PathNodes.vue';
import PointerNumbers from './PointerNumbers.vue';
import ProofBody from './ProofBody.vue';
import PictureDialog from './PictureDialog.vue';
import ProofTools from './ProofTools.vue';
import { useProofPicture } from './proofPicture';
import StencilSheet from './StencilSheet.vue';
import { useLight } from './useLight';
import { useLooking } from './useLooking';
import ViewCross from './ViewCross.vue';
import PushButton from '../controls/PushButton.vue';
import WorkLine from '../controls/WorkLine.vue';
import { keyOf } from '../keys/chosen';
import { useTouch } from '../stores/touch';

const props = defineProps<{
  brush: Brush;
  alphas: BrushAlphas;
  /** Another brush was chosen and is on its way: what is drawn now is drawn with that. */
  opening?: boolean;
}>();
/** Where the eye is, shared with a view that looks along. */
const pose = defineModel<Pose | null>('pose', { default: null });
const shownAlphas = useShownAlphas();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();

const proof = useProof();
const painting = usePainting();
const surface = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const problem = ref<string | null>(null);
const hovered = shallowRef<{ frame: DabFrame; at: { x: number; y: number }; turn: number } | null>(null);
const size = ref({ width: 1, height: 1 });
const stencil = useLocalStorage<StencilPlace>('proof-stencil', { x: 0, y: 0, half: 0.5, turnRad: 0 });
const { clay, facets } = useLook();
const nodePlaces = ref<{ x: number; y: number; corner: boolean }[]>([]);
const view = shallowRef<ClayView | null>(null);
let eye: BodyEye | null = null;
let input: StrokeInput | null = null;
let fingers: Fingers | null = null;
/** A finger that is still down set the last node of a path. */
let fingerNode = false;
const picturing = ref(false);
useProofPicture().shownBy(view);
const light = useLight(() => view.value);
const guides = useGuides('proof', { mesh: () => proof.sculptor.mesh, moved: () => input?.hover() });
const looking = useLooking({ eye: () => eye, under: () => hovered.value?.frame.origin ?? null });

/** What the worker knows of: strokes wait until it has the brush and its alphas. */
const usable = ref('');
/** The brush that it is. */
const usableId = ref('');
/** Strokes may begin now; until then what the hand draws waits. */
const ready = computed(
  () =>
    usable.value !== '' &&
    !props.opening &&
    usableId.value === props.brush.id &&
    !proof.opening &&
    !pieces.merging.value,
);
const key = computed(() =>
  JSON.stringify([
    props.brush.id,
    worksOf(props.brush),
    props.alphas.form?.blob,
    props.alphas.tooth?.blob,
    props.alphas.parts.map(({ id, mesh, seat }) => [id, mesh, seat]),
  ]),
);
const held = useHeldBrushes(
  () => props.brush,
  () => input?.hover(),
);
const onPath = computed(
  () => props.brush.stroke.type === 'path' && props.brush.touch.action !== 'move' && !held.held.value,
);
const path = usePath({
  sculptor: proof.sculptor,
  ground: () => pieces.strokes.ground(),
  brush: () => props.brush,
  start: () => ({
    view: eye!.basis(),
    symmetry: symmetry(),
    dig: input?.dig ?? false,
    ...(tray.picked.value === null ? {} : { part: tray.picked.value }),
    ...on(),
    ...(props.brush.stroke.mapping === 'stencil' ? { stencil: eye!.stencil(stencil.value) } : {}),
  }),
});
const tray = usePartTray({
  surface,
  brush: () => props.brush,
  changed: () => input?.hover(),
});
const pieces = useProofPieces({
  surface,
  view,
  eye: () => eye,
  input: () => input,
  brush: () => props.brush,
  alphas: () => props.alphas,
  picked: () => tray.picked.value,
  edit: (change) => emit('edit', change),
  problem,
});
const { hands } = pieces;
const touch = useTouch();
const adjusting = useAdjusting({
  surface,
  brush: () => props.brush,
  edit: (change) => emit('edit', change),
  changed: () => input?.hover(),
});
const picking = useColourPicking({ brush: () => props.brush, edit: (change) => emit('edit', change) });
const symmetry = () => ({ ...proof.symmetry });
/** Pieces that strokes go on, the layer that paint goes on, and whether they keep their settings. */
function on(): { on?: readonly string[]; layer?: { layer: string; mask: boolean }; stays?: boolean } {
  const ids = pieces.strokes.ids();
  const layer = painting.on();
  return { ...(ids ? { on: ids } : {}), ...(layer ? { layer } : {}), ...(proof.follows ? {} : { stays: true }) };
}

async function follow(): Promise<void> {
  const wanted = key.value;
  const { id } = props.brush;
  try {
    await proof.follow(props.brush, props.alphas);
    if (paints(props.brush) && !painting.begun) await painting.begin();
    path.again();
    usable.value = wanted;
    usableId.value = id;
    problem.value = null;
  } catch (error) {
    problem.value = `Couldn’t load this brush yet. ${sentence(error)}`;
    input?.forgetWaiting();
  }
  input?.hover();
}

async function showForm(): Promise<void> {
  const alpha = props.alphas.form;
  if (!alpha) return view.value?.setForm(null, 0);
  const whole = await shownAlphas.of(alpha).catch(() => null);
  const shown = whole && shownInside(whole, props.brush.form);
  if (alpha === props.alphas.form) view.value?.setForm(shown?.greys ?? null, shown?.size ?? 0);
}

function fit(): void {
  size.value = { width: surface.value!.clientWidth, height: surface.value!.clientHeight };
  view.value?.resize(size.value.width, size.value.height);
}

function onHover(frame: DabFrame | null, at: { x: number; y: number } | null): void {
  pieces.hover(input?.stroking || held.held.value ? null : frame);
  if (!frame || !at || !eye) {
    hovered.value = null;
    return;
  }
  const { right, up } = eye.basis();
  const t = frame.tangent;
  const turn =
    (Math.atan2(t[0] * up[0] + t[1] * up[1] + t[2] * up[2], t[0] * right[0] + t[1] * right[1] + t[2] * right[2]) *
      180) /
    Math.PI;
  hovered.value = { frame, at, turn };
}

onMounted(async () => {
  view.value = new ClayView(canvas.value!, { grazing: false });
  eye = new BodyEye(view.value, surface.value!);
  const withStencil = {
    ray: eye.ray.bind(eye),
    basis: eye.basis.bind(eye),
    stencil: () => eye!.stencil(stencil.value),
  };
  eye.onMoved = (next) => {
    pose.value = next;
    looking.moved();
    guides.looked();
  };
  if (pose.value) eye.look(pose.value);
  else eye.setParallel(looking.parallel.value);
  looking.moved();
  fingers = new Fingers(surface.value!, {
    began: () => {
      eye?.leftTurns(false);
      input?.abandon();
      if (fingerNode) void path.remove();
      fingerNode = false;
    },
    moved: (by) => eye?.fingers(by),
    rests: () => input?.penDown ?? false,
  });
  guides.begin(view.value, eye);
  guides.looked();
  input = new StrokeInput({
    surface: surface.value!,
    view: view.value,
    eye: withStencil,
    sculptor: proof.sculptor,
    brush: () => (hands.on.value ? null : (held.inHand() ?? props.brush)),
    symmetry,
    ready: () => ready.value,
    comes: () => (props.opening || problem.value === null) && !pieces.merging.value,
    on: () => pieces.strokes.ids(),
    layer: () => painting.on(),
    stays: () => !proof.follows,
    ground: () => pieces.strokes.ground(),
    blocked: () =>
      picking.held.value ||
      hands.on.value ||
      onPath.value ||
      light.turning.value ||
      looking.held.value ||
      adjusting.held.value ||
      fingers!.busy,
    onHover,
    onEnd: () => undefined,
    part: () => tray.picked.value,
    settle: (at) => guides.settling.value!.settle(at),
    onStamped: (origin) => guides.settling.value!.stamped(origin),
    onBeside: (beside) => eye?.leftTurns(beside),
    movesView: touch.moves,
  });
  view.value.setSymmetry(proof.symmetry);
  proof.sculptor.onChange = (leaves) => view.value?.update(leaves);
  proof.sculptor.onPainted = showPainted(() => view.value, show);
  pieces.begin();
  view.value.onDrawn = placeNodes;
  look();
  fit();
  await proof.start().catch((error: unknown) => (problem.value = sentence(error)));
  show();
  pieces.showAll();
  void proof.sculptor.paint.repaint();
  await Promise.all([follow(), showForm()]);
});
onBeforeUnmount(() => {
  if (path.open.value) void path.abandon();
  else if (input?.abandon() !== true) void proof.sculptor.end();
  proof.sculptor.unseen();
  input?.dispose();
  fingers?.dispose();
  eye?.dispose();
  view.value?.dispose();
  view.value = null;
});
useResizeObserver(surface, fit);

function show(): void {
  if (proof.sculptor.mesh) view.value?.show(proof.sculptor.mesh);
}
function look(): void {
  view.value?.setLook({ ...(CLAYS.find((c) => c.name === clay.value) ?? CLAYS[0]), facets: facets.value });
}
function placeNodes(): void {
  nodePlaces.value = eye
    ? path.nodes.value.map(({ point, corner }) => ({ ...eye!.seen(point), corner: corner ?? false }))
    : [];
}
watch(
  () => !proof.state.textureFits && paints(props.brush),
  (now) => {
    if (now)
      proof.problem =
        'Pieces were merged into this body, and its texture no longer fits it: paint doesn’t hold. Undo the merge, or keep the body and paint on that.';
  },
);
watch(
  () => proof.opened,
  () => paints(props.brush) && usable.value !== '' && void painting.begin(),
);
watch(
  () => [proof.opened, proof.passing],
  () => proof.state.textureSize === 0 && show(),
);
watch(key, follow);
// As soon as it is true: the next press would be the first to ask.
watch(ready, (now) => now && input?.arrived(), { flush: 'post' });
watch(
  () => props.opening,
  (now) => now && path.open.value && void path.keep(),
);
watch(
  () => proof.follows,
  (now) => now && void follow(),
);
watch(pose, (next) => {
  if (next && eye && JSON.stringify(next) !== JSON.stringify(eye.pose)) {
    eye.look(next);
    looking.moved();
  }
});
watch(() => [props.alphas.form?.blob, JSON.stringify(props.brush.form)].join(), showForm);
watch([clay, facets], look);
watch(
  () => proof.symmetry,
  (now) => view.value?.setSymmetry(now),
  { deep: true },
);
watch(path.nodes, placeNodes);
watch(onPath, (now) => {
  if (!now && path.open.value && !held.held.value) void path.keep();
});

/** The first press of a path, and every one after it, sets a node; beside the body a left drag turns it. */
function pressed(e: PointerEvent): void {
  if (picking.held.value && e.button === 0 && eye) {
    const box = surface.value!.getBoundingClientRect();
    void picking.pick(eye.ray(e.clientX - box.left, e.clientY - box.top));
    return;
  }
  if (touch.moves(e)) return eye?.leftTurns(true);
  if (adjusting.held.value || (!fingers?.busy && !looking.held.value && hands.down(e))) return;
  if (
    !onPath.value ||
    e.button !== 0 ||
    fingers?.busy ||
    !eye ||
    light.turning.value ||
    looking.held.value ||
    usable.value === '' ||
    proof.opening
  )
    return;
  const box = surface.value!.getBoundingClientRect();
  const node = path.add(eye.ray(e.clientX - box.left, e.clientY - box.top));
  eye.leftTurns(node < 0);
  fingerNode = node >= 0 && e.pointerType === 'touch';
}
function released(): void {
  fingerNode = false;
  hands.up();
}
/** The box that pieces are chosen in. */
const box = computed(() => {
  const held = hands.held.value;
  if (held?.kind !== 'box') return null;
  const { from, to } = held;
  return {
    left: `${Math.min(from.x, to.x)}px`,
    top: `${Math.min(from.y, to.y)}px`,
    width: `${Math.abs(to.x - from.x)}px`,
    height: `${Math.abs(to.y - from.y)}px`,
  };
});
function moved(e: PointerEvent): void {
  if (!hands.move(e)) light.move(e);
}
async function stampAt(x: number, y: number): Promise<void> {
  const at = guides.settling.value?.typed(x, y);
  if (at) await input?.stampAt(at);
  else tellNotice('There is no clay there in this view.');
}
function undo(): void {
  if (path.open.value) void path.remove();
  else if (!input?.abandon()) void proof.sculptor.undo();
}
async function cut(): Promise<void> {
  try {
    const name = await proof.cutOff(props.brush.card.name);
    if (name) tellNotice(`Cut off: “${name}” is among the bodies.`);
    else
      proof.problem = `No complete face is masked, so there is nothing to cut off. Paint a mask with ${keyOf('mask')} held, or mask what the last stroke raised.`;
  } catch (error) {
    proof.problem = sentence(error);
  }
}
const place = useTemplateRef<HTMLElement>('place');
const dropping = useFilesDropped(place, ({ files: [file] }) => {
  if (file && isMeshFile(file)) void proof.bring(file);
  else if (file) proof.problem = `“${file.name}” isn’t a mesh file. A body can be an OBJ, PLY, STL or GLB file.`;
});

function leave(): void {
  if (proof.making) proof.making.cancel();
  else if (path.open.value) void path.abandon();
  else if (adjusting.cancel() || hands.abandon() || input?.abandon()) return;
  else if (hands.count.value > 0) hands.choose([]);
  else if (hands.on.value) pieces.toggle();
}
useBrushKeys({
  brush: () => props.brush,
  edit: (change) => emit('edit', change),
  dig: (down) => input?.setDig(down),
});
useShortcuts([
  {
    command: 'cancel',
    what: 'Cancel the stroke in progress; let go of the pieces',
    run: leave,
  },
  { command: 'confirm', what: 'Path: finish it', when: () => path.open.value, run: () => void path.keep() },
  {
    command: 'back',
    what: 'Path: remove the last node',
    when: () => path.open.value,
    run: () => void path.remove(),
  },
  { command: 'undo', what: 'Undo the last stroke', run: undo },
  { command: 'redo', run: () => void proof.sculptor.redo() },
  { command: 'mirrorX', run: () => (proof.symmetry.mirrorX = !proof.symmetry.mirrorX) },
  { command: 'invert', what: 'Invert the mask', run: () => void proof.editMask('mask-invert') },
  { command: 'clearMask', run: () => void proof.editMask('mask-clear') },
  { command: 'maskRaised', run: () => void proof.sculptor.maskRaised() },
  { command: 'cut', run: () => void cut() },
  { gesture: 'Right drag', what: 'Turn the body (or left drag beside it)' },
  { gesture: 'Middle drag', what: 'Pan; the wheel zooms' },
]);
</script>

<template>
  <div
    ref="place"
    class="proof"
    :class="{ dropping }"
    :data-strokes="proof.state.strokes"
    :data-busy="proof.state.busy || proof.opening || usable !== key"
    :data-vertices="proof.state.vertices"
    :data-pieces="proof.state.pieces"
    :data-kept="proof.paintDrafted"
  >
    <div
      ref="surface"
      class="surface"
      :class="{ over: hovered }"
      @contextmenu.prevent
      @pointerdown="pressed"
      @pointerup="released"
      @pointercancel="hands.abandon"
      @pointermove="moved"
    >
      <canvas ref="canvas" />
    </div>
    <StencilSheet
      v-if="brush.stroke.mapping === 'stencil'"
      v-model="stencil"
      :form="brush.form"
      :alpha="alphas.form"
      :width="size.width"
      :height="size.height"
    />
    <PathNodes
      v-if="onPath"
      :places="nodePlaces"
      :closed="path.closed.value"
      @move="(i, x, y) => eye && path.move(i, eye.ray(x, y))"
      @remove="path.remove"
      @corner="path.toggleCorner"
      @keep="path.keep()"
      @abandon="path.abandon()"
      @close="path.toggleClosed()"
    />
    <PartTray
      v-if="tray.open.value && hovered"
      :ids="brush.parts.entries.map(({ partId }) => partId)"
      :picked="tray.picked.value"
      :order="brush.parts.order"
      :at="hovered.at"
      :width="size.width"
    />
    <div v-if="box" class="box" :style="box" />
    <PieceList v-if="pieces.listed.value.length > 0" :desk="pieces" />
    <LayerList v-if="painting.begun" />
    <PointerNumbers
      :brush="brush"
      :held="held.held.value"
      :live="hovered && { radius: hovered.frame.radius, turn: hovered.turn }"
      :at="hovered && !onPath ? hovered.at : null"
      :width="size.width"
      :height="size.height"
    />
    <ProofTools
      v-model:guides="guides.guides.value"
      v-model:clay="clay"
      v-model:facets="facets"
      :axes="guides.axes.value"
      :hindered="hinderedBy(brush)"
      :lit="light.turned.value"
      @stamp="stampAt"
      @home="eye?.home()"
      @light="light.reset()"
      @cut="cut"
      @undo="undo"
      @picture="picturing = true"
    />
    <ViewCross
      v-if="looking.basis.value"
      :basis="looking.basis.value"
      :parallel="looking.parallel.value"
      @look="(side) => eye?.from(side)"
      @turn="(dx, dy) => eye?.turn(dx, dy)"
      @toggle="looking.toggle()"
    />
    <ProofBody :brush-id="brush.id" />
    <div v-if="proof.opening" class="cover">
      <WorkLine v-if="proof.making" :work="proof.making" />
      <template v-else>Making the body…</template>
    </div>
    <div v-if="problem || proof.problem" class="problem" role="alert">
      {{ problem ?? proof.problem }}
      <PushButton v-if="problem" look="link" @click="follow">Try again</PushButton
      ><PushButton v-else look="link" @click="proof.problem = null">Dismiss</PushButton>
    </div>
    <PictureDialog v-model:visible="picturing" :name="brush.card.name" :view="view" />
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.proof {
  container-type: inline-size;
}
.box {
  position: absolute;
  border: 1px solid var(--act);
  background: rgb(63 125 113 / 14%);
  pointer-events: none;
}
</style>
