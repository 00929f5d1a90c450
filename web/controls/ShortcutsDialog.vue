<script setup lang="ts">
/** Lists the keys of the place that is open. */
import { ElDialog } from 'element-plus';
import { computed, ref } from 'vue';
import { active, useShortcuts } from './shortcuts';

const open = ref(false);
useShortcuts([{ keys: '?', what: 'This list', run: () => (open.value = !open.value) }]);
const rows = computed(() => active.filter((s) => !s.silent));
</script>

<template>
  <ElDialog v-model="open" title="Keys" width="440px" append-to-body>
    <dl class="keys">
      <template v-for="s in rows" :key="s.keys + s.what">
        <dt>
          <kbd>{{ s.keys }}</kbd>
        </dt>
        <dd>{{ s.what }}</dd>
      </template>
    </dl>
  </ElDialog>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: 130px 1fr;
  gap: 7px 12px;
}
kbd {
  font: inherit;
  font-weight: 600;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--leaf);
  padding: 1px 7px;
  white-space: nowrap;
}
</style>
