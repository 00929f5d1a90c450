<script setup lang="ts">
/** Racks and their packs, down the left: a press shows one of them alone. */
import { Images, PackageOpen, Plus } from '@lucide/vue';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import PushButton from '../controls/PushButton.vue';
import { usePacks } from '../stores/packs';
import { RECENT, type Shelf } from './entries';

const props = defineProps<{ shelves: readonly Shelf[]; lists: readonly Shelf[]; total: number }>();
const emit = defineEmits<{ create: []; open: []; files: [] }>();
const route = useRoute();
const packs = usePacks();
const only = computed(() => String(route.query['shelf'] ?? ''));
const beside = computed(() => 'beside' in route.query && only.value === '' && onlyRack.value === null);
const onlyRack = computed(() => (typeof route.query['rack'] === 'string' ? route.query['rack'] : null));
const racks = computed(() =>
  ['', ...packs.racks]
    .map((name) => ({ name, shelves: props.shelves.filter(({ pack }) => pack?.rack === name) }))
    .filter(({ shelves }) => shelves.length > 0),
);
const recent = computed(() => props.lists.find(({ id }) => id === RECENT));
const belts = computed(() => props.lists.filter(({ id }) => id !== RECENT));
const rest = computed(() => props.shelves.filter(({ pack, count }) => pack === null && count > 0));
const to = (shelf: string): { query: Record<string, string> } => ({ query: shelf ? { shelf } : {} });
</script>

<template>
  <nav class="rail" aria-label="Packs">
    <RouterLink :to="to('')" class="line" :class="{ on: only === '' && onlyRack === null && !beside }"
      ><span>All brushes</span><small>{{ total }}</small></RouterLink
    >
    <RouterLink
      v-if="racks.length > 1"
      :to="{ query: { beside: null } }"
      class="line"
      :class="{ on: beside }"
      title="Each rack in a column of its own: brushes are dragged from one to another, with Ctrl a copy stays"
      ><span>Racks side by side</span></RouterLink
    >
    <RouterLink v-if="recent?.count" :to="to(recent.id)" class="line" :class="{ on: only === recent.id }"
      ><span>{{ recent.title }}</span
      ><small>{{ recent.count }}</small></RouterLink
    >
    <h3>Belts</h3>
    <RouterLink v-for="belt in belts" :key="belt.id" :to="to(belt.id)" class="line" :class="{ on: only === belt.id }"
      ><span>{{ belt.title }}</span
      ><small>{{ belt.count }}</small></RouterLink
    >
    <template v-for="rack in racks" :key="rack.name">
      <RouterLink
        :to="{ query: { rack: rack.name } }"
        class="line rack"
        :class="{ on: onlyRack === rack.name }"
        title="All packs of this rack"
        ><span>{{ rack.name || 'My rack' }}</span></RouterLink
      >
      <RouterLink
        v-for="shelf in rack.shelves"
        :key="shelf.id"
        :to="to(shelf.id)"
        class="line"
        :class="{ on: only === shelf.id }"
        ><span>{{ shelf.title }}</span
        ><small>{{ shelf.count }}</small></RouterLink
      >
    </template>
    <PushButton small class="new" @click="emit('create')"><Plus :size="14" /> New pack</PushButton>
    <PushButton
      small
      class="new"
      title="A pack file (.pack.zip); it can be dropped on the rack as well"
      @click="emit('open')"
      ><PackageOpen :size="14" /> Open a pack…</PushButton
    >
    <PushButton
      small
      class="new"
      title="Pictures and meshes become brushes like a chosen one; a folder can be dropped on the rack as well"
      @click="emit('files')"
      ><Images :size="14" /> Brushes from files…</PushButton
    >
    <h3 v-if="rest.length">Beside packs</h3>
    <RouterLink v-for="shelf in rest" :key="shelf.id" :to="to(shelf.id)" class="line" :class="{ on: only === shelf.id }"
      ><span>{{ shelf.title }}</span
      ><small>{{ shelf.count }}</small></RouterLink
    >
  </nav>
</template>

<style scoped>
.rail {
  display: flex;
  flex-direction: column;
  gap: 1px;
  padding: 16px 10px;
  overflow-y: auto;
  border-right: 1px solid var(--line);
  background: var(--leaf);
}
h3 {
  margin: 14px 8px 4px;
  color: var(--ink-2);
  font-size: var(--small);
  font-weight: 500;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 5px 8px;
  border-radius: var(--r);
  color: var(--ink);
  text-decoration: none;
}
.rack {
  margin-top: 14px;
  padding: 3px 8px;
  color: var(--ink-2);
  font-size: var(--small);
  font-weight: 500;
}
.line span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.line small {
  color: var(--ink-2);
}
.line:hover {
  background: var(--well);
}
.line.on {
  background: var(--act-wash);
  font-weight: 600;
}
.new {
  align-self: flex-start;
  margin: 6px 0 0 4px;
}
.new :deep(svg) {
  margin-right: 4px;
}
/* The rail is narrow: the words alone fit. */
@media (width < 1100px) {
  .new :deep(svg) {
    display: none;
  }
}
</style>
