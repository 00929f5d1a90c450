<script setup lang="ts">
import EmptyPlace from '../controls/EmptyPlace.vue';
import TopBar from '../controls/TopBar.vue';
</script>

<template>
  <TopBar />
  <main class="nowhere">
    <EmptyPlace what="it" :opening="false" says="There is nothing at this address." to="/" />
  </main>
</template>

<style scoped>
.nowhere {
  height: calc(100% - 48px);
}
</style>
