<script setup lang="ts">
/** Day or evening, by hand or as the system has it. */
import { SunMoon } from '@lucide/vue';
import { ref } from 'vue';
import PopMenu from './PopMenu.vue';
import ThemeChoice from './ThemeChoice.vue';
import ToolButton from './ToolButton.vue';

const open = ref(false);
</script>

<template>
  <PopMenu v-model:visible="open" :width="250" placement="bottom-end">
    <template #reference><ToolButton :icon="SunMoon" label="Theme" help="Day or evening" /></template>
    <ThemeChoice />
  </PopMenu>
</template>
