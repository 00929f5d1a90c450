<script setup lang="ts">
/**
 * Earlier saves of the brush: each with its picture and what differs from the brush as it is now. One can be given a
 * name, laid beside the brush on the same strokes, or taken back as a change that can be undone.
 */
import { ref, shallowRef, watch } from 'vue';
import { changesOf, type Brush } from '#core/settings';
import * as api from '../api/client';
import { plain } from '../api/plain';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';
import { nameSave } from '../controls/nameSave';
import SaveList from '../controls/SaveList.vue';
import SaveRow from '../controls/SaveRow.vue';
import { useBrushBench } from '../stores/brushBench';
import { useCompare } from '../stores/compare';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { useThumbnails } from '../stores/thumbnails';

const visible = defineModel<boolean>('visible', { required: true });
const bench = useBrushBench();
const compare = useCompare();
const library = useLibrary();
const thumbnails = useThumbnails();

interface Save extends api.Past {
  doc: Brush | null;
  picture: string;
  /** Why it can’t be shown. */
  problem: string | null;
}
const saves = ref<Save[]>([]);
const loading = ref(false);
const problem = shallowRef<string | null>(null);
/** Pictures are drawn one after the other; those of another opening no more. */
let openings = 0;

watch(visible, async (open) => {
  const mine = ++openings;
  saves.value = [];
  problem.value = null;
  const id = bench.doc?.id;
  if (!open || !id) return;
  loading.value = true;
  try {
    const past = await api.revisions('brushes', id);
    if (mine !== openings) return;
    saves.value = past.map((one) => ({ ...one, doc: null, picture: '', problem: null }));
    loading.value = false;
    for (const save of saves.value) {
      await fill(id, save);
      if (mine !== openings) return;
    }
  } catch (error) {
    if (mine === openings) problem.value = sentence(error);
  } finally {
    if (mine === openings) loading.value = false;
  }
});

async function fill(id: string, save: Save): Promise<void> {
  try {
    save.doc = await api.revision('brushes', id, save.revision);
    save.picture = await thumbnails.of(save.doc, library.alphasOf(save.doc)).catch(() => '');
  } catch (error) {
    save.problem = sentence(error);
  }
}

const MOST_NAMED = 4;
function differs({ doc }: Save): string {
  if (!doc || !bench.doc) return '';
  const now = bench.doc;
  const names = [...new Set(changesOf(doc, { ...now, id: doc.id, version: doc.version }).map(({ label }) => label))];
  if (names.length === 0) return 'As the brush is now';
  const more = names.length - MOST_NAMED;
  return `Other than now: ${names.slice(0, MOST_NAMED).join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}

function beside({ doc }: Save): void {
  if (!doc) return;
  compare.pin(doc);
  compare.beside = true;
  visible.value = false;
}

/** A step of the settings’ history; the brush keeps its name. */
async function takeBack({ doc }: Save): Promise<void> {
  if (!doc) return;
  const { form, touch, stroke, drift, pen, tooth, colour, parts, thumbnail, card } = plain(doc);
  await bench.edit(
    (brush) =>
      Object.assign(brush, {
        form,
        touch,
        stroke,
        drift,
        pen,
        tooth,
        colour,
        parts,
        thumbnail,
        card: { ...card, name: brush.card.name },
      }),
    `save ${doc.id}`,
  );
  visible.value = false;
}
</script>

<template>
  <DialogBox v-model:visible="visible" title="Earlier saves" :width-px="620">
    <SaveList :count="saves.length" :loading="loading" :problem="problem" what="the brush">
      <SaveRow
        v-for="save in saves"
        :key="save.revision"
        :save="save"
        :picture="save.picture"
        :differs="differs(save)"
        :problem="save.problem"
        @name="(name) => bench.doc && nameSave('brushes', bench.doc.id, save, name)"
      >
        <PushButton small :disabled="!save.doc" title="Both on the same strokes" @click="beside(save)"
          >Side by side</PushButton
        >
        <PushButton
          small
          :disabled="!save.doc"
          title="Its settings become the brush’s: a change that can be undone"
          @click="takeBack(save)"
          >Restore</PushButton
        >
      </SaveRow>
    </SaveList>
  </DialogBox>
</template>
