<script setup lang="ts">
/** What the part lost when it was brought down, kept as an alpha or written as a normal picture. */
import { ref } from 'vue';
import { ALPHA_VERSION, AlphaSchema } from '#core/settings';
import * as api from '../api/client';
import PushButton from '../controls/PushButton.vue';
import SelectField from '../controls/SelectField.vue';
import { saveFile } from '../controls/saveFile';
import { failNotice, tellNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { usePartBench } from '../stores/partBench';

const bench = usePartBench();
const library = useLibrary();
const SIZES = [256, 512, 1024, 2048].map((value) => ({ value, label: `${value} px` }));
const size = ref(512);
const busy = ref(false);

async function doing(act: (on: NonNullable<typeof bench.thread>) => Promise<void>): Promise<void> {
  if (!bench.thread || !bench.doc || busy.value) return;
  busy.value = true;
  try {
    await act(bench.thread);
  } catch (error) {
    failNotice(sentence(error));
  } finally {
    busy.value = false;
  }
}

const keepAlpha = (): Promise<void> =>
  doing(async (on) => {
    const { card, seat } = bench.doc!;
    const side = size.value;
    const { greys, low, high, relief, ground, report } = await on.lostAlpha(seat, side);
    const blob = await api.putBlob(new Uint8Array(greys.buffer as ArrayBuffer));
    const name = library.freeName('alphas', `${card.name} detail`);
    const alpha = AlphaSchema.parse({
      version: ALPHA_VERSION,
      id: crypto.randomUUID(),
      format: 'grey32f',
      size: side,
      relief,
      ground,
      blob,
      report,
      card: { name, author: card.author, tags: card.tags },
      lineage: { sourceId: null, sourceRevision: null, floor: low, crown: high },
    });
    library.putAlpha(await api.save('alphas', alpha, null));
    tellNotice(`“${name}” is kept as an alpha, in Sources.`);
  });

const download = (): Promise<void> =>
  doing(async (on) => {
    const { card, seat } = bench.doc!;
    const png = await on.lostNormals(seat, size.value);
    saveFile(`${card.name} normals.png`, new Blob([png], { type: 'image/png' }));
  });
</script>

<template>
  <div class="heading">Lost detail <small>seen along its up</small></div>
  <div class="lost">
    <SelectField v-model="size" label="Size of the picture" :choices="SIZES" />
    <PushButton
      small
      :disabled="busy || bench.busy"
      title="How far what was captured lies over what is set down, as heights"
      @click="keepAlpha"
      >Keep as an alpha</PushButton
    >
    <PushButton
      small
      :disabled="busy || bench.busy"
      title="A PNG of 16 bits: x to the right, y up the picture, z towards you"
      @click="download"
      >Normal picture</PushButton
    >
  </div>
</template>

<style scoped>
.lost {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.lost > :first-child {
  grid-column: 1 / -1;
}
</style>
