<script setup lang="ts">
/** Places on the left; the lineage of the open thing, its state and its main action on the right. */
import { Keyboard, Settings } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { usePlaceName } from '../placeName';
import { listShown } from '../keys/listShown';
import { useConnection } from '../stores/connection';
import { useLibrary } from '../stores/library';
import WorkRing from './WorkRing.vue';
import ThemeMenu from './ThemeMenu.vue';
import ToolButton from './ToolButton.vue';

const route = useRoute();
const router = useRouter();
const connection = useConnection();
const library = useLibrary();
const lastBench = useLocalStorage('last-bench', '');
const lastBrush = useLocalStorage('last-brush', '');
if (route.path.startsWith('/bench/')) lastBench.value = route.path;
if (route.name === 'brush' || route.name === 'proof') lastBrush.value = String(route.params['id']);

const place = usePlaceName();
/** Others have a heading of their own. */
const headed = computed(() => !['rack', 'sources', 'settings'].includes(String(route.name)));
const pending = computed(() => library.drafts.filter((d) => d.pending).length);
const first = computed(() => lastBrush.value || library.beltIds[0] || '');
const places = computed(() => [
  { name: 'Rack', to: '/', on: route.name === 'rack' },
  { name: 'Sources', to: '/sources', on: route.name === 'sources' },
  {
    name: 'Bench',
    to: lastBench.value || '/bench',
    on: route.path.startsWith('/bench'),
  },
  { name: 'Proof', to: first.value ? `/proof/${first.value}` : '', on: route.name === 'proof' },
]);
</script>

<template>
  <header class="bar">
    <RouterLink class="brand" to="/" aria-label="Mold Stamp, to the rack">
      <svg viewBox="0 0 20 20" width="20" height="20" aria-hidden="true">
        <path d="M0 10a10 9 0 0 1 20 0v2H0z" fill="var(--ink)" />
        <path d="M0 13.5h20v1.5a4 4 0 0 1-4 4H4a4 4 0 0 1-4-4z" fill="var(--act)" />
      </svg>
      <b>Mold Stamp</b>
    </RouterLink>
    <h1 v-if="headed" class="unseen">{{ place.kind || 'Mold Stamp' }} {{ place.thing }}</h1>
    <nav aria-label="Places">
      <RouterLink
        v-for="place in places.filter((p) => p.to)"
        :key="place.name"
        :to="place.to"
        :class="{ on: place.on }"
        >{{ place.name }}</RouterLink
      >
    </nav>
    <div class="middle"><slot /></div>
    <WorkRing />
    <span v-if="connection.away" class="away" role="status">
      Server away{{ pending ? ` · ${pending} ${pending === 1 ? 'save waits' : 'saves wait'}` : '' }}
    </span>
    <slot name="end" />
    <ThemeMenu />
    <ToolButton class="keys" :icon="Keyboard" label="Keys" command="help" @click="listShown = true" />
    <ToolButton
      class="keys"
      :icon="Settings"
      label="Settings"
      :on="route.name === 'settings'"
      @click="router.push('/settings')"
    />
  </header>
</template>

<style scoped>
.bar {
  height: 48px;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 8px 0 14px;
  border-bottom: 1px solid var(--line);
  background: var(--page);
}
.brand {
  display: flex;
  align-items: center;
  gap: 8px;
  color: var(--ink);
  text-decoration: none;
  white-space: nowrap;
}
nav {
  display: flex;
  gap: 2px;
}
nav a {
  padding: 6px 10px;
  border-radius: var(--r);
  color: var(--ink-2);
  text-decoration: none;
}
nav a:hover {
  background: var(--well);
  color: var(--ink);
}
nav a.on {
  background: var(--ink);
  color: var(--page);
}
.middle {
  flex: 1;
  min-width: 0;
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 10px;
}
.away {
  padding: 4px 10px;
  border-radius: 12px;
  background: var(--warn-wash);
  color: var(--warn);
  font-weight: 500;
  white-space: nowrap;
}
.keys {
  padding: 0 8px;
}
/* Long work has a place here too. */
@media (max-width: 1140px) {
  .bar {
    gap: 6px;
    padding-left: 10px;
  }
  .bar :deep(.push) {
    padding: 0 8px;
  }
  nav a {
    padding: 6px 7px;
  }
}
/* Half a screen: the mark stands for the name. */
@media (width < 1000px) {
  .bar {
    gap: 6px;
    padding: 0 6px;
  }
  .brand b {
    display: none;
  }
  .bar :deep(.el-button.push) {
    padding: 0 5px;
    font-size: 12px;
  }
  nav {
    gap: 0;
  }
  nav a {
    padding: 6px 5px;
  }
}
@media (pointer: coarse) and (max-width: 1140px) {
  .bar {
    gap: 2px;
  }
  .brand b {
    display: none;
  }
}
@media (pointer: coarse) {
  .brand,
  nav a {
    display: flex;
    align-items: center;
    justify-content: center;
    min-width: 44px;
    min-height: 44px;
  }
}
</style>
