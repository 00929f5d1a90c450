<script setup lang="ts">
/** Lists the keys of the place that is open. */
import { computed, ref } from 'vue';
import { active, useShortcuts } from './shortcuts';
import DialogBox from './DialogBox.vue';

const open = ref(false);
useShortcuts([{ keys: '?', what: 'This list', run: () => (open.value = !open.value) }]);
const rows = computed(() => active.filter((s) => !s.silent));
</script>

<template>
  <DialogBox v-model:visible="open" title="Keys" :width-px="440">
    <dl class="keys">
      <template v-for="s in rows" :key="s.keys + s.what">
        <dt>
          <kbd>{{ s.keys }}</kbd>
        </dt>
        <dd>{{ s.what }}</dd>
      </template>
    </dl>
  </DialogBox>
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
