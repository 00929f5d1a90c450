<script setup lang="ts">
/**
 * Places in a tree, down the side: a press goes to one, its arrow or the left and right keys fold what is under it.
 * What is folded is remembered under `remember`.
 */
import { useLocalStorage } from '@vueuse/core';
import { ElTree } from 'element-plus';
import { computed, type Component } from 'vue';
import { useRouter, type RouteLocationRaw } from 'vue-router';

interface Place {
  key: string;
  label: string;
  /** How much is in it. */
  count?: number;
  help?: string;
  to: RouteLocationRaw | null;
  children?: Place[];
}

const props = defineProps<{ label: string; places: readonly Place[]; current: string; remember: string }>();
const router = useRouter();
const folded = useLocalStorage<string[]>(props.remember, []);
const open = computed(() => props.places.map(({ key }) => key).filter((key) => !folded.value.includes(key)));
// Its types name the definitions of its properties where the values belong.
const Tree = ElTree as Component;

function fold({ key }: Place, is: boolean): void {
  const others = folded.value.filter((one) => one !== key);
  folded.value = is ? [...others, key] : others;
}
/** By the key: the pointer presses the link itself. */
function go(e: KeyboardEvent): void {
  const item = (e.target as HTMLElement).closest<HTMLElement>('[role=treeitem]');
  const to = placeOf(props.places, item?.dataset['key'] ?? '')?.to;
  if (to) void router.push(to);
}
function placeOf(all: readonly Place[], key: string): Place | undefined {
  for (const place of all) {
    const found = place.key === key ? place : placeOf(place.children ?? [], key);
    if (found) return found;
  }
  return undefined;
}
</script>

<template>
  <!-- eslint-disable-next-line vuejs-accessibility/no-static-element-interactions -->
  <div @keydown.enter="go">
    <Tree
      :aria-label="label"
      :data="places"
      node-key="key"
      :props="{ label: 'label', children: 'children' }"
      :indent="10"
      :default-expanded-keys="open"
      :auto-expand-parent="false"
      @node-expand="(place: Place) => fold(place, false)"
      @node-collapse="(place: Place) => fold(place, true)"
    >
      <template #default="{ data }: { data: Place }">
        <RouterLink
          v-if="data.to"
          :to="data.to"
          tabindex="-1"
          class="line"
          :aria-current="data.key === current ? 'page' : undefined"
          :title="data.help"
          @click.stop
          ><span>{{ data.label }}</span
          ><small v-if="data.count !== undefined">{{ data.count }}</small></RouterLink
        >
        <span v-else class="line head">{{ data.label }}</span>
      </template>
    </Tree>
  </div>
</template>

<style scoped>
.el-tree {
  margin-bottom: 8px;
  --el-tree-node-content-height: 28px;
  --el-tree-node-hover-bg-color: var(--well);
  --el-tree-text-color: var(--ink);
  --el-tree-expand-icon-color: var(--ink-3);
  background: none;
}
.el-tree :deep(.el-tree-node__content) {
  border-radius: var(--r);
}
.el-tree :deep(.el-tree-node__content:has(> [aria-current])) {
  background: var(--act-wash);
  font-weight: 600;
}
.el-tree :deep(.el-tree-node:focus-visible) {
  outline: none;
}
.el-tree :deep(.el-tree-node:focus-visible > .el-tree-node__content) {
  outline: 2px solid var(--act);
  outline-offset: -2px;
}
.line {
  display: flex;
  flex: 1;
  justify-content: space-between;
  gap: 8px;
  min-width: 0;
  padding: 5px 8px 5px 0;
  color: inherit;
  text-decoration: none;
}
.line span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line small,
.head {
  color: var(--ink-2);
}
.head {
  font-size: var(--small);
  font-weight: 500;
}
@media (pointer: coarse) {
  .el-tree {
    --el-tree-node-content-height: 44px;
  }
  .line {
    align-items: center;
    min-height: 44px;
  }
}
</style>
