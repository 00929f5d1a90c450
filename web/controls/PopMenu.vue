<script setup lang="ts">
/**
 * What opens beside a button at a click. Esc closes it, wherever the focus is, and does nothing else then. It closes
 * with no delay: until it does, its button would take the click that opens it again for one that closes it. What is in
 * it is built when it first opens, and stays: taken down at each close, it would take the next click away.
 */
import { ElPopover } from 'element-plus';
import { useEventListener } from '@vueuse/core';
import { provide, ref, watch } from 'vue';
import { IN_MENU } from './inMenu';

defineOptions({ inheritAttrs: false });
const open = defineModel<boolean>('visible', { default: false });
const built = ref(open.value);
watch(open, () => (built.value = true));
provide(IN_MENU, true);
useEventListener(
  window,
  'keydown',
  (e: KeyboardEvent) => {
    if (e.key !== 'Escape' || !open.value) return;
    e.stopImmediatePropagation();
    e.preventDefault();
    open.value = false;
  },
  { capture: true },
);
</script>

<template>
  <ElPopover v-bind="$attrs" v-model:visible="open" trigger="click" :hide-after="0" :persistent="built">
    <template #reference><slot name="reference" /></template>
    <slot />
  </ElPopover>
</template>
