<script setup lang="ts">
/** The parts that the brush sets down: their order, which comes next, and what each has beside the others. */
import { Copy, Plus, Replace, Trash2 } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import {
  MOST_PARTS,
  PART_ORDERS,
  PartEntrySchema,
  type Brush,
  type PartEntry,
  type PartOrder,
  type PartSet,
} from '#core/settings';
import { pictureUrl } from '../api/client';
import { plain } from '../api/plain';
import CheckNote from '../controls/CheckNote.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import PushButton from '../controls/PushButton.vue';
import SettingList from '../controls/SettingList.vue';
import ToolButton from '../controls/ToolButton.vue';
import { useLibrary } from '../stores/library';
import PartChooser from './PartChooser.vue';

const props = defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const library = useLibrary();
const ORDERS: Record<PartOrder, { label: string; help: string }> = {
  sequence: { label: 'In turn', help: 'One after the other along the row' },
  random: { label: 'By chance', help: 'Each as often as its chance says' },
  chosen: { label: 'One', help: 'The one that is chosen above, alone' },
};
const set = computed(() => props.brush.parts);
const at = computed(() => Math.min(set.value.chosen, Math.max(0, set.value.entries.length - 1)));
const entry = computed<PartEntry | null>(() => set.value.entries[at.value] ?? null);
const gone = computed(() => set.value.entries.filter(({ partId }) => library.loaded && !library.part(partId)));

const change = (by: (parts: PartSet) => void): void => emit('edit', (brush) => by(brush.parts));
const newEntry = (partId: string): PartEntry => PartEntrySchema.parse({ partId });
function add(ids: readonly string[]): void {
  change((parts) => {
    parts.entries.push(...ids.slice(0, MOST_PARTS - parts.entries.length).map(newEntry));
    parts.chosen = parts.entries.length - 1;
  });
}
function replace(ids: readonly string[]): void {
  const [id] = ids;
  if (id) change((parts) => (parts.entries[at.value] = { ...parts.entries[at.value], partId: id }));
}
function duplicate(): void {
  change((parts) => {
    parts.entries.splice(at.value + 1, 0, plain(parts.entries[at.value]));
    parts.chosen = at.value + 1;
  });
}
function remove(): void {
  change((parts) => {
    parts.entries.splice(at.value, 1);
    parts.chosen = Math.max(0, Math.min(at.value, parts.entries.length - 1));
  });
}
function dropGone(): void {
  change((parts) => {
    parts.entries = parts.entries.filter(({ partId }) => library.part(partId));
    parts.chosen = 0;
  });
}

/** What the hand drags about; the brush takes it over when it lets go. */
const order = ref<{ key: number; entry: PartEntry }[]>([]);
watch(
  () => set.value.entries,
  (entries) => (order.value = entries.map((one, key) => ({ key, entry: one }))),
  { immediate: true, deep: true },
);
function reordered(): void {
  const next = order.value.map(({ entry: one }) => plain(one));
  const chosen = order.value.findIndex(({ key }) => key === at.value);
  change((parts) => Object.assign(parts, { entries: next, chosen: Math.max(0, chosen) }));
}
</script>

<template>
  <div class="column">
    <div class="heading">
      Parts <small>{{ set.entries.length || 'none yet' }}</small>
    </div>
    <p v-if="set.entries.length === 0" class="muted">
      This brush sets parts down. Add some, or capture them on a scan or a slab.
    </p>
    <VueDraggable v-model="order" class="discs" :animation="120" tag="ul" @end="reordered">
      <li v-for="(one, i) in order" :key="one.key">
        <PushButton
          look="face"
          :on="one.key === at"
          :title="library.part(one.entry.partId)?.card.name ?? 'This part is gone'"
          :aria-label="`Part ${i + 1}: ${library.part(one.entry.partId)?.card.name ?? 'gone'}`"
          @click="change((parts) => (parts.chosen = one.key))"
        >
          <img
            v-if="library.part(one.entry.partId)"
            :src="pictureUrl('parts', one.entry.partId, library.part(one.entry.partId)!.revision)"
            alt=""
            draggable="false"
          />
          <span v-else class="none">?</span>
        </PushButton>
      </li>
    </VueDraggable>
    <CheckNote
      v-if="gone.length > 0"
      :sentence="`${gone.length === 1 ? 'One part is' : `${gone.length} parts are`} gone; the others are set down.`"
      mend="Take them off"
      @mend="dropGone"
    />
    <div class="tools">
      <PartChooser several @choose="add">
        <PushButton small :disabled="set.entries.length >= MOST_PARTS"><Plus :size="14" /> Add…</PushButton>
      </PartChooser>
      <template v-if="entry">
        <PartChooser @choose="replace">
          <ToolButton :icon="Replace" label="Replace" help="Another part in its place" />
        </PartChooser>
        <ToolButton :icon="Copy" label="Duplicate" help="Once more, with settings of its own" @click="duplicate" />
        <ToolButton :icon="Trash2" label="Take off" help="Take it off this brush" @click="remove" />
      </template>
    </div>
    <template v-if="set.entries.length > 0">
      <div class="heading">Which comes next</div>
      <ChoiceBar
        label="Which part comes next"
        :model-value="set.order"
        :options="PART_ORDERS.map((value) => ({ value, ...ORDERS[value] }))"
        @update:model-value="(next) => change((parts) => (parts.order = next))"
      />
    </template>
    <template v-if="entry">
      <div class="heading">
        <span class="name">{{ library.part(entry.partId)?.card.name ?? 'Gone' }}</span>
        <RouterLink v-if="library.part(entry.partId)" class="to" :to="`/bench/part/${entry.partId}`">Open</RouterLink>
      </div>
      <div class="numbers">
        <SettingList
          :schema="PartEntrySchema"
          :of="entry"
          :paths="['scale', 'sink', 'turn', 'chance']"
          :resting="set.order === 'random' ? [] : ['chance']"
          @edit="(by) => change((parts) => by(parts.entries[at]))"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.column {
  display: grid;
  gap: 8px;
  align-content: start;
  padding: 12px;
  overflow: auto;
  border-right: 1px solid var(--line-soft);
}
.discs {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 6px;
}
.discs :deep(button) {
  padding: 2px;
  border: 2px solid transparent;
  border-radius: 50%;
  width: 100%;
}
.discs :deep(button.on) {
  border-color: var(--act);
}
.discs img,
.none {
  display: grid;
  place-content: center;
  width: 100%;
  aspect-ratio: 1;
  border-radius: 50%;
  background: var(--leaf);
}
.tools {
  display: flex;
  gap: 4px;
  align-items: center;
}
.numbers {
  display: grid;
  gap: 8px;
  --label: 46px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.to {
  margin-left: auto;
  font-weight: 400;
  color: var(--act-deep);
}
</style>
