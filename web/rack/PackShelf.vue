<script setup lang="ts">
/** A shelf of the rack: a pack with its head and its groups, or brushes that are in none. */
import { ChevronDown, ChevronRight, Download, FolderPlus, Pencil, Trash2 } from '@lucide/vue';
import { computed } from 'vue';
import { LICENCES } from '#core/settings';
import BrushDisc from '../controls/BrushDisc.vue';
import PushButton from '../controls/PushButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import ToolButton from '../controls/ToolButton.vue';
import { useLibrary } from '../stores/library';
import { BASE, BELT, RECENT, type Entry, type Shelf } from './entries';
import ShelfGrid, { type Dropped } from './ShelfGrid.vue';
import type { Chosen } from './useChosen';

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
  favourite: [entry: Entry];
}>();
const library = useLibrary();
const ABOUT: Record<string, string> = {
  [BASE]: 'stay as they are; the first change makes a copy',
  [RECENT]: 'in this browser, the last first',
  [BELT.trim()]: 'at hand on every bench; drag them into order',
};
const title = computed(() => props.shelf.title);
const about = computed(() => {
  const { pack } = props.shelf;
  if (!pack) return ABOUT[props.shelf.id.split(' ')[0]] ?? '';
  const licence = LICENCES.find(({ value }) => value === pack.licence)?.label ?? pack.licence;
  return [pack.card.author, licence, pack.rack].filter(Boolean).join(' · ');
});
const cover = computed(() => {
  const { pack, groups } = props.shelf;
  const named = pack?.cover ? library.brushHead(pack.cover) : null;
  const [first = null] = groups.flatMap(({ entries }) => entries.map(({ brush }) => brush));
  return named ?? first;
});
/** Of what was searched for there is nothing in it. */
const hides = (g: number): boolean => props.still && props.shelf.groups[g].entries.length === 0;
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
      <span class="muted count">{{ shelf.count }} {{ shelf.count === 1 ? 'brush' : 'brushes' }}</span>
      <span v-if="about" class="muted about">{{ about }}</span>
      <ToolGroup v-if="shelf.pack" class="tools" :label="`What is done to ${title}`">
        <ToolButton
          :icon="Pencil"
          :label="`About ${title}`"
          help="Name, maker, licence, cover"
          @click="emit('about')"
        />
        <ToolButton
          :icon="Download"
          :label="`Write ${title}`"
          help="Export as a pack file or as plain folders"
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
      </ToolGroup>
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
        <ShelfGrid
          v-if="!hides(g)"
          :shelf="shelf.id"
          :group="g"
          :entries="group.entries"
          :chosen="chosen"
          :again="again"
          :still="still"
          @dropped="(drop) => emit('dropped', drop)"
          @press="(entry, e) => emit('press', entry, e)"
          @copy="(entry) => emit('copy', entry)"
          @rename="(entry) => emit('rename', entry)"
          @remove="(entry) => emit('removeBrush', entry)"
          @belt="(entry) => emit('belt', entry)"
          @favourite="(entry) => emit('favourite', entry)"
        />
        <p v-if="shelf.pack && shelf.groups.length === 1 && group.entries.length === 0" class="empty">
          Drag brushes here, or choose some and put them in.
        </p>
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
  flex: 0 1 auto;
  margin: 0;
  font-size: 14px;
}
h2,
.count {
  white-space: nowrap;
}
h2,
.about {
  min-width: 40px;
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
.empty {
  margin: -38px 0 20px;
  color: var(--ink-2);
  text-align: center;
  pointer-events: none;
}
</style>
