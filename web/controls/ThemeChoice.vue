<script setup lang="ts">
import { computed } from 'vue';
import { usePreferences } from '../stores/preferences';
import ChoiceBar from './ChoiceBar.vue';

const preferences = usePreferences();
const theme = computed({
  get: () => preferences.now.theme,
  set: (theme) => preferences.change({ theme }),
});
const CHOICES = [
  { value: 'system', label: 'System', help: 'As the system is set' },
  { value: 'day', label: 'Day', help: 'Light, like plaster' },
  { value: 'evening', label: 'Evening', help: 'Dark; the clay stays as it is' },
] as const;
</script>

<template>
  <ChoiceBar v-model="theme" label="Theme" :options="CHOICES" />
</template>
