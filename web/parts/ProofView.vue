<script setup lang="ts">
/** The body in clay with the brush at hand on it: strokes, the cursor with the stamp's picture, and the five numbers. */
import { FlipVertical2 as MirrorX, House, Redo2, RotateCcw, Undo2 } from '@lucide/vue';
import { useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { BODIES, BODY_DENSITIES, BODY_LABELS, type BodyDensity, type BodyName } from '#core/mesh';
import type { Alpha, Brush } from '#core/settings';
import { NO_SYMMETRY } from '#core/stroke';
import { useProof } from '../stores/proof';
import { sentence } from '../stores/connection';
import { BodyEye } from '../viewport/bodyEye';
import { ClayView } from '../viewport/clayView';
import { StrokeInput } from '../viewport/strokeInput';
import { shownAlpha } from './alphaPictures';
import { useBrushKeys } from './brushKeys';
import { useShortcuts } from './shortcuts';

const props = defineProps<{ brush: Brush; alpha: Alpha | null }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();

const proof = useProof();
const surface = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const problem = ref<string | null>(null);
const onBody = ref(false);
let view: ClayView | null = null;
let eye: BodyEye | null = null;
let input: StrokeInput | null = null;

/** What the worker knows of: strokes wait until it has the brush and its alpha. */
const usable = ref('');
const key = computed(() => JSON.stringify([props.brush.id, props.brush.form, props.brush.touch, props.brush.stroke, props.alpha?.blob]));

async function follow(): Promise<void> {
  const wanted = key.value;
  try {
    await proof.follow(props.brush, props.alpha);
    usable.value = wanted;
    problem.value = null;
  } catch (error) {
    problem.value = `The brush can’t be tried yet. ${sentence(error)}`;
  }
  input?.hover();
}

async function showForm(): Promise<void> {
  if (!props.alpha) return view?.setForm(null, 0);
  const shown = await shownAlpha(props.alpha).catch(() => null);
  view?.setForm(shown?.greys ?? null, shown?.size ?? 0);
}

onMounted(async () => {
  view = new ClayView(canvas.value!, { grazing: false });
  eye = new BodyEye(view, surface.value!);
  input = new StrokeInput({
    surface: surface.value!, view, eye, sculptor: proof.sculptor,
    brush: () => props.brush, symmetry: () => ({ ...NO_SYMMETRY, mirrorX: proof.mirrorX }),
    ready: () => usable.value !== '' && !proof.opening,
    onHover: (frame) => (onBody.value = frame !== null), onEnd: () => undefined,
    onBeside: (beside) => eye?.leftTurns(beside),
  });
  proof.sculptor.onChange = (leaves) => view?.update(leaves);
  view.resize(surface.value!.clientWidth, surface.value!.clientHeight);
  await proof.start();
  show();
  await Promise.all([follow(), showForm()]);
});
onBeforeUnmount(() => {
  if (input?.abandon() !== true) void proof.sculptor.end();
  proof.sculptor.onChange = () => undefined;
  input?.dispose();
  eye?.dispose();
  view?.dispose();
  view = null;
});
useResizeObserver(surface, () => view?.resize(surface.value!.clientWidth, surface.value!.clientHeight));

function show(): void {
  if (proof.sculptor.mesh) view?.show(proof.sculptor.mesh);
}
watch(() => proof.opened, show);
watch(key, follow);
watch(() => props.alpha?.blob, showForm);

function pickBody(event: Event): void {
  void proof.show((event.target as HTMLSelectElement).value as BodyName, proof.density);
}
function pickDensity(event: Event): void {
  void proof.show(proof.name, Number((event.target as HTMLSelectElement).value) as BodyDensity);
}
const thousands = (n: number): string => (n >= 1e6 ? `${(n / 1e6).toFixed(2)} M` : `${Math.round(n / 1000)} k`);

useBrushKeys({ brush: () => props.brush, edit: (change) => emit('edit', change), dig: (down) => input?.setDig(down) });
useShortcuts([
  { keys: 'Esc', what: 'Abandon the stroke that isn’t released', run: () => void input?.abandon() },
  { keys: 'Ctrl+Z', what: 'Undo the last stroke', run: () => void proof.sculptor.undo() },
  { keys: 'Ctrl+Shift+Z', what: 'Redo', run: () => void proof.sculptor.redo() },
  { keys: 'Ctrl+Y', what: 'Redo', silent: true, run: () => void proof.sculptor.redo() },
  { keys: 'X', what: 'Mirror left and right', run: () => (proof.mirrorX = !proof.mirrorX) },
  { keys: 'H', what: 'View from the front', run: () => eye?.home() },
  { keys: 'Right drag', what: 'Turn the body (or left drag beside it)' },
  { keys: 'Middle drag', what: 'Pan; the wheel goes nearer' },
]);
const numbers = computed(() => [
  { what: 'size', value: (proof.state.dabRadius ?? props.brush.stroke.size).toFixed(2) },
  { what: 'depth', value: `${props.brush.form.depth} %` },
  { what: 'strength', value: `${props.brush.touch.strength} %` },
  { what: 'turn', value: `${props.brush.form.turn}°` },
  { what: 'spacing', value: `${props.brush.stroke.spacing} %` },
]);
</script>

<template>
  <div class="proof" :data-strokes="proof.state.strokes" :data-busy="proof.state.busy || proof.opening || usable !== key" :data-vertices="proof.state.vertices">
    <div ref="surface" class="surface" :class="{ over: onBody }" @contextmenu.prevent><canvas ref="canvas" /></div>
    <div class="numbers">
      <span v-for="n in numbers" :key="n.what"><i>{{ n.what }}</i> {{ n.value }}</span>
    </div>
    <div class="tools">
      <button type="button" :class="{ on: proof.mirrorX }" :aria-pressed="proof.mirrorX" title="Mirror left and right (X)" aria-label="Mirror left and right" @click="proof.mirrorX = !proof.mirrorX"><MirrorX :size="16" /></button>
      <button type="button" :disabled="!proof.state.canUndo" title="Undo the last stroke (Ctrl+Z)" aria-label="Undo" @click="proof.sculptor.undo()"><Undo2 :size="16" /></button>
      <button type="button" :disabled="!proof.state.canRedo" title="Redo (Ctrl+Shift+Z)" aria-label="Redo" @click="proof.sculptor.redo()"><Redo2 :size="16" /></button>
      <button type="button" :disabled="proof.state.strokes === 0" title="Back to the untouched body" aria-label="Back to the untouched body" @click="proof.sculptor.clear()"><RotateCcw :size="16" /></button>
      <button type="button" title="View from the front (H)" aria-label="View from the front" @click="eye?.home()"><House :size="16" /></button>
    </div>
    <div class="body">
      <select aria-label="Body" :value="proof.name" @change="pickBody"><option v-for="b in BODIES" :key="b" :value="b">{{ BODY_LABELS[b] }}</option></select>
      <select aria-label="Density" :value="proof.density" @change="pickDensity">
        <option v-for="d in BODY_DENSITIES" :key="d" :value="d">{{ d === 64 ? 'coarse' : d === 150 ? 'medium' : 'dense' }}</option>
      </select>
      <span>{{ thousands(proof.state.vertices) }} vertices</span>
      <span v-if="proof.state.strokes">{{ proof.state.strokes }} {{ proof.state.strokes === 1 ? 'stroke' : 'strokes' }}, replayed as you change the brush</span>
      <span v-else>Draw on it</span>
    </div>
    <div v-if="proof.opening" class="cover">Making the body…</div>
    <div v-if="problem" class="problem" role="alert">{{ problem }} <button class="btn link" type="button" @click="follow">Try again</button></div>
  </div>
</template>

<style scoped src="./view.css"></style>
