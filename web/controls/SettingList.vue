<script setup lang="ts" generic="T extends object">
/** Sliders of the settings of one object, named by their paths in its schema. */
import { numberAt, putNumber, settingAt } from '#core/settings';
import type { z } from 'zod';
import SettingSlider from './SettingSlider.vue';

withDefaults(
  defineProps<{
    schema: z.ZodType<T>;
    of: T;
    paths: readonly string[];
    /** Paths of those that do nothing as things stand. */
    resting?: readonly string[];
  }>(),
  { resting: () => [] },
);
const emit = defineEmits<{ edit: [change: (of: T) => void, path: string] }>();
</script>

<template>
  <SettingSlider
    v-for="path in paths"
    :key="path"
    :meta="settingAt(schema, path)"
    :model-value="numberAt(of, path)"
    :disabled="resting.includes(path)"
    @update:model-value="(value) => emit('edit', (own) => putNumber(own, path, value), path)"
  />
</template>
