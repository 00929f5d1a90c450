<script setup lang="ts">
/**
 * Where forms come from: slabs, sheets, scans, lettering, patterns, and the alphas cast from them. Pictures and scans
 * are dropped and pasted here.
 */
import { useEventListener, useLocalStorage } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { useRouter } from 'vue-router';
import { sculptBytes } from '#core/mesh';
import type { AlphaHead, PartHead, SourceHead } from '#core/stored';
import { SLAB_CELLS, SlabSchema, SOURCE_VERSION, type Source } from '#core/settings';
import { counted, spaced } from '#core/words';
import * as api from '../api/client';
import { PICTURE_ENDINGS, usePickFiles } from '../controls/pickFiles';
import ChoiceBar from '../controls/ChoiceBar.vue';
import ScrollArea from '../controls/ScrollArea.vue';
import TopBar from '../controls/TopBar.vue';
import FindHead from '../controls/FindHead.vue';
import LoadingPlaces from '../controls/LoadingPlaces.vue';
import { holds, inOrder, textOfCard, wordsOf, type Found, type Order } from '../controls/finding';
import RenameDialog from '../controls/RenameDialog.vue';
import { useSaidSteps } from '../controls/saidSteps';
import BackupsDialog from '../backups/BackupsDialog.vue';
import TrashDialog from '../controls/TrashDialog.vue';
import UndoButtons from '../controls/UndoButtons.vue';
import { failNotice, orSay } from '../controls/undoNotice';
import { useFilesDropped } from '../controls/useFilesDropped';
import { sentence } from '../stores/connection';
import { alphaFacts } from '../controls/alphaFacts';
import { useArrivals } from '../stores/arrivals';
import { useStoredThings, type StoredShelf } from '../stores/storedThings';
import { useLibrary } from '../stores/library';
import { FORM_LABELS } from '../made/formLabels';
import AlphaShelf from './AlphaShelf.vue';
import ArrivalList from './ArrivalList.vue';
import { droppedFiles, sourcesIn } from './droppedFiles';
import { MESH_ENDINGS } from '../workers/meshFiles';
import { USUAL_CELLS, useNewSource } from './newSource';
import DeleteDialog from './DeleteDialog.vue';
import EarlierSaves from './EarlierSaves.vue';
import InboxNote from './InboxNote.vue';
import PartShelf from './PartShelf.vue';
import SourceActions from './SourceActions.vue';
import ScanPageDialog from './ScanPageDialog.vue';
import StorageNote from './StorageNote.vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import DialogBox from '../controls/DialogBox.vue';
import { usePreferences } from '../stores/preferences';
import { useInAddress } from '../controls/inAddress';

const router = useRouter();
const things = useStoredThings();
useSaidSteps();
const wanted = useInAddress('search');
const order = useLocalStorage<Order>('sources-order', 'hand');
const renaming = ref<{ collection: StoredShelf; of: SourceHead | AlphaHead | PartHead } | null>(null);
const looking = ref<{ collection: StoredShelf; of: SourceHead | AlphaHead | PartHead } | null>(null);
const library = useLibrary();
const making = ref(false);
const scanningPage = ref(false);
const busy = ref(false);
const name = ref('');
const cells = ref<(typeof SLAB_CELLS)[number]>(USUAL_CELLS);
const problem = ref<string | null>(null);

const vertices = (n: number): number => (n + 1) ** 2;
/** A vertex's place, normal, mask and triangles on the graphics card. */
const CARD_BYTES = 52;
/** What is sculpted on, and the page's buffers on the graphics card. */
const memory = computed(() =>
  Math.round((sculptBytes(vertices(cells.value)) + vertices(cells.value) * CARD_BYTES) / 2 ** 20),
);
const fresh = useNewSource();
const arrivals = useArrivals();
const KINDS = [
  {
    kind: 'slab',
    title: 'Slabs',
    what: 'dense square planes to sculpt on',
    none: 'No slab yet. A new one is a flat plane of clay, seen straight from above.',
  },
  {
    kind: 'sheet',
    title: 'Sheets',
    what: 'scanned or photographed pictures with marks on them',
    none: 'No sheet yet. Drop pictures or folders here, paste one, or open files: PNG, JPEG, WebP, TIFF, EXR or SVG. Heights that are ready become alphas as they are.',
  },
  {
    kind: 'scan',
    title: 'Scans',
    what: 'meshes from a 3D scanner or another program',
    none: 'No scan yet. Drop a mesh here or open one: OBJ, PLY, STL or GLB, up to 5 million triangles.',
  },
  { kind: 'lettering', title: 'Lettering', what: 'words set in type', none: 'No lettering yet.' },
  { kind: 'pattern', title: 'Patterns', what: 'grown from a seed, repeating', none: 'No pattern yet.' },
] as const;
/** What is shown of a list: what holds all that was typed, in the order chosen. `more` is searched as well. */
function found<T extends Found>(all: readonly T[], more: (one: T) => string): T[] {
  const words = wordsOf(wanted.value);
  const some = all.filter((one) => holds(`${textOfCard(one.card)} ${more(one).toLowerCase()}`, words));
  return inOrder(some, order.value, ({ card, updatedAt }) => ({ name: card.name, at: updatedAt }));
}
const sourceOf = (id: string | null): string => (id && library.source(id)?.card.name) || '';
const sources = computed(() => found(library.sources, ({ kind }) => kind));
const alphas = computed(() =>
  found(library.alphas, (alpha) => `${alphaFacts(alpha)} ${sourceOf(alpha.lineage.sourceId)}`),
);
const parts = computed(() => found(library.parts, () => ''));
const searched = computed(() => wanted.value.trim() !== '');
const nothing = computed(() => searched.value && sources.value.length + alphas.value.length + parts.value.length === 0);
const ofKind = (kind: Source['kind']) => sources.value.filter((s) => s.kind === kind);
function facts(source: SourceHead): string {
  const cast = library.alphas.filter((a) => a.lineage.sourceId === source.id).length;
  const casts = cast === 0 ? 'not cast yet' : counted(cast, 'cast');
  switch (source.kind) {
    case 'slab':
      return `${spaced(vertices(source.cells))} vertices · ${casts}`;
    case 'sheet':
      return `${source.marks !== null ? counted(source.marks, 'mark') : `${source.width} × ${source.height}`} · ${casts}`;
    case 'scan':
      return `${spaced(source.triangles)} faces · ${counted(source.patches, 'patch', 'patches')} · ${casts}`;
    case 'lettering':
      return `${counted(source.blocks, 'block')} · ${casts}`;
    case 'pattern':
      return `${FORM_LABELS[source.form]} · ${casts}`;
  }
}
/** One picture of marks, or of one thing, opens at once; what else comes stands in the list of what arrived. */
async function take(files: readonly File[]): Promise<void> {
  const made = await arrivals.add(files);
  const [only] = made;
  if (files.length !== 1 || !only || router.currentRoute.value.name !== 'sources') return;
  if (only.scan) await router.push(`/bench/scan/${only.made[0].id}`);
  else if (only.kind === 'sheet' || only.kind === 'photo') await router.push(`/bench/sheet/${only.made[0].id}`);
}
const loading = computed(() => !library.loaded && !library.failed && library.sources.length === 0);
const page = useTemplateRef<HTMLElement>('page');
const dropping = useFilesDropped(page, (data) => void droppedFiles(data).then(take));
const pickFolder = usePickFiles({ folder: true }, (all) => {
  const files = sourcesIn(all);
  if (files.length) void take(files);
  else
    failNotice(
      'There are no pictures or scans in this folder: PNG, JPEG, WebP, TIFF, EXR, SVG, OBJ, PLY, STL and GLB can be opened.',
    );
});
const pick = usePickFiles(
  { accept: [PICTURE_ENDINGS, ...MESH_ENDINGS.map((ending) => `.${ending}`)].join(), several: true },
  (files) => void take(files),
);
async function begin(kind: 'lettering' | 'pattern'): Promise<void> {
  try {
    const id = await (kind === 'lettering' ? fresh.addLettering() : fresh.addPattern());
    await router.push(`/bench/${kind}/${id}`);
  } catch (error) {
    failNotice(sentence(error));
  }
}
useEventListener(window, 'paste', (e: ClipboardEvent) => {
  if (e.clipboardData?.files.length) void take([...e.clipboardData.files]);
});

function ask(): void {
  name.value = library.freeName('sources', 'Slab');
  problem.value = null;
  making.value = true;
}

async function make(): Promise<void> {
  busy.value = true;
  try {
    const parsed = SlabSchema.safeParse({
      version: SOURCE_VERSION,
      kind: 'slab',
      id: crypto.randomUUID(),
      card: { name: name.value, author: usePreferences().author() },
      cells: cells.value,
      blob: null,
    });
    if (!parsed.success) {
      problem.value = parsed.error.issues[0].message;
      return;
    }
    library.putSource(await api.save('sources', parsed.data, null));
    making.value = false;
    await router.push(`/bench/slab/${parsed.data.id}`);
  } catch (error) {
    problem.value = sentence(error);
  } finally {
    busy.value = false;
  }
}

async function rename(name: string): Promise<void> {
  const now = renaming.value;
  if (now) await things.rename(now.collection, now.of, name);
}
</script>

<template>
  <div ref="page" class="place" :class="{ dropping }">
    <TopBar>
      <template #end>
        <span class="forms" data-tour="forms">
          <PushButton
            title="Pictures (PNG, JPEG, WebP, TIFF, EXR, SVG) and scans (OBJ, PLY, STL, GLB); they can be dropped too"
            @click="pick"
          >
            Open files…
          </PushButton>
          <PushButton title="All pictures and scans of a folder, and of those in it" @click="pickFolder">
            Open a folder…
          </PushButton>
          <PushButton title="From a flatbed on the network" @click="scanningPage = true">Scan a page…</PushButton>
          <PushButton @click="begin('lettering')">New lettering</PushButton>
          <PushButton @click="begin('pattern')">New pattern</PushButton>
          <PushButton look="main" @click="ask">New slab</PushButton>
        </span>
      </template>
    </TopBar>
    <ScrollArea>
      <FindHead
        v-model:wanted="wanted"
        v-model:order="order"
        title="Sources"
        placeholder="Name, maker, tag, source…"
        label="Search the sources"
      >
        <span class="back"><BackupsDialog /><TrashDialog /><UndoButtons /></span>
      </FindHead>
      <p v-if="library.failed" class="note">{{ library.failed }}</p>
      <InboxNote />
      <ArrivalList />
      <LoadingPlaces v-if="loading" of="cards" label="Loading the sources" />
      <div v-show="!loading" class="kinds">
        <section v-for="k in KINDS" v-show="!searched || ofKind(k.kind).length > 0" :key="k.kind">
          <h2>
            {{ k.title }} <small>{{ k.what }}</small>
          </h2>
          <p v-if="library.loaded && ofKind(k.kind).length === 0" class="none">{{ k.none }}</p>
          <ul class="cards">
            <li v-for="doc in ofKind(k.kind)" :key="doc.id" class="card">
              <RouterLink :to="`/bench/${k.kind}/${doc.id}`" :aria-label="`Open ${doc.card.name}`"
                ><img :src="api.pictureUrl('sources', doc.id, doc.revision)" alt=""
              /></RouterLink>
              <b>{{ doc.card.name }}</b>
              <span class="muted">{{ facts(doc) }}</span>
              <SourceActions
                :id="doc.id"
                :name="doc.card.name"
                @saves="looking = { collection: 'sources', of: doc }"
                @rename="renaming = { collection: 'sources', of: doc }"
                @copy="orSay(() => things.copy('sources', doc))"
                @remove="orSay(() => things.askRemove('sources', doc))"
              />
            </li>
          </ul>
        </section>
      </div>
      <section v-show="!loading && (!searched || alphas.length > 0)">
        <AlphaShelf
          :alphas="alphas"
          @saves="(doc) => (looking = { collection: 'alphas', of: doc })"
          @rename="(doc) => (renaming = { collection: 'alphas', of: doc })"
          @copy="(doc) => orSay(() => things.copy('alphas', doc))"
          @remove="(doc) => orSay(() => things.askRemove('alphas', doc))"
        />
      </section>
      <section v-show="!loading && (!searched || parts.length > 0)">
        <PartShelf
          :parts="parts"
          @saves="(doc) => (looking = { collection: 'parts', of: doc })"
          @rename="(doc) => (renaming = { collection: 'parts', of: doc })"
          @copy="(doc) => orSay(() => things.copy('parts', doc))"
          @remove="(doc) => orSay(() => things.askRemove('parts', doc))"
        />
      </section>
      <p v-if="nothing" class="none">Nothing here fits this search.</p>
      <StorageNote />
    </ScrollArea>
    <RenameDialog :name="renaming?.of.card.name ?? null" :rename="(name) => rename(name)" @close="renaming = null" />
    <EarlierSaves v-model="looking" />
    <DeleteDialog />
    <ScanPageDialog v-model:visible="scanningPage" />
    <DialogBox v-model:visible="making" title="New slab">
      <form class="form" @submit.prevent="make">
        <label class="row"
          ><span class="label">Name</span><TextField v-model="name" :bad="!!problem" maxlength="80"
        /></label>
        <div class="row">
          <span class="label">Cells per side</span
          ><ChoiceBar
            v-model="cells"
            label="Cells per side"
            :options="SLAB_CELLS.map((n) => ({ value: n, label: `${n}` }))"
          />
        </div>
        <p class="muted">
          {{ spaced(vertices(cells)) }} vertices, about {{ memory }} MB of memory. An alpha of {{ cells }} px takes all
          its detail.
        </p>
        <p v-if="problem" class="sentence-bad" role="alert">{{ problem }}</p>
      </form>
      <template #footer>
        <PushButton @click="making = false">Cancel</PushButton>
        <PushButton look="main" :disabled="busy" @click="make">Create</PushButton>
      </template>
    </DialogBox>
  </div>
</template>

<style scoped src="./rack.css"></style>
<style scoped src="./card.css"></style>
<style scoped>
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: 0 40px;
}
.cards {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
}
.cards .card {
  width: 172px;
}
@media (pointer: coarse) {
  .cards .card {
    width: 228px;
  }
}
/* The last in their line. */
.back {
  display: flex;
  margin-left: auto;
}
.kinds .none {
  max-width: 240px;
}
.dropping :deep(.el-scrollbar) {
  box-shadow: inset 0 0 0 3px var(--act);
}
.form {
  display: grid;
  gap: 8px;
}
.none {
  padding: 16px 0;
  text-align: left;
}
</style>
