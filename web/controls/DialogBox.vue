<script setup lang="ts">
/** A question that has to be answered before anything else. Esc and a press beside it close it. */
import { ElDialog } from 'element-plus';

withDefaults(defineProps<{ title: string; widthPx?: number }>(), { widthPx: 400 });
const visible = defineModel<boolean>('visible', { required: true });
</script>

<template>
  <ElDialog v-model="visible" :title="title" :width="`${widthPx}px`" append-to-body>
    <slot />
    <template v-if="$slots['footer']" #footer><slot name="footer" /></template>
  </ElDialog>
</template>
