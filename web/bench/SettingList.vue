<script setup lang="ts">
/** Sliders of a brush's settings, named by their paths in the schema. */
import { BrushSchema, numberAt, putNumber, settingAt, type Brush } from '#core/settings';
import SettingSlider from '../controls/SettingSlider.vue';

defineProps<{ brush: Brush; paths: readonly string[] }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
</script>

<template>
  <SettingSlider
    v-for="path in paths"
    :key="path"
    :meta="settingAt(BrushSchema, path)"
    :model-value="numberAt(brush, path)"
    @update:model-value="(value) => emit('edit', (b) => putNumber(b, path, value))"
  />
</template>
