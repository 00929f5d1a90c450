<script setup lang="ts">
import TopBar from '../controls/TopBar.vue';
</script>

<template>
  <TopBar />
  <main class="nowhere">
    <p>There is nothing at this address.</p>
    <RouterLink class="btn" to="/">To the rack</RouterLink>
  </main>
</template>

<style scoped>
.nowhere {
  display: grid;
  gap: 12px;
  place-content: center;
  justify-items: center;
  height: calc(100% - 48px);
}
</style>
