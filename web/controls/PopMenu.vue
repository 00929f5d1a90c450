<script setup lang="ts">
/**
 * What opens beside a button at a click. Esc closes it, wherever the focus is, and does nothing else then. A click
 * elsewhere closes it in the same breath: until it is closed, its button would take the click that opens it again for
 * one that closes it. What is in it is built when it first opens, and stays.
 */
import { ElPopover } from 'element-plus';
import { onClickOutside, useEventListener } from '@vueuse/core';
import { computed, onBeforeUnmount, provide, ref, useTemplateRef, watch } from 'vue';
import { IN_MENU } from './inMenu';

defineOptions({ inheritAttrs: false });
const open = defineModel<boolean>('visible', { default: false });
const built = ref(false);
const content = useTemplateRef<HTMLElement>('content');
const popper = computed(() => content.value?.closest<HTMLElement>('.el-popper'));
let stop: (() => void) | undefined;
watch(
  open,
  (now) => {
    built.value ||= now;
    stop?.();
    // After its button, which closes an open one itself.
    stop = now ? onClickOutside(popper, () => (open.value = false), { capture: false }) : undefined;
  },
  { immediate: true },
);
onBeforeUnmount(() => stop?.());
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
    <div ref="content" class="content"><slot /></div>
  </ElPopover>
</template>

<style scoped>
.content {
  display: contents;
}
</style>
