<script setup lang="ts">
/**
 * The rack: packs as shelves, one under the other, then what is in no pack, then the base brushes. Brushes are opened,
 * chosen, dragged into order and between packs; every change can be undone.
 */
import { Captions } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { brushesOf } from '#core/settings';
import { counted } from '#core/words';
import ChoiceBar from '../controls/ChoiceBar.vue';
import LoadingPlaces from '../controls/LoadingPlaces.vue';
import FindHead from '../controls/FindHead.vue';
import PushButton from '../controls/PushButton.vue';
import ScrollArea from '../controls/ScrollArea.vue';
import RenameDialog from '../controls/RenameDialog.vue';
import type { Order } from '../controls/finding';
import { useSaidSteps } from '../controls/saidSteps';
import { useShortcuts } from '../keys/shortcuts';
import ToolButton from '../controls/ToolButton.vue';
import BackupsDialog from '../backups/BackupsDialog.vue';
import TrashDialog from '../controls/TrashDialog.vue';
import UndoButtons from '../controls/UndoButtons.vue';
import TopBar from '../controls/TopBar.vue';
import { PICTURE_ENDINGS, usePickFiles } from '../controls/pickFiles';
import { failNotice, orSay, trying } from '../controls/undoNotice';
import { useFilesDropped } from '../controls/useFilesDropped';
import ChosenBar from '../rack/ChosenBar.vue';
import { BASE, BELT, isList, LOOSE, useShelves, type Entry } from '../rack/entries';
import GroupDialog from '../rack/GroupDialog.vue';
import FilesDialog, { type ToMake } from '../rack/FilesDialog.vue';
import ManyDialog from '../rack/ManyDialog.vue';
import OpenPackDialog from '../rack/OpenPackDialog.vue';
import PackDialog from '../rack/PackDialog.vue';
import PackShelf from '../rack/PackShelf.vue';
import { useRackBrushes } from '../rack/rackBrushes';
import RackRail from '../rack/RackRail.vue';
import type { Dropped } from '../rack/ShelfGrid.vue';
import WriteDialog, { type ToWrite } from '../rack/WriteDialog.vue';
import { useChosen } from '../rack/useChosen';
import { useRubberBand } from '../rack/useRubberBand';
import { useCopiedSettings } from '../stores/copiedSettings';
import { useBelts } from '../stores/belts';
import { useLibrary } from '../stores/library';
import { useStoredThings } from '../stores/storedThings';
import { useManyBrushes } from '../stores/manyBrushes';
import { usePackFiles } from '../stores/packFiles';
import { usePacks } from '../stores/packs';
import { MESH_ENDINGS } from '../workers/meshFiles';
import DeleteDialog from './DeleteDialog.vue';
import WaysIn from './WaysIn.vue';
import { droppedFiles, folderOf, sourcesIn } from './droppedFiles';
import { useInAddress } from '../controls/inAddress';

/** Least side of a picture, pixels. */
const SIDES = { small: 96, medium: 172, large: 280 } as const;
const SIZES = [
  { value: 'small', label: 'S', help: 'Small pictures' },
  { value: 'medium', label: 'M', help: 'Medium pictures' },
  { value: 'large', label: 'L', help: 'Large pictures' },
] as const;
const library = useLibrary();
const packs = usePacks();
const files = usePackFiles();
const many = useManyBrushes();
const things = useStoredThings();
const { renaming, open, fresh, copy, askName, rename, remove, toBelt, toFavourites } = useRackBrushes();
const belts = useBelts();
const copied = useCopiedSettings();
const wanted = useInAddress('search');
const tag = useInAddress('tag');
const folded = useLocalStorage<string[]>('shelves-folded', []);
const order = useLocalStorage<Order>('rack-order', 'hand');
const size = useLocalStorage<keyof typeof SIDES>('rack-pictures', 'medium');
const named = useLocalStorage('rack-names', true);
const page = ref<HTMLElement | null>(null);
const again = ref(0);
const about = ref<string | null>(null);
const asked = ref<'names' | 'tags' | null>(null);
const grouping = ref<{ pack: string; index: number } | null>(null);

void library.ready().then(() => library.loadDrafts());

const { entries, shelves, lists, shown, columns } = useShelves(wanted, tag, order);
const tags = computed(() => [...new Set(entries.value.flatMap((e) => e.brush.card.tags))].sort());
const searched = computed(() => wanted.value.trim() !== '' || tag.value !== '');
const unfolded = computed(() => shown.value.filter(({ id }) => !folded.value.includes(id) || searched.value));
const cards = computed(() =>
  unfolded.value.flatMap(({ groups }) => groups.flatMap((group) => group.entries.map(({ brush }) => brush.id))),
);
const chosen = useChosen(cards);
const { band, begin } = useRubberBand(page, chosen.ids, chosen.set);
const baseIds = computed(() => new Set(entries.value.filter(({ base }) => base).map(({ brush }) => brush.id)));
const bases = computed(() => chosen.inOrder.value.filter((id) => baseIds.value.has(id)).length);
const own = computed(() => chosen.inOrder.value.filter((id) => !baseIds.value.has(id)));
/** Packs that are shown and hold something of what is chosen. */
const holding = computed(() =>
  shown.value.filter(({ pack }) => pack && brushesOf(pack).some((id) => chosen.ids.value.has(id))).map(({ id }) => id),
);

/** For who is new here, and where there is nothing of one's own. */
const waysClosed = useLocalStorage('ways-in-closed', false);
const owned = computed(() => entries.value.some(({ base }) => !base));
const loading = computed(() => !library.loaded && !library.failed && library.brushes.length === 0);
const waysIn = computed(() => library.loaded && !searched.value && (!waysClosed.value || !owned.value));
useSaidSteps();

function press({ brush }: Entry, e: MouseEvent): void {
  if (!chosen.pressed(brush.id, e)) open(brush);
}

/** What is chosen goes with what is dragged. */
function dropped({ id, from, to, group, following, copies }: Dropped): void {
  const ids = chosen.ids.value.has(id) ? chosen.inOrder.value : [id];
  if (isList(to)) {
    orSay(() => belts.place(to.slice(BELT.length), ids, following));
    again.value++;
    return;
  }
  trying(() => {
    if (to === LOOSE) {
      if (from !== LOOSE && from !== BASE) packs.takeOut(ids, [from]);
    } else if (to !== BASE) {
      const before = following.find((next) => !ids.includes(next)) ?? null;
      packs.place(ids, to, { group, before }, copies || from === LOOSE || from === BASE ? [] : [from]);
    }
  });
  again.value++;
}

function putIn(pack: string | null): void {
  const ids = chosen.inOrder.value;
  trying(() => {
    if (pack === null) about.value = packs.create('New pack', ids).id;
    else packs.place(ids, pack, { group: (packs.docOf(pack)?.groups.length ?? 1) - 1, before: null });
  });
}
function create(): void {
  trying(() => (about.value = packs.create('New pack', []).id));
}
function addGroup(id: string): void {
  trying(() =>
    packs.change(
      `Group added.`,
      [id],
      (pack) => ({ ...pack, groups: [...pack.groups, { name: `Group ${pack.groups.length + 1}`, brushes: [] }] }),
      false,
    ),
  );
}
const writing = ref<ToWrite | null>(null);
const pickPack = usePickFiles({ accept: '.zip,application/zip' }, ([file]) => openPack(file));
function openPack(file: File): void {
  orSay(() => files.look(file));
}
const making = ref<ToMake | null>(null);
const pickFiles = usePickFiles(
  { accept: [PICTURE_ENDINGS, ...MESH_ENDINGS.map((ending) => `.${ending}`)].join(), several: true },
  (all) => (making.value = { files: sourcesIn(all), folder: '' }),
);
/** A pack is opened; pictures, meshes and folders of them become brushes. */
async function take(data: DataTransfer): Promise<void> {
  const folder = folderOf(data);
  const all = await droppedFiles(data);
  const pack = all.find(({ name }) => /\.zip$/i.test(name));
  if (pack) return openPack(pack);
  const some = sourcesIn(all);
  if (some.length > 0) making.value = { files: some, folder };
  else
    failNotice(
      'There is nothing in it that becomes a brush: pack files, PNG, JPEG, WebP, TIFF, EXR, SVG, OBJ, PLY, STL and GLB can be opened.',
    );
}
const dropping = useFilesDropped(page, (data) => orSay(() => take(data)));
function fold(id: string): void {
  folded.value = folded.value.includes(id) ? folded.value.filter((one) => one !== id) : [...folded.value, id];
}

const some = (): boolean => chosen.ids.value.size > 0;
const one = (): Entry | undefined =>
  chosen.ids.value.size === 1 ? entries.value.find(({ brush }) => chosen.ids.value.has(brush.id)) : undefined;
function askNames(): void {
  const single = one();
  if (single) askName(single.brush);
  else asked.value = 'names';
}
function removeChosen(): void {
  const ids = own.value;
  const name = ids.length === 1 ? `“${one()?.brush.card.name ?? ''}”` : counted(ids.length, 'brush', 'brushes');
  orSay(() => things.askRemoveBrushes(name, ids, () => many.remove(ids)));
}
function removeOne(entry: Entry): void {
  const { id, card } = entry.brush;
  orSay(() => things.askRemoveBrushes(`“${card.name}”`, [id], () => remove(entry)));
}
useShortcuts([
  { command: 'all', what: 'Choose all that is shown', run: chosen.all },
  { command: 'cancel', what: 'Choose none', run: chosen.none, when: some },
  { command: 'remove', run: removeChosen, when: () => own.value.length > 0 },
  { command: 'rename', run: askNames, when: () => own.value.length > 0 },
]);
</script>

<template>
  <div class="place">
    <TopBar>
      <template #end>
        <BackupsDialog />
        <TrashDialog />
        <UndoButtons />
        <PushButton look="main" @click="fresh">New brush</PushButton>
      </template>
    </TopBar>
    <div class="racks">
      <RackRail
        :shelves="shelves"
        :lists="lists"
        :total="entries.length"
        @create="create"
        @open="pickPack"
        @files="pickFiles"
      />
      <div class="shelves" :class="{ over: dropping }">
        <ScrollArea>
          <div
            ref="page"
            class="ground"
            :class="[`pictures-${size}`, { nameless: !named, split: columns.length > 1 }]"
            :style="{ '--card': `${SIDES[size]}px` }"
            @pointerdown="begin"
          >
            <FindHead
              v-model:wanted="wanted"
              v-model:order="order"
              title="Rack"
              placeholder="Name, maker, tag, action, form…"
              label="Search the rack"
            >
              <ChoiceBar v-model="size" class="sizes" label="Size of pictures" :options="SIZES" />
              <ToolButton
                :icon="Captions"
                :label="named ? 'Names off' : 'Names on'"
                help="Names and notes under the pictures"
                :on="named"
                @click="named = !named"
              />
              <div class="tags">
                <PushButton v-for="t in tags" :key="t" class="tag" :on="tag === t" @click="tag = tag === t ? '' : t">
                  {{ t }}
                </PushButton>
              </div>
            </FindHead>
            <WaysIn v-if="waysIn" :closable="owned" @close="waysClosed = true" />
            <p v-if="library.failed" class="note">{{ library.failed }}</p>
            <p v-if="packs.problem" class="note" role="alert">{{ packs.problem }}</p>
            <div v-for="row in library.skipped" :key="row.id" class="note" role="alert">
              “{{ row.name }}” is left out. {{ row.reason }}
            </div>
            <LoadingPlaces v-if="loading" of="cards" label="Loading the rack" />
            <template v-else>
              <p v-if="shown.length === 0" class="none">
                {{
                  entries.length === 0
                    ? 'The rack is empty. Begin in one of the ways above, or with a new brush.'
                    : 'No brush fits this search.'
                }}
              </p>
              <div class="columns" :class="{ beside: columns.length > 1 }">
                <component
                  :is="columns.length > 1 ? ScrollArea : 'div'"
                  v-for="column in columns"
                  :key="column.rack"
                  v-bind="columns.length > 1 ? { within: true } : {}"
                >
                  <h2 v-if="columns.length > 1" class="rack-name">{{ column.rack || 'My rack' }}</h2>
                  <PackShelf
                    v-for="shelf in column.shelves"
                    :key="shelf.id"
                    :shelf="shelf"
                    :chosen="chosen"
                    :folded="folded.includes(shelf.id) && !searched"
                    :again="again"
                    :still="searched || order !== 'hand'"
                    @fold="fold(shelf.id)"
                    @about="about = shelf.id"
                    @remove="orSay(() => packs.remove(shelf.id))"
                    @group="addGroup(shelf.id)"
                    @write="writing = { pack: shelf.id, ids: shelf.pack ? brushesOf(shelf.pack) : [] }"
                    @rename-group="(index) => (grouping = { pack: shelf.id, index })"
                    @dropped="dropped"
                    @press="press"
                    @copy="(entry) => copy(entry.brush)"
                    @rename="(entry) => askName(entry.brush)"
                    @remove-brush="removeOne"
                    @belt="(entry) => toBelt(entry.brush)"
                    @favourite="(entry) => toFavourites(entry.brush)"
                  />
                </component>
              </div>
            </template>
          </div>
        </ScrollArea>
        <ChosenBar
          v-if="chosen.ids.value.size > 0 || many.progress"
          :count="chosen.ids.value.size"
          :bases="bases"
          :packed="holding.length > 0"
          @put-in="putIn"
          @take-out="trying(() => packs.takeOut(chosen.inOrder.value, holding))"
          @names="askNames"
          @tags="asked = 'tags'"
          @copy="orSay(() => many.copy(chosen.inOrder.value))"
          @paste="orSay(() => many.paste(own, copied.told, copied.paste))"
          @write="writing = { pack: null, ids: chosen.inOrder.value }"
          @remove="removeChosen"
          @none="chosen.none"
        />
      </div>
    </div>
    <div
      v-if="band"
      class="band"
      :style="{ left: `${band.left}px`, top: `${band.top}px`, width: `${band.width}px`, height: `${band.height}px` }"
    />
    <PackDialog v-model="about" />
    <FilesDialog v-model="making" />
    <WriteDialog v-model="writing" />
    <OpenPackDialog />
    <DeleteDialog />
    <ManyDialog v-model="asked" :chosen="own" />
    <GroupDialog v-model="grouping" />
    <RenameDialog :name="renaming?.card.name ?? null" :rename="rename" @close="renaming = null" />
  </div>
</template>

<style scoped src="./rack.css"></style>
<style scoped>
.racks {
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr);
  min-height: 0;
}
.shelves {
  position: relative;
  display: grid;
  min-width: 0;
  min-height: 0;
}
.ground {
  min-height: calc(100vh - 110px);
  padding-bottom: 60px;
}
/* Something from outside is held over it. */
.shelves.over :deep(.el-scrollbar) {
  box-shadow: inset 0 0 0 3px var(--act);
}
/* Racks side by side scroll each by itself. */
.ground.split {
  display: flex;
  flex-direction: column;
  height: calc(100vh - 98px);
  min-height: 0;
  padding-bottom: 0;
}
.columns.beside {
  display: grid;
  flex: 1;
  grid-auto-columns: minmax(300px, 1fr);
  grid-auto-flow: column;
  min-height: 0;
  margin: 0 -24px;
  overflow-x: auto;
}
.beside > :deep(* + *) {
  border-left: 1px solid var(--line);
}
.rack-name {
  margin: 4px 0 10px;
  font-size: 16px;
}
.sizes {
  width: 96px;
}
@media (pointer: coarse) {
  .sizes {
    width: 140px;
  }
}
/* Small or without names a card is its picture alone. */
.nameless :deep(.card .muted),
.nameless :deep(.card .name),
.nameless :deep(.card .actions),
.pictures-small :deep(.card .muted),
.pictures-small :deep(.card .actions) {
  display: none;
}
.band {
  position: fixed;
  z-index: 20;
  border: 1px solid var(--act);
  background: color-mix(in srgb, var(--act) 14%, transparent);
  pointer-events: none;
}
@media (max-width: 1100px) {
  .racks {
    grid-template-columns: 160px minmax(0, 1fr);
  }
}
</style>
