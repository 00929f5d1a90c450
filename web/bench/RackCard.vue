<script setup lang="ts">
/** One brush of the rack. */
import { Bookmark, Copy, Pencil, Trash2 } from '@lucide/vue';
import { computed } from 'vue';
import type { BrushHead } from '#core/stored';
import BrushDisc from '../controls/BrushDisc.vue';
import CutName from '../controls/CutName.vue';
import { useLibrary } from '../stores/library';
import { ACTION_CHOICES, labelOf, STROKE_TYPE_CHOICES } from './labels';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';

const props = defineProps<{ brush: BrushHead; base: boolean; unsaved: boolean; waiting: boolean; belted: boolean }>();
defineEmits<{ open: []; copy: []; rename: []; remove: []; belt: [] }>();
const library = useLibrary();
/** The alpha that it stamps. */
const form = computed(() => {
  const { alphaId } = props.brush.form;
  return alphaId === null ? 'Plain form' : `Form: ${library.alpha(alphaId)?.card.name ?? 'its alpha is gone'}`;
});
</script>

<template>
  <li class="card">
    <PushButton look="face" class="face" :aria-label="`Open ${brush.card.name}`" @click="$emit('open')">
      <BrushDisc :brush="brush" :size="160" square />
      <span v-if="unsaved" class="mark">{{ waiting ? 'waits for the server' : 'not saved' }}</span>
    </PushButton>
    <div class="name"><CutName :name="brush.card.name || 'no name'" /></div>
    <div class="muted">
      {{ labelOf(ACTION_CHOICES, brush.touch.action) }} · {{ labelOf(STROKE_TYPE_CHOICES, brush.stroke.type)
      }}<template v-if="brush.card.author"> · {{ brush.card.author }}</template>
    </div>
    <div class="muted">{{ form }}</div>
    <div class="actions">
      <ToolButton
        class="belted"
        :icon="Bookmark"
        :label="belted ? `Take ${brush.card.name} off the belt` : `Put ${brush.card.name} on the belt`"
        :help="belted ? 'Take off the belt' : 'Put on the belt'"
        :on="belted"
        :disabled="unsaved && !belted"
        @click="$emit('belt')"
      />
      <ToolButton :icon="Copy" :label="`Copy ${brush.card.name}`" help="Copy" @click="$emit('copy')" />
      <template v-if="!base">
        <ToolButton :icon="Pencil" :label="`Rename ${brush.card.name}`" help="Rename" @click="$emit('rename')" />
        <ToolButton :icon="Trash2" :label="`Delete ${brush.card.name}`" help="Delete" @click="$emit('remove')" />
      </template>
    </div>
  </li>
</template>

<style scoped>
.card {
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
}
.face :deep(.disc) {
  width: 100% !important;
  height: auto !important;
  aspect-ratio: 1;
}
.face:hover {
  box-shadow: 0 0 0 2px var(--act);
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
.actions {
  display: flex;
  gap: 2px;
  margin: 2px 0 0 -5px;
}
.belted.on {
  --el-button-bg-color: transparent;
}
.belted.on :deep(svg) {
  fill: currentcolor;
}
</style>
