<script setup lang="ts">
/** Racks and their packs, down the left: a press shows one of them alone. */
import { Images, PackageOpen, Plus } from '@lucide/vue';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import PushButton from '../controls/PushButton.vue';
import TreeList from '../controls/TreeList.vue';
import { usePacks } from '../stores/packs';
import { RECENT, type Shelf } from './entries';

const ALL = 'all';
const BESIDE = 'beside';
/** Of racks: before their names. */
const RACK = 'rack ';

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

const line = ({ id, title, count }: Shelf) => ({ key: id, label: title, count, to: { query: { shelf: id } } });
const places = computed(() => [
  { key: ALL, label: 'All brushes', count: props.total, to: { query: {} } },
  ...(racks.value.length > 1
    ? [
        {
          key: BESIDE,
          label: 'Racks side by side',
          help: 'Each rack in a column of its own: brushes are dragged from one to another, with Ctrl a copy stays',
          to: { query: { beside: null } },
        },
      ]
    : []),
  ...(recent.value?.count ? [line(recent.value)] : []),
  { key: 'belts', label: 'Belts', to: null, children: belts.value.map(line) },
  ...racks.value.map(({ name, shelves }) => ({
    key: RACK + name,
    label: name || 'My rack',
    help: 'All packs of this rack',
    to: { query: { rack: name } },
    children: shelves.map(line),
  })),
  ...(rest.value.length > 0 ? [{ key: 'rest', label: 'Beside packs', to: null, children: rest.value.map(line) }] : []),
]);
const current = computed(() => {
  if (only.value !== '') return only.value;
  if (onlyRack.value !== null) return RACK + onlyRack.value;
  return beside.value ? BESIDE : ALL;
});
</script>

<template>
  <nav class="rail" aria-label="Packs">
    <TreeList label="Racks, packs and belts" :places="places" :current="current" remember="rail-folded" />
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
