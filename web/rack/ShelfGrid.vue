<script setup lang="ts">
/** Brushes of a group, in a grid: they are dragged within it and to others. Of many only those seen are laid out. */
import { computed, nextTick, ref, watch } from 'vue';
import { VueDraggable, type DraggableEvent } from 'vue-draggable-plus';
import { useBelts } from '../stores/belts';
import { BASE, isList, LOOSE, RECENT, type Entry } from './entries';
import RackCard from './RackCard.vue';
import type { Chosen } from './useChosen';
import { useRowWindow } from './useRowWindow';

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
  shelf: string;
  group: number;
  entries: readonly Entry[];
  chosen: Chosen;
  /** Counts: shows again what is, whatever was dragged. */
  again: number;
  /** While brushes are searched their order is not all of it. */
  still: boolean;
}>();
const emit = defineEmits<{
  dropped: [drop: Dropped];
  press: [entry: Entry, e: MouseEvent];
  copy: [entry: Entry];
  rename: [entry: Entry];
  remove: [entry: Entry];
  belt: [entry: Entry];
  favourite: [entry: Entry];
}>();
const belts = useBelts();
const belted = computed(() => new Set(belts.open.ids));
const draggable = ref<{ $el: HTMLElement } | null>(null);
const dragging = ref(false);
/** From the press on a card until it is let go or dragged: its place is known from then. */
const pressed = ref(false);
/** What is laid out stays as it is meanwhile: the drag goes by the places of cards. */
const frozen = computed(() => pressed.value || dragging.value);
const { range, style, windowed } = useRowWindow(
  computed(() => draggable.value?.$el ?? null),
  computed(() => props.entries.length),
  frozen,
);
const list = ref<Entry[]>([]);
watch(
  () => [props.entries, props.again, range.value.from, range.value.to, frozen.value],
  () => {
    if (!frozen.value) list.value = props.entries.slice(range.value.from, range.value.to);
  },
  { immediate: true },
);
/** The first that isn’t laid out any more. */
const next = computed(() => props.entries[range.value.to]?.brush.id);
const rules = computed(() => ({
  name: 'brushes',
  pull: props.shelf === BASE ? ('clone' as const) : true,
  put: props.shelf !== BASE && !isList(props.shelf),
}));

async function dropped(e: DraggableEvent<Entry> & { originalEvent?: Event }): Promise<void> {
  const id = e.item.dataset['card']!;
  const { shelf, group, next: beyond } = e.to.dataset;
  const at = e.newIndex ?? 0;
  await nextTick();
  const cards = [...e.to.querySelectorAll<HTMLElement>(':scope > [data-card]')].map((card) => card.dataset['card']!);
  const keys = e.originalEvent as MouseEvent | undefined;
  dragging.value = false;
  emit('dropped', {
    id,
    from: props.shelf,
    to: shelf ?? props.shelf,
    group: Number(group ?? 0),
    following: [...cards.slice(at + 1), ...(beyond ? [beyond] : [])],
    copies: Boolean(keys?.ctrlKey || keys?.altKey),
  });
}
</script>

<template>
  <VueDraggable
    ref="draggable"
    v-model="list"
    tag="ul"
    class="grid"
    :class="{ bare: entries.length === 0, windowed }"
    :style="style"
    :data-shelf="shelf"
    :data-group="group"
    :data-next="next"
    :group="rules"
    :sort="shelf !== BASE && shelf !== LOOSE && shelf !== RECENT"
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
    @choose="pressed = true"
    @unchoose="pressed = false"
    @start="dragging = true"
    @end="dropped"
  >
    <RackCard
      v-for="entry in list"
      :key="entry.brush.id"
      :entry="entry"
      :belted="belted.has(entry.brush.id)"
      :belt-name="belts.open.name"
      :favourite="belts.favourites.has(entry.brush.id)"
      :chosen="chosen.ids.value.has(entry.brush.id)"
      :choosing="chosen.ids.value.size > 0"
      @press="(e) => emit('press', entry, e)"
      @toggle="chosen.toggle(entry.brush.id)"
      @copy="emit('copy', entry)"
      @rename="emit('rename', entry)"
      @remove="emit('remove', entry)"
      @belt="emit('belt', entry)"
      @favourite="emit('favourite', entry)"
    />
  </VueDraggable>
</template>

<style scoped src="../places/rack.css"></style>
<style scoped>
.grid.bare {
  min-height: 56px;
  border: 1px dashed var(--line);
  border-radius: var(--r);
}
/* Those of a long grid that aren’t seen aren’t there; the others have their true height from the first. */
.grid.windowed :deep(.card) {
  content-visibility: visible;
}
/* What is dragged leaves a gap where it will stand. */
:deep(.gap) {
  opacity: 0.25;
}
</style>
