<script setup lang="ts">
/**
 * The hint of what the keyboard is on: the browser shows hints to a pointer alone. It comes when the focus rests, and
 * goes with it, at Esc and when the pointer is taken.
 */
import { useEventListener, useTimeoutFn } from '@vueuse/core';
import { ElTooltip } from 'element-plus';
import { ref, shallowRef } from 'vue';

const REST_MS = 400;
const on = shallowRef<HTMLElement>();
const text = ref('');
let next: HTMLElement | null = null;

const { start, stop } = useTimeoutFn(
  () => {
    if (!next?.isConnected || !next.title) return;
    text.value = next.title;
    on.value = next;
  },
  REST_MS,
  { immediate: false },
);
function hide(): void {
  stop();
  on.value = undefined;
}
useEventListener(document, 'focusin', ({ target }) => {
  hide();
  next = (target as HTMLElement).closest<HTMLElement>('button[title], a[title], [role="button"][title]');
  if (next?.matches(':focus-visible')) start();
});
useEventListener(document, ['focusout', 'pointerdown', 'pointermove', 'wheel'], hide, { passive: true, capture: true });
useEventListener(document, 'keydown', (e) => e.key === 'Escape' && hide(), { capture: true });
</script>

<template>
  <ElTooltip
    v-if="on"
    :key="text"
    :visible="true"
    :virtual-ref="on"
    virtual-triggering
    :content="text"
    placement="bottom"
    popper-class="focus-hint"
    :enterable="false"
    :show-arrow="false"
  />
</template>

<style>
.focus-hint {
  max-width: 280px;
  pointer-events: none;
}
</style>
