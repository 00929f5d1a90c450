<script setup lang="ts">
/** Lists what keys and the pointer do in the place that is open, by what it is for. */
import { ElScrollbar } from 'element-plus';
import { computed } from 'vue';
import { usePreferences } from '../stores/preferences';
import { COMMANDS, GROUPS } from '../keys/commands';
import { keyName, keysOf } from '../keys/keymap';
import { listShown } from '../keys/listShown';
import { active, useShortcuts } from '../keys/shortcuts';
import DialogBox from './DialogBox.vue';

const preferences = usePreferences();
useShortcuts([{ command: 'help', what: 'This list', run: () => (listShown.value = !listShown.value) }]);

interface Row {
  keys: string;
  what: string;
}
const groups = computed(() => {
  const rows = active.flatMap((s) => {
    if ('gesture' in s) return [{ group: 'The pointer', keys: s.gesture, what: s.what }];
    const keys = keysOf(s.command, preferences.now.keys).map(keyName).join(' or ');
    const { group, what, unlisted } = COMMANDS[s.command];
    return s.silent || unlisted || !keys ? [] : [{ group, keys, what: s.what ?? what }];
  });
  return [...GROUPS, 'The pointer']
    .map((group) => ({ group, rows: rows.filter((row) => row.group === group).reduce(once, []) }))
    .filter((g) => g.rows.length > 0);
});
/** Two places that are open together may say the same. */
function once(rows: Row[], row: Row): Row[] {
  return rows.some(({ keys, what }) => keys === row.keys && what === row.what) ? rows : [...rows, row];
}
</script>

<template>
  <DialogBox v-model:visible="listShown" title="Keys" :width-px="760">
    <ElScrollbar max-height="calc(100vh - 30vh - 90px)">
      <div class="groups">
        <section v-for="g in groups" :key="g.group">
          <h3>{{ g.group }}</h3>
          <dl>
            <template v-for="row in g.rows" :key="row.keys + row.what">
              <dt>
                <kbd>{{ row.keys }}</kbd>
              </dt>
              <dd>{{ row.what }}</dd>
            </template>
          </dl>
        </section>
      </div>
    </ElScrollbar>
    <template #footer>
      <RouterLink class="change" to="/settings?tab=keys" @click="listShown = false">Change keys</RouterLink>
    </template>
  </DialogBox>
</template>

<style scoped>
.groups {
  columns: 2 300px;
  column-gap: 28px;
}
section {
  break-inside: avoid;
  margin-bottom: 14px;
}
h3 {
  margin: 0 0 6px;
  font-size: 12px;
  font-weight: 600;
  color: var(--ink-2);
}
dl {
  margin: 0;
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 5px 10px;
  align-items: baseline;
}
dd {
  margin: 0;
}
kbd {
  font: inherit;
  font-weight: 600;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--leaf);
  padding: 1px 7px;
}
.change {
  color: var(--act-deep);
}
</style>
