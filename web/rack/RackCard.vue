<script setup lang="ts">
/** One brush of the rack. A press opens it; with Ctrl or Shift, or on its tick, it is chosen with others. */
import { Bookmark, Copy, Heart, Pencil, Trash2 } from '@lucide/vue';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { ACTION_CHOICES, labelOf, STROKE_TYPE_CHOICES } from '../bench/labels';
import BrushDisc from '../controls/BrushDisc.vue';
import CutName from '../controls/CutName.vue';
import PushButton from '../controls/PushButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import TickBox from '../controls/TickBox.vue';
import ToolButton from '../controls/ToolButton.vue';
import { useLibrary } from '../stores/library';
import type { Entry } from './entries';

const props = defineProps<{
  entry: Entry;
  belted: boolean;
  beltName: string;
  favourite: boolean;
  chosen: boolean;
  choosing: boolean;
}>();
const emit = defineEmits<{
  press: [e: MouseEvent];
  toggle: [];
  copy: [];
  rename: [];
  remove: [];
  belt: [];
  favourite: [];
}>();
const library = useLibrary();
const brush = computed(() => props.entry.brush);
/** The alpha that it stamps. */
const form = computed(() => {
  const { alphaId } = brush.value.form;
  return alphaId === null ? 'Plain form' : `Form: ${library.alpha(alphaId)?.card.name ?? 'its alpha is gone'}`;
});
/** What can be done to it comes a moment after its picture and its name: many are laid out at a keystroke. */
const settled = ref(false);
let pending = 0;
onMounted(() => (pending = requestIdleCallback(() => (settled.value = true), { timeout: 400 })));
onBeforeUnmount(() => cancelIdleCallback(pending));
</script>

<template>
  <li class="card" :class="{ chosen, choosing }" :data-card="brush.id">
    <PushButton
      look="face"
      class="face"
      :aria-label="`Open ${brush.card.name}`"
      draggable="false"
      @click="(e: MouseEvent) => emit('press', e)"
    >
      <BrushDisc :brush="brush" :size="160" square />
      <span v-if="entry.unsaved" class="mark">{{ entry.pending ? 'waits for the server' : 'not saved' }}</span>
    </PushButton>
    <TickBox
      v-if="settled || chosen"
      class="tick"
      :model-value="chosen"
      :aria-label="`Choose ${brush.card.name}`"
      @update:model-value="emit('toggle')"
    />
    <div class="name"><CutName :name="brush.card.name || 'no name'" /></div>
    <div class="muted">
      {{ labelOf(ACTION_CHOICES, brush.touch.action) }} · {{ labelOf(STROKE_TYPE_CHOICES, brush.stroke.type)
      }}<template v-if="brush.card.author"> · {{ brush.card.author }}</template>
    </div>
    <div class="muted">{{ form }}</div>
    <ToolGroup class="actions" :label="`What is done to ${brush.card.name}`">
      <template v-if="settled">
        <ToolButton
          class="belted"
          :icon="Bookmark"
          :label="belted ? `Take ${brush.card.name} off the belt` : `Put ${brush.card.name} on the belt`"
          :help="belted ? `Take off the belt “${beltName}”` : `Put on the belt “${beltName}”`"
          :on="belted"
          :disabled="entry.unsaved && !belted"
          @click="emit('belt')"
        />
        <ToolButton
          class="belted"
          :icon="Heart"
          :label="favourite ? `Remove ${brush.card.name} from the favourites` : `Make ${brush.card.name} a favourite`"
          :help="favourite ? 'Remove from the favourites' : 'Make it a favourite'"
          :on="favourite"
          :disabled="entry.unsaved && !favourite"
          @click="emit('favourite')"
        />
        <ToolButton :icon="Copy" :label="`Copy ${brush.card.name}`" help="Copy" @click="emit('copy')" />
        <template v-if="!entry.base">
          <ToolButton :icon="Pencil" :label="`Rename ${brush.card.name}`" help="Rename" @click="emit('rename')" />
          <ToolButton :icon="Trash2" :label="`Delete ${brush.card.name}`" help="Delete" @click="emit('remove')" />
        </template>
      </template>
    </ToolGroup>
  </li>
</template>

<style scoped>
.card {
  position: relative;
  display: grid;
  gap: 2px;
  align-content: start;
  content-visibility: auto;
  contain-intrinsic-size: auto 172px auto 240px;
}
.face {
  position: relative;
  border: 0;
  padding: 0;
  background: none;
  cursor: pointer;
  border-radius: var(--r);
  margin-bottom: 4px;
  user-select: none;
}
.face :deep(.disc) {
  width: 100% !important;
  height: auto !important;
  aspect-ratio: 1;
  -webkit-user-drag: none;
}
/* Inside: what reaches out of a card is cut. */
.face::after {
  position: absolute;
  inset: 0;
  border-radius: var(--r);
  pointer-events: none;
  content: '';
}
.face:hover::after {
  box-shadow: inset 0 0 0 2px var(--act);
}
.chosen .face::after {
  box-shadow: inset 0 0 0 4px var(--act);
}
.tick {
  position: absolute;
  right: 8px;
  top: 6px;
  height: 24px;
  padding: 0 5px;
  border-radius: var(--r);
  background: color-mix(in srgb, var(--field) 86%, transparent);
  --el-checkbox-text-color: transparent;
  opacity: 0;
}
.card:hover .tick,
.choosing .tick,
.tick:focus-within {
  opacity: 1;
}
.tick :deep(.el-checkbox__label) {
  display: none;
}
.mark {
  position: absolute;
  left: 8px;
  top: 8px;
  background: var(--warn-wash);
  color: var(--warn);
  border-radius: 10px;
  padding: 2px 9px;
  font-size: var(--small);
  font-weight: 500;
}
.name {
  font-weight: 600;
  display: flex;
  min-width: 0;
}
.muted {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
/* As high as what comes into it. */
.actions {
  display: flex;
  min-height: 26px;
  gap: 2px;
  margin: 2px 0 0 -5px;
}
.belted.on {
  --el-button-bg-color: transparent;
}
.belted.on :deep(svg) {
  fill: currentcolor;
}
/* A finger doesn’t hover. */
@media (pointer: coarse) {
  .tick {
    opacity: 1;
  }
}
</style>
