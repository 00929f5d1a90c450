<script setup lang="ts">
import { useLibrary } from './stores/library';
import ShortcutsDialog from './parts/ShortcutsDialog.vue';

void useLibrary().ready();
</script>

<template>
  <RouterView v-slot="{ Component, route }">
    <component :is="Component" :key="route.name" />
  </RouterView>
  <ShortcutsDialog />
</template>
