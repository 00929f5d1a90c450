<script setup lang="ts">
/** Tools beside each other: one stop of Tab, from which the arrow keys go along them. */
import { useMutationObserver } from '@vueuse/core';
import { onMounted, useTemplateRef } from 'vue';

defineProps<{ label: string }>();
const box = useTemplateRef('box');
/** The one that had the focus last. */
let last: Element | null = null;
/** It came there by the keyboard. Pressed by the pointer, a tool leaves the arrows to what it is a tool for. */
let byKeys = false;

type Tool = HTMLElement | SVGElement;
const tools = (): Tool[] =>
  [...(box.value?.querySelectorAll<Tool>('button, a[href], [role="button"]') ?? [])].filter(
    (tool) => !tool.matches(':disabled'),
  );

function setStop(): void {
  const all = tools();
  const stop = all.find((tool) => tool === last) ?? all.find((tool) => tool.ariaPressed === 'true') ?? all[0];
  for (const tool of all) {
    const index = tool === stop ? 0 : -1;
    if (tool.getAttribute('tabindex') !== String(index)) tool.tabIndex = index;
  }
}

function focused({ target }: FocusEvent): void {
  last = target as Element;
  byKeys = last.matches(':focus-visible');
  setStop();
}

function go(e: KeyboardEvent): void {
  const from = e.target as Tool;
  if (!byKeys || e.ctrlKey || e.altKey || e.metaKey || e.shiftKey) return;
  const all = tools();
  const at = all.indexOf(from);
  const ways: Record<string, number | undefined> = {
    ArrowRight: at + 1,
    ArrowDown: at + 1,
    ArrowLeft: at - 1,
    ArrowUp: at - 1,
    Home: 0,
    End: -1,
  };
  const to = ways[e.key];
  if (at < 0 || to === undefined) return;
  e.preventDefault();
  all.at(to % all.length)!.focus();
}

onMounted(setStop);
useMutationObserver(box, setStop, {
  subtree: true,
  childList: true,
  attributeFilter: ['disabled', 'aria-pressed'],
});
</script>

<template>
  <div ref="box" role="toolbar" :aria-label="label" @focusin="focused" @keydown="go"><slot /></div>
</template>
