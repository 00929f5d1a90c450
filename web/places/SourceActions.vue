<script setup lang="ts">
/** What can be done to a thing among the sources, under its picture. */
import { Copy, Pencil, Trash2 } from '@lucide/vue';
import ToolButton from '../controls/ToolButton.vue';

defineProps<{ name: string }>();
const emit = defineEmits<{ rename: []; copy: []; remove: [] }>();
</script>

<template>
  <span class="actions">
    <slot />
    <ToolButton :icon="Copy" :label="`Copy ${name}`" help="Copy, as it is saved" @click="emit('copy')" />
    <ToolButton :icon="Pencil" :label="`Rename ${name}`" help="Rename" @click="emit('rename')" />
    <ToolButton :icon="Trash2" :label="`Delete ${name}`" help="Delete" @click="emit('remove')" />
  </span>
</template>

<style scoped src="./card.css"></style>
<style scoped>
:slotted(a) {
  display: inline-flex;
  padding: 0 6px;
  color: inherit;
}
</style>
