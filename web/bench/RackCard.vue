<script setup lang="ts">
/** One brush of the rack. */
import { Bookmark, Copy, Pencil, Trash2 } from '@lucide/vue';
import { computed } from 'vue';
import type { BrushHead } from '#core/kept';
import BrushDisc from '../controls/BrushDisc.vue';
import CutName from '../controls/CutName.vue';
import { useLibrary } from '../stores/library';
import { ACTION_CHOICES, labelOf, STROKE_TYPE_CHOICES } from './labels';

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
    <button class="face" type="button" :aria-label="`Open ${brush.card.name}`" @click="$emit('open')">
      <BrushDisc :brush="brush" :size="160" square />
      <span v-if="unsaved" class="mark">{{ waiting ? 'waits for the server' : 'not saved' }}</span>
    </button>
    <div class="name"><CutName :name="brush.card.name || 'no name'" /></div>
    <div class="muted">
      {{ labelOf(ACTION_CHOICES, brush.touch.action) }} · {{ labelOf(STROKE_TYPE_CHOICES, brush.stroke.type)
      }}<template v-if="brush.card.author"> · {{ brush.card.author }}</template>
    </div>
    <div class="muted">{{ form }}</div>
    <div class="actions">
      <button
        type="button"
        :class="{ on: belted }"
        :aria-pressed="belted"
        :title="belted ? 'Take off the belt' : 'Put on the belt'"
        :aria-label="belted ? `Take ${brush.card.name} off the belt` : `Put ${brush.card.name} on the belt`"
        :disabled="unsaved && !belted"
        @click="$emit('belt')"
      >
        <Bookmark :size="15" :fill="belted ? 'currentColor' : 'none'" />
      </button>
      <button type="button" title="Copy" :aria-label="`Copy ${brush.card.name}`" @click="$emit('copy')">
        <Copy :size="15" />
      </button>
      <template v-if="!base">
        <button type="button" title="Rename" :aria-label="`Rename ${brush.card.name}`" @click="$emit('rename')">
          <Pencil :size="15" />
        </button>
        <button type="button" title="Delete" :aria-label="`Delete ${brush.card.name}`" @click="$emit('remove')">
          <Trash2 :size="15" />
        </button>
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
  margin: 2px 0 0 -6px;
}
.actions button {
  border: 0;
  background: none;
  padding: 5px 6px;
  border-radius: 4px;
  cursor: pointer;
  color: var(--ink-2);
  line-height: 0;
}
.actions button:hover:not(:disabled) {
  background: var(--well);
  color: var(--ink);
}
.actions button:disabled {
  opacity: 0.35;
  cursor: default;
}
.actions .on {
  color: var(--act);
}
</style>
