<script setup lang="ts">
/**
 * A shelf of the rack: a pack with its head and its groups, or brushes that are in none. Brushes are dragged within it
 * and to others; what is chosen goes together.
 */
import { ChevronDown, ChevronRight, Download, FolderPlus, Pencil, Trash2 } from '@lucide/vue';
import { computed, nextTick, ref, watch } from 'vue';
import { VueDraggable, type DraggableEvent } from 'vue-draggable-plus';
import { LICENCES } from '#core/settings';
import BrushDisc from '../controls/BrushDisc.vue';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';
import { useLibrary } from '../stores/library';
import { BASE, LOOSE, type Entry, type Shelf } from './entries';
import RackCard from './RackCard.vue';
import type { Chosen } from './useChosen';

/** Something was dragged: where it lies now. */
export interface Dropped {
  id: string;
  from: string;
  /** Shelf and group. */
  to: string;
  group: number;
  /** What follows in the group, the nearest first. */
  following: string[];
  /** With a key held it stays where it was as well. */
  copies: boolean;
}

const props = defineProps<{
  shelf: Shelf;
  chosen: Chosen;
  folded: boolean;
  /** Counts: shows again what is, whatever was dragged. */
  again: number;
  /** While brushes are searched their order is not all of it. */
  still: boolean;
}>();
const emit = defineEmits<{
  fold: [];
  about: [];
  remove: [];
  group: [];
  write: [];
  renameGroup: [index: number];
  dropped: [drop: Dropped];
  press: [entry: Entry, e: MouseEvent];
  copy: [entry: Entry];
  rename: [entry: Entry];
  removeBrush: [entry: Entry];
  belt: [entry: Entry];
}>();
const library = useLibrary();
/** Cards that are laid out at once. */
const CARDS = 120;
const most = ref(CARDS);
const lists = ref<Entry[][]>([]);
watch(
  () => [props.shelf, props.again, most.value],
  () => (lists.value = props.shelf.groups.map(({ entries }) => entries.slice(0, most.value))),
  { immediate: true },
);
const title = computed(() => {
  if (props.shelf.pack) return props.shelf.pack.card.name;
  return props.shelf.id === BASE ? 'Base brushes' : 'Not in a pack';
});
const about = computed(() => {
  const { pack } = props.shelf;
  if (!pack) return props.shelf.id === BASE ? 'stay as they are; the first change makes a copy' : '';
  const licence = LICENCES.find(({ value }) => value === pack.licence)?.label ?? pack.licence;
  return [pack.card.author, licence, pack.rack].filter(Boolean).join(' · ');
});
const cover = computed(() => {
  const { pack, groups } = props.shelf;
  const named = pack?.cover ? library.brushHead(pack.cover) : null;
  const [first = null] = groups.flatMap(({ entries }) => entries.map(({ brush }) => brush));
  return named ?? first;
});
const left = (g: number): number => props.shelf.groups[g].entries.length - (lists.value[g]?.length ?? 0);
/** Of what was searched for there is nothing in it. */
const hides = (g: number): boolean => props.still && props.shelf.groups[g].entries.length === 0;
const rules = computed(() => ({
  name: 'brushes',
  pull: props.shelf.id === BASE ? ('clone' as const) : true,
  put: props.shelf.id !== BASE,
}));

async function dropped(e: DraggableEvent<Entry> & { originalEvent?: Event }): Promise<void> {
  const id = e.item.dataset['card']!;
  const { shelf, group } = e.to.dataset;
  const at = e.newIndex ?? 0;
  await nextTick();
  const cards = [...e.to.querySelectorAll<HTMLElement>(':scope > [data-card]')].map((card) => card.dataset['card']!);
  const keys = e.originalEvent as MouseEvent | undefined;
  emit('dropped', {
    id,
    from: props.shelf.id,
    to: shelf ?? props.shelf.id,
    group: Number(group ?? 0),
    following: cards.slice(at + 1),
    copies: Boolean(keys?.ctrlKey || keys?.altKey),
  });
}
</script>

<template>
  <section class="shelf" :aria-label="title">
    <header>
      <ToolButton
        :icon="folded ? ChevronRight : ChevronDown"
        :label="folded ? `Show ${title}` : `Fold ${title}`"
        :help="folded ? 'Show' : 'Fold'"
        @click="emit('fold')"
      />
      <BrushDisc v-if="shelf.pack && cover" class="cover" :brush="cover" :size="34" square />
      <h2>{{ title }}</h2>
      <span class="muted">{{ shelf.count }} {{ shelf.count === 1 ? 'brush' : 'brushes' }}</span>
      <span v-if="about" class="muted about">{{ about }}</span>
      <span v-if="shelf.pack" class="tools">
        <ToolButton
          :icon="Pencil"
          :label="`About ${title}`"
          help="Name, maker, licence, cover"
          @click="emit('about')"
        />
        <ToolButton
          :icon="Download"
          :label="`Write ${title}`"
          help="Write it as a pack file or as plain folders"
          :disabled="shelf.count === 0"
          @click="emit('write')"
        />
        <ToolButton :icon="FolderPlus" :label="`New group in ${title}`" help="New group" @click="emit('group')" />
        <ToolButton
          :icon="Trash2"
          :label="`Delete the pack ${title}`"
          help="Delete the pack; its brushes stay"
          @click="emit('remove')"
        />
      </span>
    </header>
    <template v-if="!folded">
      <template v-for="(group, g) in shelf.groups" :key="g">
        <PushButton
          v-if="shelf.groups.length > 1 && !hides(g)"
          look="quiet"
          small
          class="group"
          :title="`Rename or remove this group`"
          @click="emit('renameGroup', g)"
          >{{ group.name || 'No group' }} <span class="muted">{{ group.entries.length }}</span></PushButton
        >
        <VueDraggable
          v-if="lists[g] && !hides(g)"
          v-model="lists[g]"
          tag="ul"
          class="grid"
          :class="{ bare: lists[g].length === 0 }"
          :data-shelf="shelf.id"
          :data-group="g"
          :group="rules"
          :sort="shelf.id !== BASE && shelf.id !== LOOSE"
          :disabled="still"
          :animation="140"
          :force-fallback="true"
          :fallback-on-body="true"
          :fallback-tolerance="6"
          :delay="180"
          :delay-on-touch-only="true"
          :scroll-sensitivity="90"
          :scroll-speed="18"
          ghost-class="gap"
          filter=".actions, .tick"
          :prevent-on-filter="false"
          @end="dropped"
        >
          <RackCard
            v-for="entry in lists[g]"
            :key="entry.brush.id"
            :entry="entry"
            :belted="library.beltIds.includes(entry.brush.id)"
            :chosen="chosen.ids.value.has(entry.brush.id)"
            :choosing="chosen.ids.value.size > 0"
            @press="(e) => emit('press', entry, e)"
            @toggle="chosen.toggle(entry.brush.id)"
            @copy="emit('copy', entry)"
            @rename="emit('rename', entry)"
            @remove="emit('removeBrush', entry)"
            @belt="emit('belt', entry)"
          />
        </VueDraggable>
        <p v-if="shelf.pack && shelf.groups.length === 1 && group.entries.length === 0" class="empty">
          Drag brushes here, or choose some and put them in.
        </p>
        <PushButton v-if="left(g) > 0" small @click="most += CARDS">{{ left(g) }} more</PushButton>
      </template>
    </template>
  </section>
</template>

<style scoped src="../places/rack.css"></style>
<style scoped>
.shelf {
  padding: 2px 0 18px;
}
header {
  display: flex;
  align-items: center;
  gap: 9px;
  min-height: 40px;
  margin: 0 0 8px -8px;
  border-bottom: 1px solid var(--line-soft);
}
h2 {
  margin: 0;
  font-size: 14px;
}
.about {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.tools {
  display: flex;
  margin-left: auto;
}
.group {
  margin: 6px 0 6px -8px;
  font-weight: 600;
}
.grid.bare {
  min-height: 56px;
  border: 1px dashed var(--line);
  border-radius: var(--r);
}
.empty {
  margin: -38px 0 20px;
  color: var(--ink-2);
  text-align: center;
  pointer-events: none;
}
/* What is dragged leaves a gap where it will stand. */
:deep(.gap) {
  opacity: 0.25;
}
</style>
