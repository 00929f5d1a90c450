<script setup lang="ts">
/** Day or evening, by hand or as the system has it. */
import { SunMoon } from '@lucide/vue';
import { ref } from 'vue';
import { theme } from '../theme';
import ChoiceBar from './ChoiceBar.vue';
import PopMenu from './PopMenu.vue';
import ToolButton from './ToolButton.vue';

const open = ref(false);
const CHOICES = [
  { value: 'system', label: 'System', help: 'As the system is set' },
  { value: 'day', label: 'Day', help: 'Light, like plaster' },
  { value: 'evening', label: 'Evening', help: 'Dark; the clay stays as it is' },
] as const;
</script>

<template>
  <PopMenu v-model:visible="open" :width="250" placement="bottom-end">
    <template #reference><ToolButton :icon="SunMoon" label="Theme" help="Day or evening" /></template>
    <ChoiceBar v-model="theme" label="Theme" :options="CHOICES" />
  </PopMenu>
</template>
