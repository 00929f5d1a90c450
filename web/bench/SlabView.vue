<script setup lang="ts">
/** The slab seen straight from above, with its frame; strokes go to its clay. */
import { FlipHorizontal2 as MirrorY, FlipVertical2 as MirrorX, House, Redo2, RotateCcw as TurnLeft, RotateCw as TurnRight, Undo2 } from '@lucide/vue';
import { useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, reactive, ref, shallowRef, watch } from 'vue';
import { checkMargin } from '#core/checks';
import type { Brush } from '#core/settings';
import { NO_SYMMETRY } from '#core/stroke';
import { useBrushKeys } from '../parts/brushKeys';
import { useShortcuts } from '../parts/shortcuts';
import { useSlabBench } from '../stores/slabBench';
import { useSlabTools } from '../stores/slabTools';
import { ClayView } from '../viewport/clayView';
import { SlabEye } from '../viewport/slabEye';
import { StrokeInput } from '../viewport/strokeInput';
import SlabFrame from './SlabFrame.vue';

const bench = useSlabBench();
const tools = useSlabTools();
const sculptor = bench.sculptor!;
const surface = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const size = reactive({ width: 1, height: 1 });
const onClay = ref(false);
const known = ref('');
let view: ClayView | null = null;
const eye = shallowRef<SlabEye | null>(null);
let input: StrokeInput | null = null;
let dragging: { x: number; y: number; turns: boolean } | null = null;

const key = computed(() => JSON.stringify(tools.brush));
async function follow(): Promise<void> {
  const wanted = key.value;
  await sculptor.use(tools.brush, null);
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
onMounted(() => {
  view = new ClayView(canvas.value!, { grazing: true });
  eye.value = new SlabEye(view);
  fit();
  input = new StrokeInput({
    surface: surface.value!, view, eye: eye.value, sculptor, brush: () => tools.brush, symmetry: () => ({ ...NO_SYMMETRY, mirrorX: tools.mirrorX, mirrorY: tools.mirrorY }),
    ready: () => known.value !== '', onHover: (frame) => (onClay.value = frame !== null), onEnd: () => bench.touched(),
  });
  sculptor.onChange = (leaves) => view?.update(leaves);
  view.show(sculptor.mesh!);
  void follow();
});
onBeforeUnmount(() => {
  input?.abandon();
  sculptor.onChange = () => undefined;
  input?.dispose();
  view?.dispose();
  view = null;
});
useResizeObserver(surface, fit);

function wheel(e: WheelEvent): void {
  eye.value?.zoom(Math.exp(-e.deltaY * 0.0015), e.offsetX, e.offsetY);
  input?.hover();
}
function grab(e: PointerEvent): void {
  if (e.button === 0) return;
  dragging = { x: e.clientX, y: e.clientY, turns: e.button === 2 && e.shiftKey };
  surface.value!.setPointerCapture(e.pointerId);
}
function drag(e: PointerEvent): void {
  if (!dragging) return;
  if (dragging.turns) eye.value?.turn((e.clientX - dragging.x) * 0.008);
  else eye.value?.pan(e.clientX - dragging.x, e.clientY - dragging.y);
  dragging = { ...dragging, x: e.clientX, y: e.clientY };
}

async function undo(): Promise<void> {
  await sculptor.undo();
  bench.touched();
}
async function redo(): Promise<void> {
  await sculptor.redo();
  bench.touched();
}
const edit = (change: (brush: Brush) => void): void => tools.edit(change);
const turnBy = (degrees: number): void => eye.value?.turn((degrees * Math.PI) / 180);
useBrushKeys({ brush: () => tools.brush, edit, dig: (down) => input?.setDig(down) });
useShortcuts([
  { keys: 'Esc', what: 'Abandon the stroke that isn’t released', run: () => void input?.abandon() },
  { keys: 'Ctrl+Z', what: 'Undo the last stroke', run: () => void undo() },
  { keys: 'Ctrl+Shift+Z', what: 'Redo', run: () => void redo() },
  { keys: 'Ctrl+Y', what: 'Redo', silent: true, run: () => void redo() },
  { keys: 'X', what: 'Mirror left and right', run: () => (tools.mirrorX = !tools.mirrorX) },
  { keys: 'Y', what: 'Mirror up and down', run: () => (tools.mirrorY = !tools.mirrorY) },
  { keys: 'H', what: 'The whole slab, upright', run: () => eye.value?.home() },
  { keys: ',', what: 'Turn the view left', run: () => turnBy(15) },
  { keys: '.', what: 'Turn the view right', run: () => turnBy(-15) },
  { keys: 'Right drag', what: 'Pan; with Shift turn; the wheel zooms' },
]);

const margin = computed(() => {
  const { result } = bench;
  return result ? !checkMargin({ width: result.size, height: result.size, data: new Float32Array(0) }, result.margin).ok : false;
});
const numbers = computed(() => [
  { what: 'size', value: tools.brush.stroke.size.toFixed(2) },
  { what: 'depth', value: `${tools.brush.form.depth} %` },
  { what: 'strength', value: `${tools.brush.touch.strength} %` },
  { what: 'spacing', value: `${tools.brush.stroke.spacing} %` },
]);
</script>

<template>
  <div class="slab" :data-strokes="sculptor.state.strokes" :data-busy="sculptor.state.busy || known !== key">
    <div
      ref="surface" class="surface" :class="{ over: onClay }" @contextmenu.prevent @wheel.prevent="wheel" @pointerdown="grab" @pointermove="drag"
      @pointerup="dragging = null" @pointercancel="dragging = null"
    ><canvas ref="canvas" /></div>
    <SlabFrame v-if="eye && bench.doc" :eye="eye.state" :frame="bench.doc.cast.frame" v-bind="size" :mirror-x="tools.mirrorX" :mirror-y="tools.mirrorY" :margin-bad="margin" />
    <div class="numbers"><span v-for="n in numbers" :key="n.what"><i>{{ n.what }}</i> {{ n.value }}</span></div>
    <div class="tools">
      <button type="button" :class="{ on: tools.mirrorX }" :aria-pressed="tools.mirrorX" title="Mirror left and right (X)" aria-label="Mirror left and right" @click="tools.mirrorX = !tools.mirrorX"><MirrorX :size="16" /></button>
      <button type="button" :class="{ on: tools.mirrorY }" :aria-pressed="tools.mirrorY" title="Mirror up and down (Y)" aria-label="Mirror up and down" @click="tools.mirrorY = !tools.mirrorY"><MirrorY :size="16" /></button>
      <button type="button" title="Turn the view left (,)" aria-label="Turn the view left" @click="turnBy(15)"><TurnLeft :size="16" /></button>
      <button type="button" title="Turn the view right (.)" aria-label="Turn the view right" @click="turnBy(-15)"><TurnRight :size="16" /></button>
      <button type="button" title="The whole slab, upright (H)" aria-label="The whole slab" @click="eye?.home()"><House :size="16" /></button>
      <button type="button" :disabled="!sculptor.state.canUndo" title="Undo the last stroke (Ctrl+Z)" aria-label="Undo" @click="undo"><Undo2 :size="16" /></button>
      <button type="button" :disabled="!sculptor.state.canRedo" title="Redo (Ctrl+Shift+Z)" aria-label="Redo" @click="redo"><Redo2 :size="16" /></button>
    </div>
  </div>
</template>

<style scoped src="../parts/view.css"></style>
<style scoped>
.numbers { right: 280px; }
</style>
