<script setup lang="ts">
/** The brushes at hand. */
import { computed } from 'vue';
import { useLibrary } from '../stores/library';
import BrushDisc from './BrushDisc.vue';
import CutName from './CutName.vue';
import PushButton from './PushButton.vue';

const props = defineProps<{ openId: string }>();
const emit = defineEmits<{ pick: [id: string] }>();
const library = useLibrary();
/** The open brush stands on the belt even before it is saved. */
const shown = computed(() => {
  const open = library.brushHead(props.openId);
  return open && !library.beltIds.includes(props.openId) ? [open, ...library.belt] : library.belt;
});
const unsaved = (id: string): boolean => library.drafts.some((d) => d.doc.id === id);
</script>

<template>
  <footer class="belt" aria-label="Belt">
    <div class="about">At hand<br />{{ shown.length }} {{ shown.length === 1 ? 'brush' : 'brushes' }}</div>
    <PushButton
      v-for="brush in shown"
      :key="brush.id"
      look="face"
      class="at-hand"
      :title="brush.card.name"
      :on="brush.id === openId"
      @click="emit('pick', brush.id)"
    >
      <span class="ring"><BrushDisc :brush="brush" :size="48" /></span>
      <span class="name"
        ><CutName :name="brush.card.name || 'no name'" /><b v-if="unsaved(brush.id)" title="Not saved yet"> •</b></span
      >
    </PushButton>
    <slot />
  </footer>
</template>

<style scoped>
.belt {
  height: 92px;
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 14px;
  border-top: 1px solid var(--line);
  background: var(--leaf);
  overflow-x: auto;
  overflow-y: hidden;
}
.about {
  font-size: var(--small);
  color: var(--ink-2);
  width: 78px;
  flex: none;
}
.at-hand {
  display: flex;
  flex-direction: column;
  gap: 4px;
  width: 88px;
  flex: none;
  padding: 4px 2px;
}
.ring {
  border-radius: 50%;
  padding: 3px;
  border: 1px solid var(--line);
  background: var(--field);
}
.at-hand:hover .ring {
  border-color: var(--ink-3);
}
.on .ring {
  border-color: var(--act);
  box-shadow: 0 0 0 2px var(--act);
}
.name {
  display: flex;
  font-size: var(--small);
  max-width: 86px;
  white-space: pre;
}
.on .name {
  font-weight: 600;
}
b {
  color: var(--warn);
}
</style>
