<script setup lang="ts" generic="T extends string">
/** Tabs, of which one is open; what it shows is the slot. A mark says that something is set behind a tab. */
import { ElTabPane, ElTabs } from 'element-plus';
import type { Component } from 'vue';

defineProps<{ label: string; tabs: readonly { value: T; label: string; marked?: boolean }[] }>();
const open = defineModel<T>({ required: true });
// Their types name the definitions of their properties where the values belong.
const Tabs = ElTabs as Component;
</script>

<template>
  <Tabs v-model="open" :aria-label="label">
    <ElTabPane v-for="tab in tabs" :key="tab.value" :name="tab.value">
      <template #label>{{ tab.label }}<i v-if="tab.marked" title="Set" /></template>
      <slot v-if="tab.value === open" />
    </ElTabPane>
  </Tabs>
</template>

<style scoped>
i {
  position: absolute;
  top: 8px;
  right: 0;
  width: 5px;
  height: 5px;
  border-radius: 50%;
  background: var(--act);
}
</style>
