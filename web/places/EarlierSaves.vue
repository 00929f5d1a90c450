<script setup lang="ts">
/** Earlier saves of a source, an alpha or a part: named, told apart from how it is now, and taken back. */
import { computed, ref, watch } from 'vue';
import { sectionsThatDiffer } from '#core/settings';
import type { AlphaHead, Documents, PartHead, SourceHead } from '#core/stored';
import * as api from '../api/client';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';
import { nameSave } from '../controls/nameSave';
import SaveList from '../controls/SaveList.vue';
import SaveRow from '../controls/SaveRow.vue';
import { orSay } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useKeptThings, type Kept } from '../stores/keptThings';

const of = defineModel<{ collection: Kept; of: SourceHead | AlphaHead | PartHead } | null>({ required: true });
const kept = useKeptThings();
interface Save extends api.Past {
  doc: Documents[Kept] | null;
  differs: string;
  problem: string | null;
}
const saves = ref<Save[]>([]);
const loading = ref(false);
const problem = ref<string | null>(null);
const visible = computed({ get: () => of.value !== null, set: () => (of.value = null) });
let openings = 0;

watch(of, async (now) => {
  const mine = ++openings;
  saves.value = [];
  problem.value = null;
  if (!now) return;
  const { collection, of: thing } = now;
  loading.value = true;
  try {
    const [past, { doc }] = await Promise.all([api.revisions(collection, thing.id), api.get(collection, thing.id)]);
    if (mine !== openings) return;
    saves.value = past.map((one) => ({ ...one, doc: null, differs: '', problem: null }));
    loading.value = false;
    for (const save of saves.value) {
      try {
        save.doc = await api.revision(collection, thing.id, save.revision);
        const sections = sectionsThatDiffer(save.doc, doc);
        save.differs = sections.length ? `Other than now: ${sections.join(', ')}` : 'As it is now';
      } catch (error) {
        save.problem = sentence(error);
      }
      if (mine !== openings) return;
    }
  } catch (error) {
    if (mine === openings) problem.value = sentence(error);
  } finally {
    if (mine === openings) loading.value = false;
  }
});

async function takeBack({ doc }: Save): Promise<void> {
  const now = of.value;
  if (!now || !doc) return;
  await kept.takeBack(now.collection, now.of, doc);
  of.value = null;
}
</script>

<template>
  <DialogBox v-model:visible="visible" :title="`Earlier saves of “${of?.of.card.name ?? ''}”`" :width-px="560">
    <SaveList :count="saves.length" :loading="loading" :problem="problem" what="it">
      <SaveRow
        v-for="save in saves"
        :key="save.revision"
        :save="save"
        :picture="of ? api.pictureOfRevision(of.collection, of.of.id, save.revision) : ''"
        :differs="save.differs"
        :problem="save.problem"
        @name="(name) => of && nameSave(of.collection, of.of.id, save, name)"
      >
        <PushButton
          small
          :disabled="!save.doc"
          title="It is so again; what it is now becomes an earlier save. Can be undone"
          @click="orSay(() => takeBack(save))"
          >Restore</PushButton
        >
      </SaveRow>
    </SaveList>
  </DialogBox>
</template>
