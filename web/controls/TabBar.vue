<script setup lang="ts" generic="T extends string">
/** Tabs, of which one is open; what it shows is the slot. A mark says that something is set behind a tab. */
import { ElTabPane, ElTabs } from 'element-plus';
import type { Component } from 'vue';

withDefaults(
  defineProps<{
    label: string;
    tabs: readonly { value: T; label: string; marked?: boolean; icon?: Component }[];
    /** Down the left, as a rail. */
    rail?: boolean;
  }>(),
  { rail: false },
);
const open = defineModel<T>({ required: true });
// Their types name the definitions of their properties where the values belong.
const Tabs = ElTabs as Component;
</script>

<template>
  <Tabs v-model="open" :aria-label="label" :class="{ rail }" :tab-position="rail ? 'left' : 'top'">
    <ElTabPane v-for="tab in tabs" :key="tab.value" :name="tab.value">
      <template #label
        ><component :is="tab.icon" v-if="tab.icon" :size="17" aria-hidden="true" />{{ tab.label
        }}<i v-if="tab.marked" title="Set"
      /></template>
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
/* A picture over its word, one under the other. */
.rail :deep(.el-tabs__item.is-left:nth-child(n)) {
  display: grid;
  gap: 3px;
  justify-content: center;
  justify-items: center;
  width: 62px;
  height: auto;
  padding: 9px 2px;
  font-size: var(--small);
  line-height: 1.2;
  text-align: center;
}
.rail :deep(.el-tabs__item.is-left.is-active) {
  background: var(--act-wash);
}
.rail :deep(.el-tabs__nav-wrap.is-left),
.rail :deep(.el-tabs__header.is-left) {
  margin: 0;
}
.rail :deep(.el-tabs__active-bar.is-left) {
  display: none;
}
</style>
