<script setup lang="ts">
/** The texture: its size, as files, and from files. */
import { Image } from '@lucide/vue';
import { computed, ref } from 'vue';
import { TEXTURE_SIZES } from '#core/paint';
import ChoiceBar from '../controls/ChoiceBar.vue';
import { usePickFiles } from '../controls/pickFiles';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import SelectField from '../controls/SelectField.vue';
import ToolButton from '../controls/ToolButton.vue';
import { saveFile } from '../controls/saveFile';
import { failNotice, tellNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { BODIES } from '#core/mesh';
import ProgressLine from '../controls/ProgressLine.vue';
import IslandsDialog from './IslandsDialog.vue';
import { useArrivals } from '../stores/arrivals';
import { usePainting } from '../stores/painting';
import { useWork } from '../stores/work';
import { UnwrapCancelled } from '../workers/unwrapper';
import { useProof } from '../stores/proof';
import { PAINT_ENDINGS, PAINT_FILES, type PaintFile } from '../workers/paintFiles';
import { readPaint, writePaint } from '../workers/paintFileThread';

const arrivals = useArrivals();
const painting = usePainting();
const work = useWork();
const proof = useProof();
const open = ref(false);
const busy = ref(false);
const islands = ref(false);
const what = ref<'all' | 'layer'>('all');
const LABELS: Record<PaintFile | 'ora', string> = {
  png8: 'PNG 8',
  png16: 'PNG 16',
  tiff: 'TIFF',
  exr: 'EXR',
  ora: 'OpenRaster, all layers',
};
const sizes = computed(() => TEXTURE_SIZES.map((value) => ({ value: value as number, label: `${value} × ${value}` })));

async function doing(act: () => Promise<void>, stays = false): Promise<void> {
  busy.value = true;
  try {
    await act();
    if (!stays) open.value = false;
  } catch (error) {
    failNotice(sentence(error));
  } finally {
    busy.value = false;
  }
}

/** Shipped bodies have their coordinates by construction. */
const own = computed(() => !(BODIES as readonly string[]).includes(proof.name));
const running = computed(() => work.find(proof.name));
async function unwrap(): Promise<void> {
  try {
    tellNotice(await proof.unwrap());
  } catch (error) {
    if (!(error instanceof UnwrapCancelled)) failNotice(sentence(error));
  }
}

const write = (kind: PaintFile | 'ora'): Promise<void> =>
  doing(async () => {
    const found = await proof.sculptor.paint.layers();
    if (!found) return;
    const { size, layers } = found;
    const only = kind !== 'ora' && what.value === 'layer';
    const one = painting.active;
    const chosen = only
      ? layers.filter(({ id }) => id === one?.id).map((layer) => ({ ...layer, hidden: false, clipped: false }))
      : layers;
    const name = only && one ? `${proof.label}, ${one.name}` : proof.label;
    saveFile(`${name}.${PAINT_ENDINGS[kind]}`, await writePaint(kind, size, chosen));
  });

/** What is seen becomes a sheet: alphas and marks are cast from it as from any picture. */
const toSources = (): Promise<void> =>
  doing(async () => {
    const found = await proof.sculptor.paint.layers();
    if (!found) return;
    const png = await writePaint('png8', found.size, found.layers);
    const name = `${proof.label}, painting`;
    const made = await arrivals.asSheet(new File([png], `${name}.png`, { type: 'image/png' }));
    tellNotice(`“${made}” is among the sources.`);
  });

async function bring(file: File): Promise<void> {
  await doing(async () => {
    const { size, layers, notes } = await readPaint(file);
    const own = proof.state.textureSize;
    const fresh = layers.map((layer) => ({ ...layer, id: crypto.randomUUID() }));
    await proof.sculptor.paint.bring(size, fresh);
    painting.choose(fresh.at(-1)!.id);
    const fitted = own > 0 && own !== size ? [`It was ${size} a side and is ${own} now, as the texture is.`] : [];
    if (notes.length + fitted.length > 0) tellNotice([...fitted, ...notes].join(' '));
  });
}
const pick = usePickFiles(
  { accept: '.png,.tif,.tiff,.exr,.jpg,.jpeg,.webp,.ora' },
  ([file]) => file && void bring(file),
);
</script>

<template>
  <PopMenu v-model:visible="open" placement="left" :width="280">
    <template #reference
      ><ToolButton :icon="Image" label="Texture" help="The texture’s size; write it as a file, or open one"
    /></template>
    <div class="menu">
      <div class="heading">Texture <small>16 bits per channel</small></div>
      <label class="row"
        ><span class="label">Size</span
        ><SelectField
          label="Size of the texture"
          title="What is painted is averaged, or read between its texels; new textures have this size too"
          :choices="sizes"
          :disabled="busy"
          :model-value="proof.state.textureSize"
          @update:model-value="(size) => void doing(() => painting.resize(size), true)"
      /></label>
      <ChoiceBar
        v-model="what"
        label="What is written"
        :options="[
          { value: 'all', label: 'As seen', help: 'All layers as they look together' },
          { value: 'layer', label: 'This layer', help: 'The layer that strokes go on, alone' },
        ]"
      />
      <div class="files">
        <PushButton v-for="kind in PAINT_FILES" :key="kind" small :disabled="busy" @click="write(kind)">{{
          LABELS[kind]
        }}</PushButton>
      </div>
      <PushButton small :disabled="busy" @click="write('ora')">{{ LABELS.ora }}</PushButton>
      <PushButton
        small
        :disabled="busy"
        title="What is seen, as a sheet among the sources: for alphas, marks and palettes"
        @click="toSources"
      >
        To the sources
      </PushButton>
      <PushButton small title="How the body lies in the texture, with stretch as colour" @click="islands = true">
        Islands and stretch…
      </PushButton>
      <div v-if="own" class="unwrap">
        <PushButton
          small
          :disabled="busy || !!running"
          title="Fewer and better islands, as a body of its own; what is painted goes along"
          @click="unwrap"
        >
          Unwrap carefully
        </PushButton>
        <template v-if="running"
          ><ProgressLine :share="running.share" :label="running.what" /><PushButton small @click="running.cancel()"
            >Cancel</PushButton
          ></template
        >
      </div>
      <PushButton small :disabled="busy" title="PNG, TIFF, EXR, JPEG, WebP or OpenRaster, as new layers" @click="pick">
        Open a texture…
      </PushButton>
    </div>
  </PopMenu>
  <IslandsDialog v-model:visible="islands" />
</template>

<style scoped>
.menu {
  display: grid;
  gap: 8px;
  --label: 72px;
}
.files {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 4px;
}
.unwrap {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
