<script setup lang="ts">
/** Earlier saves one under the other, or what there is to say in their place. */
import LoadingPlaces from './LoadingPlaces.vue';

defineProps<{ count: number; loading: boolean; problem: string | null; what: string }>();
</script>

<template>
  <LoadingPlaces v-if="loading" of="rows" label="Looking for earlier saves" />
  <p v-else-if="problem" class="sentence-bad" role="alert">{{ problem }}</p>
  <p v-else-if="count === 0" class="muted">
    Nothing yet. Each time {{ what }} is saved, what it was before is kept here.
  </p>
  <ul v-else>
    <slot />
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 10px;
  max-height: 56vh;
  margin: 0;
  padding: 2px;
  overflow-y: auto;
  list-style: none;
}
</style>
