<script setup lang="ts">
/** The parts that the brush sets down: their order, which comes next, and what each has beside the others. */
import { Copy, Download, Plus, Replace, Trash2 } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import {
  MOST_PARTS,
  PART_ORDERS,
  addParts,
  PartEntrySchema,
  rearranged,
  type Brush,
  type PartEntry,
  type PartOrder,
  type PartSet,
} from '#core/settings';
import { pictureUrl } from '../api/client';
import { plain } from '../api/plain';
import CheckNote from '../controls/CheckNote.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import MeshFileButtons from '../controls/MeshFileButtons.vue';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import SelectField from '../controls/SelectField.vue';
import SettingList from '../controls/SettingList.vue';
import ToolButton from '../controls/ToolButton.vue';
import { saveFile } from '../controls/saveFile';
import { failNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { usePartMeshes } from '../stores/partMeshes';
import type { MeshEnding } from '../workers/meshOut';
import { meshFile } from '../workers/meshOutFile';
import { besideEachOther } from '../workers/partRow';
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
const add = (ids: readonly string[]): void => change((parts) => addParts(parts, ids));
function replace(ids: readonly string[]): void {
  const [id] = ids;
  if (id) change((parts) => (parts.entries[at.value] = { ...parts.entries[at.value], partId: id }));
}
const places = computed(() => set.value.entries.map((_, i) => i));
const rearrange = (from: readonly number[], chosen?: number): void =>
  change((parts) => Object.assign(parts, rearranged(plain(parts), from), chosen === undefined ? {} : { chosen }));
function duplicate(): void {
  const from = [...places.value];
  from.splice(at.value + 1, 0, at.value);
  rearrange(from, at.value + 1);
}
const remove = (): void => rearrange(places.value.filter((i) => i !== at.value));
const dropGone = (): void => rearrange(places.value.filter((i) => library.part(set.value.entries[i].partId)));

const writing = ref(false);
/** All of them, one beside the other, each on its seat. */
async function download(ending: MeshEnding): Promise<void> {
  writing.value = true;
  try {
    const heads = set.value.entries.flatMap(({ partId }) => library.part(partId) ?? []);
    const meshes = usePartMeshes();
    const parts = await Promise.all(heads.map(async (head) => ({ head, mesh: await meshes.of(head.mesh) })));
    saveFile(`${props.brush.card.name}, parts.${ending}`, await meshFile(ending, besideEachOther(parts)));
  } catch (error) {
    failNotice(`No file was written. ${sentence(error)}`);
  } finally {
    writing.value = false;
  }
}

const STOPS = [
  { key: 'ends', label: 'At the ends' },
  { key: 'corners', label: 'At corners' },
] as const;
const stopChoices = computed(() => [
  { value: -1, label: 'as it comes' },
  ...set.value.entries.map(({ partId }, value) => ({
    value,
    label: `${value + 1}: ${library.part(partId)?.card.name ?? 'gone'}`,
  })),
]);
/** Ends and corners are met where the row is spaced to them. */
function setStop(key: 'ends' | 'corners', at: number): void {
  emit('edit', (brush) => {
    brush.parts[key] = at < 0 ? null : at;
    if (at >= 0) brush.stroke.toEnds = true;
  });
}

/** What the hand drags about; the brush takes it over when it lets go. */
const order = ref<{ key: number; entry: PartEntry }[]>([]);
watch(
  () => set.value.entries,
  (entries) => (order.value = entries.map((one, key) => ({ key, entry: one }))),
  { immediate: true, deep: true },
);
const reordered = (): void => rearrange(order.value.map(({ key }) => key));
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
        <ToolButton :icon="Copy" label="Duplicate" help="Another copy, with settings of its own" @click="duplicate" />
        <ToolButton :icon="Trash2" label="Take off" help="Remove it from this brush" @click="remove" />
        <PopMenu :width="190">
          <template #reference
            ><ToolButton :icon="Download" label="Download the set" help="The whole set as one file, in millimetres"
          /></template>
          <MeshFileButtons :disabled="writing" @write="download" />
        </PopMenu>
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
    <div v-if="brush.stroke.type === 'path' && set.entries.length > 1" class="stops">
      <label v-for="stop in STOPS" :key="stop.key">
        <span>{{ stop.label }}</span>
        <SelectField
          :label="stop.label"
          :choices="stopChoices"
          :model-value="set[stop.key] ?? -1"
          @update:model-value="(at: number) => setStop(stop.key, at)"
        />
      </label>
    </div>
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
  grid-template-columns: minmax(0, 1fr);
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
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
}
.stops,
.stops label {
  display: grid;
  gap: 4px;
}
.stops label {
  grid-template-columns: 74px minmax(0, 1fr);
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
