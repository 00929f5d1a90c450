<script lang="ts">
export interface ToMake {
  files: readonly File[];
  /** The folder they came from, where they came from one. */
  folder: string;
}
</script>

<script setup lang="ts">
/** Files become brushes: whose settings they get, and the pack they stand in. */
import { computed, ref, watch } from 'vue';
import { setsParts, type Brush } from '#core/settings';
import DialogBox from '../controls/DialogBox.vue';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import SelectField from '../controls/SelectField.vue';
import TextField from '../controls/TextField.vue';
import { sentence } from '../stores/connection';
import { useBrushesFromFiles } from '../stores/brushesFromFiles';
import { useLibrary } from '../stores/library';
import { counted, usePacks } from '../stores/packs';
import { useWork } from '../stores/work';
import { isMeshFile } from '../workers/meshFiles';

const asked = defineModel<ToMake | null>({ required: true });
const library = useLibrary();
const packs = usePacks();
const maker = useBrushesFromFiles();
const work = useWork();
const pictureLike = ref('');
const meshLike = ref('');
const pack = ref('');
const problem = ref<string | null>(null);
const done = ref(false);
const visible = computed({ get: () => asked.value !== null, set: () => (asked.value = null) });
const going = computed(() => work.find('brushes from files'));
const meshes = computed(() => (asked.value?.files ?? []).filter(isMeshFile).length);
const pictures = computed(() => (asked.value?.files.length ?? 0) - meshes.value);
const named = (brushes: typeof library.brushes) =>
  brushes.map(({ id, card }) => ({ value: id, label: card.name })).sort((a, b) => a.label.localeCompare(b.label));
const pressing = computed(() =>
  named(library.brushes.filter(({ touch }) => ['lift', 'build', 'inflate', 'crease'].includes(touch.action))),
);
const placing = computed(() => named(library.brushes.filter((brush) => setsParts(brush))));

watch(asked, (now) => {
  if (!now) return;
  problem.value = null;
  done.value = false;
  maker.refused = [];
  pack.value = now.folder ? packs.freeName(now.folder.slice(0, 70)) : '';
  if (!pressing.value.some(({ value }) => value === pictureLike.value)) pictureLike.value = usual();
  if (!placing.value.some(({ value }) => value === meshLike.value)) meshLike.value = placing.value[0]?.value ?? '';
});

/** A base brush that presses once. */
function usual(): string {
  const first = library.brushes.find(
    ({ base, touch, stroke }) => base && touch.action === 'lift' && stroke.type === 'press',
  );
  return first?.id ?? pressing.value[0]?.value ?? '';
}

async function settingsOf(id: string): Promise<Brush | null> {
  return id === '' ? null : library.brush(id);
}

async function go(): Promise<void> {
  const what = asked.value;
  if (!what || going.value) return;
  problem.value = null;
  try {
    const picture = await settingsOf(pictureLike.value);
    const mesh = (await settingsOf(meshLike.value)) ?? picture;
    if (!picture || !mesh) throw new Error('The chosen brush isn’t here any more. Choose another.');
    await maker.make(what.files, { picture, mesh, pack: pack.value.trim() });
    if (maker.refused.length === 0) asked.value = null;
    else done.value = true;
  } catch (error) {
    problem.value = sentence(error);
  }
}
</script>

<template>
  <DialogBox v-model:visible="visible" title="Brushes from files" :width-px="460">
    <form class="files" @submit.prevent="go">
      <p>
        {{ counted(asked?.files.length ?? 0) }}, each named after its file and saved at once.
        <template v-if="pictures">Pictures are read as heights. </template>
        <template v-if="meshes">Meshes become parts, brought down to their budget.</template>
      </p>
      <label v-if="pictures">
        <span>{{ pictures }} {{ pictures === 1 ? 'picture' : 'pictures' }} like</span>
        <SelectField v-model="pictureLike" label="Pictures like" :choices="pressing" />
      </label>
      <label v-if="meshes">
        <span>{{ meshes }} {{ meshes === 1 ? 'mesh' : 'meshes' }} like</span>
        <SelectField v-if="placing.length" v-model="meshLike" label="Meshes like" :choices="placing" />
        <SelectField v-else v-model="pictureLike" label="Meshes like" :choices="pressing" />
      </label>
      <label>
        <span>New pack</span>
        <TextField v-model="pack" maxlength="80" aria-label="New pack" placeholder="None: beside packs" />
      </label>
      <div v-if="going" class="going">
        <ProgressLine :share="going.share" :label="going.what" />
        <span class="muted">{{ going.detail }}</span>
        <PushButton small @click="going.cancel">Stop</PushButton>
      </div>
      <p v-if="problem" class="sentence-bad" role="alert">{{ problem }}</p>
      <div v-if="maker.refused.length" role="alert">
        <p>{{ maker.refused.length }} left out:</p>
        <ul>
          <li v-for="(why, i) in maker.refused" :key="i" class="sentence-bad">{{ why }}</li>
        </ul>
      </div>
    </form>
    <template #footer>
      <PushButton v-if="done" look="main" @click="asked = null">Close</PushButton>
      <template v-else>
        <PushButton @click="asked = null">{{ going ? 'Close' : 'Cancel' }}</PushButton>
        <PushButton look="main" :disabled="going !== null" @click="go">Make brushes</PushButton>
      </template>
    </template>
  </DialogBox>
</template>

<style scoped>
.files {
  display: grid;
  gap: 10px;
}
p {
  color: var(--ink-2);
  line-height: 1.45;
}
label {
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
}
.going {
  display: flex;
  gap: 10px;
  align-items: center;
}
ul {
  max-height: 160px;
  margin: 0;
  padding-left: 16px;
  overflow-y: auto;
}
</style>
