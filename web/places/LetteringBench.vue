<script setup lang="ts">
/** The lettering bench: blocks of text on the left leaf, dragged on their square; relief and casts on the right. */
import { Redo2, Undo2 } from '@lucide/vue';
import { computed, onBeforeUnmount, ref, watch, useTemplateRef, type ComponentPublicInstance } from 'vue';
import type { Lettering } from '#core/settings';
import BenchShell from '../made/BenchShell.vue';
import GreyCanvas from '../made/GreyCanvas.vue';
import LetteringColumn from '../made/LetteringColumn.vue';
import MadePanel from '../made/MadePanel.vue';
import { useShortcuts } from '../keys/shortcuts';
import { useMadeBench } from '../stores/madeBench';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { useFilesDropped } from '../controls/useFilesDropped';

const props = defineProps<{ id: string }>();
const bench = useMadeBench();
const doc = computed(() => bench.doc as Lettering | null);
const chosen = ref<string | null>(null);
const square = ref<HTMLElement>();
const column = ref<InstanceType<typeof LetteringColumn>>();
let held: [number, number] | null = null;
watch(
  () => props.id,
  async (id) => {
    await bench.open(id, 'lettering');
    chosen.value = doc.value?.blocks[0]?.id ?? null;
  },
  { immediate: true },
);
onBeforeUnmount(() => void bench.close());

/** The block whose middle is nearest to the press is taken. */
function down(e: PointerEvent): void {
  const box = square.value!.getBoundingClientRect();
  const at: [number, number] = [((e.clientX - box.left) / box.width) * 100, ((e.clientY - box.top) / box.height) * 100];
  const near = doc.value?.blocks
    .map((b) => ({ id: b.id, d: Math.hypot((b.x - at[0]) * 0.4, b.y - at[1]) }))
    .sort((a, b) => a.d - b.d)[0];
  if (!near) return;
  chosen.value = near.id;
  held = at;
  square.value!.setPointerCapture(e.pointerId);
}
function move(e: PointerEvent): void {
  if (!held) return;
  const box = square.value!.getBoundingClientRect();
  const at: [number, number] = [((e.clientX - box.left) / box.width) * 100, ((e.clientY - box.top) / box.height) * 100];
  const [dx, dy] = [at[0] - held[0], at[1] - held[1]];
  held = at;
  bench.edit(`drag ${chosen.value}`, (made) => {
    const block = made.kind === 'lettering' ? made.blocks.find((b) => b.id === chosen.value) : undefined;
    if (!block) return;
    block.x = Number(Math.max(-50, Math.min(150, block.x + dx)).toFixed(2));
    block.y = Number(Math.max(-50, Math.min(150, block.y + dy)).toFixed(2));
  });
}
const shell = useTemplateRef<ComponentPublicInstance>('shell');
useFilesDropped(
  () => shell.value?.$el as HTMLElement | undefined,
  (data) => void column.value?.takeFont(data.files[0]),
);
useShortcuts([
  { command: 'save', what: 'Save the lettering', run: () => void bench.save() },
  { command: 'undo', what: 'Undo the last change', run: () => bench.undo() },
  { command: 'redo', run: () => bench.redo() },
  { gesture: 'Drag', what: 'Move a block on the square' },
]);
</script>

<template>
  <BenchShell
    ref="shell"
    what="the lettering"
    :leaves="{ name: 'made', start: 0.64, left: 'The lettering', right: 'Its relief' }"
    :source="bench.doc"
    :bench="bench"
  >
    <template #left>
      <div v-if="doc" class="columns">
        <LetteringColumn ref="column" :chosen="chosen" @choose="(id) => (chosen = id)" />
        <div class="made-view" :data-busy="!bench.answer">
          <div
            ref="square"
            class="sheet"
            @pointerdown="down"
            @pointermove="move"
            @pointerup="held = null"
            @pointercancel="held = null"
          >
            <GreyCanvas v-if="bench.answer" :heights="bench.answer.heights" :size="bench.answer.size" />
          </div>
          <ToolGroup label="View and steps" class="tools">
            <ToolButton
              look="round"
              :icon="Undo2"
              label="Undo"
              command="undo"
              :disabled="!bench.past.length"
              @click="bench.undo()"
            />
            <ToolButton
              look="round"
              :icon="Redo2"
              label="Redo"
              command="redo"
              :disabled="!bench.future.length"
              @click="bench.redo()"
            />
          </ToolGroup>
        </div>
      </div>
    </template>
    <template #right><MadePanel bevel /></template>
  </BenchShell>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.columns {
  display: grid;
  height: 100%;
  grid-template-columns: 252px minmax(0, 1fr);
}
.columns > * {
  min-height: 0;
  min-width: 0;
}
.made-view {
  position: relative;
  padding: 14px;
  background: #55585a;
  min-height: 0;
  display: grid;
  place-items: center;
  container-type: size;
}
.sheet {
  width: min(100cqw - 28px, 100cqh - 28px);
  aspect-ratio: 1;
  cursor: move;
  touch-action: none;
  background: #000;
}
</style>
