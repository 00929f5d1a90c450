<script setup lang="ts">
/** What can be done to a thing among the sources, under its picture. */
import { Archive, Copy, Pencil, Trash2, Waypoints } from '@lucide/vue';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';

defineProps<{ id: string; name: string }>();
const emit = defineEmits<{ saves: []; rename: []; copy: []; remove: [] }>();
</script>

<template>
  <ToolGroup class="actions" :label="`What is done to ${name}`">
    <slot />
    <RouterLink :to="`/lineage/${id}`" :aria-label="`Lineage of ${name}`" title="Lineage"
      ><Waypoints :size="15"
    /></RouterLink>
    <ToolButton :icon="Archive" :label="`Earlier saves of ${name}`" help="Earlier saves" @click="emit('saves')" />
    <ToolButton :icon="Copy" :label="`Copy ${name}`" help="Copy, as it is saved" @click="emit('copy')" />
    <ToolButton :icon="Pencil" :label="`Rename ${name}`" help="Rename" @click="emit('rename')" />
    <ToolButton :icon="Trash2" :label="`Delete ${name}`" help="Delete" @click="emit('remove')" />
  </ToolGroup>
</template>

<style scoped src="./card.css"></style>
<style scoped>
:slotted(a),
a {
  display: inline-flex;
  padding: 0 6px;
  color: var(--ink-2);
}
@media (pointer: coarse) {
  :slotted(a),
  a {
    align-items: center;
    justify-content: center;
    min-width: 44px;
    min-height: 44px;
  }
}
</style>
