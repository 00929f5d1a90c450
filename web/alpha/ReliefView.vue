<script setup lang="ts">
/** The relief in clay, at its true depth: drag turns it, a held key or the little sun turns the light. */
import { Maximize, Sun } from '@lucide/vue';
import { useResizeObserver } from '@vueuse/core';
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useShortcuts } from '../keys/shortcuts';
import { ReliefScene } from '../viewport/reliefScene';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';

const props = defineProps<{ heights: Float32Array; size: number; relief: number; ground: number }>();
const canvas = ref<HTMLCanvasElement>();
const box = ref<HTMLElement>();
const lighting = ref(false);
let scene: ReliefScene | null = null;
const held = ref(false);

onMounted(() => {
  scene = new ReliefScene(canvas.value!);
  scene.resize(box.value!.clientWidth, box.value!.clientHeight);
  scene.show(props.heights, props.size, props.relief, props.ground);
});
useResizeObserver(box, () => scene?.resize(box.value!.clientWidth, box.value!.clientHeight));
watch(
  () => [props.heights, props.relief, props.ground],
  () => scene?.show(props.heights, props.size, props.relief, props.ground),
);
onBeforeUnmount(() => scene?.dispose());

function move(e: PointerEvent): void {
  if (!held.value && !keyed.value) return;
  if (lighting.value || keyed.value) scene?.turnLight(e.movementX * 0.012, e.movementY * 0.008);
  else scene?.orbit(e.movementX * 0.009, e.movementY * 0.009);
}
const keyed = ref(false);
useShortcuts([
  { command: 'light', what: 'Held: the pointer turns the light of the relief', hold: (now) => (keyed.value = now) },
]);
</script>

<template>
  <div
    ref="box"
    class="relief"
    @pointerdown="
      held = true;
      ($event.currentTarget as HTMLElement).setPointerCapture($event.pointerId);
    "
    @pointermove="move"
    @pointerup="held = false"
    @pointercancel="held = false"
    @wheel.prevent="scene?.zoom(Math.exp(-$event.deltaY * 0.0014))"
  >
    <canvas ref="canvas" aria-label="The relief in clay" role="img" />
    <ToolGroup label="The relief’s view" class="tools" @pointerdown.stop>
      <ToolButton
        look="round"
        :icon="Sun"
        label="Turn the light"
        help="Dragging turns the light"
        command="light"
        :on="lighting"
        @click="lighting = !lighting"
      />
      <ToolButton
        look="round"
        :icon="Maximize"
        label="Reset the view"
        help="From above, light from the upper left"
        @click="scene?.home()"
      />
    </ToolGroup>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.relief {
  position: relative;
  width: 100%;
  height: 100%;
  overflow: hidden;
  border-radius: var(--r);
  background: linear-gradient(var(--view-top), var(--view-bottom));
  cursor: grab;
  touch-action: none;
}
</style>
