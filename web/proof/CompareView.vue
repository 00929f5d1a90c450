<script setup lang="ts">
/** The other version of the brush beside the proof: the same body, the same strokes, the same eye. */
import { useResizeObserver } from '@vueuse/core';
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { worksOf, type Brush } from '#core/settings';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { useProof } from '../stores/proof';
import { BodyEye, type Pose } from '../viewport/bodyEye';
import { ClayView } from '../viewport/clayView';
import { Fingers } from '../viewport/fingers';
import { Sculptor } from '../workers/sculptor';
import { heldBrush } from '../stores/heldBrush';
import { CLAYS, type ClayName } from './looks';
import { showPainted } from './showPainted';

const props = defineProps<{ brush: Brush; label: string; clay: ClayName; facets: boolean }>();
const pose = defineModel<Pose | null>('pose', { required: true });
const proof = useProof();
const library = useLibrary();
const surface = ref<HTMLElement>();
const canvas = ref<HTMLCanvasElement>();
const busy = ref(true);
const problem = ref<string | null>(null);
const sculptor = new Sculptor();
let view: ClayView | null = null;
let eye: BodyEye | null = null;
let fingers: Fingers | null = null;
let pending = false;
let running = false;

async function follow(): Promise<void> {
  pending = true;
  if (running) return;
  running = true;
  busy.value = true;
  try {
    while (pending && view) {
      pending = false;
      await redraw();
    }
    problem.value = null;
  } catch (error) {
    problem.value = sentence(error);
  } finally {
    running = false;
    busy.value = false;
  }
}

async function redraw(): Promise<void> {
  const steps = await proof.sculptor.steps();
  for (const id of new Set(steps.flatMap((s) => (s.kind === 'stroke' ? [s.stroke.brushId] : [])))) {
    // Strokes of a held key smooth and mask here too.
    const own = id === props.brush.id ? null : (heldBrush(id, props.brush.stroke.size) ?? (await library.brush(id)));
    if (own) await sculptor.use(own, library.alphasOf(own));
  }
  await sculptor.use(props.brush, library.alphasOf(props.brush));
  await sculptor.drawSteps(steps, props.brush.id);
}

async function open(): Promise<void> {
  await sculptor.open(await proof.openingNow());
  // What is painted was shown with its body.
  if (sculptor.state.textureSize === 0) show();
  await follow();
}
function show(): void {
  if (sculptor.mesh) view?.show(sculptor.mesh);
}

onMounted(async () => {
  view = new ClayView(canvas.value!, { grazing: false });
  eye = new BodyEye(view, surface.value!);
  eye.leftTurns(true);
  fingers = new Fingers(surface.value!, { began: () => eye?.leftTurns(false), moved: (by) => eye?.fingers(by) });
  surface.value!.addEventListener('pointerup', () => fingers?.busy || eye?.leftTurns(true));
  eye.onMoved = (next) => (pose.value = next);
  if (pose.value) eye.look(pose.value);
  sculptor.onChange = (leaves) => view?.update(leaves);
  sculptor.onPainted = showPainted(() => view, show);
  sculptor.onProblem = () => undefined;
  look();
  view.resize(surface.value!.clientWidth, surface.value!.clientHeight);
  await open().catch((error: unknown) => (problem.value = sentence(error)));
});
onBeforeUnmount(() => {
  const gone = view;
  view = null;
  fingers?.dispose();
  eye?.dispose();
  gone?.dispose();
  sculptor.close();
});
useResizeObserver(surface, () => view?.resize(surface.value!.clientWidth, surface.value!.clientHeight));
function look(): void {
  view?.setLook({ ...(CLAYS.find((c) => c.name === props.clay) ?? CLAYS[0]), facets: props.facets });
}
watch(() => [props.clay, props.facets], look);
watch(
  () => [worksOf(props.brush), proof.state.strokes, proof.state.stroking],
  () => {
    if (!proof.state.stroking) void follow();
  },
);
watch(
  () => proof.opened,
  () => void open().catch((error: unknown) => (problem.value = sentence(error))),
);
watch(pose, (next) => {
  if (next && eye && JSON.stringify(next) !== JSON.stringify(eye.pose)) eye.look(next);
});
</script>

<template>
  <div class="compared" :data-busy="busy">
    <div ref="surface" class="surface" @contextmenu.prevent><canvas ref="canvas" /></div>
    <span class="label">{{ label }}</span>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.compared {
  position: relative;
  height: 100%;
  overflow: hidden;
  background: linear-gradient(var(--view-top), var(--view-bottom));
  border-right: 2px solid var(--page);
}
.label {
  position: absolute;
  left: 12px;
  top: 10px;
  background: var(--page);
  color: var(--ink);
  border-radius: 12px;
  padding: 3px 10px;
  font-weight: 600;
  font-size: 12px;
}
</style>
