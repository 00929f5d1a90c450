<script setup lang="ts">
/** The mesh files that something can be written as, side by side. */
import { MESH_FILES, type MeshEnding } from '../workers/meshOut';
import PushButton from './PushButton.vue';

defineProps<{ disabled?: boolean }>();
defineEmits<{ write: [ending: MeshEnding] }>();
</script>

<template>
  <div class="files">
    <PushButton v-for="ending in MESH_FILES" :key="ending" small :disabled="disabled" @click="$emit('write', ending)">
      {{ ending.toUpperCase() }}
    </PushButton>
  </div>
</template>

<style scoped>
.files {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 4px;
}
</style>
