<script setup lang="ts">
/** Earlier saves of a source, an alpha or a part: named, told apart, two laid side by side, and taken back. */
import { computed, ref, shallowRef, watch } from 'vue';
import { sectionsThatDiffer } from '#core/settings';
import type { AlphaHead, Documents, PartHead, SourceHead } from '#core/stored';
import * as api from '../api/client';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';
import { nameSave } from '../controls/nameSave';
import SaveList from '../controls/SaveList.vue';
import SaveRow from '../controls/SaveRow.vue';
import { when } from '../controls/when';
import { orSay } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useStoredThings, type StoredShelf } from '../stores/storedThings';
import CompareSaves, { type State } from './CompareSaves.vue';

const of = defineModel<{ collection: StoredShelf; of: SourceHead | AlphaHead | PartHead } | null>({ required: true });
const things = useStoredThings();
interface Save extends api.Past {
  doc: Documents[StoredShelf] | null;
  differs: string;
  problem: string | null;
}
const saves = ref<Save[]>([]);
const loading = ref(false);
const problem = ref<string | null>(null);
const now = shallowRef<{ doc: Documents[StoredShelf]; revision: number } | null>(null);
const comparing = ref<number | null>(null);
const states = computed<State[]>(() => {
  const thing = of.value;
  if (!thing) return [];
  const { collection, of: head } = thing;
  return [
    {
      revision: 0,
      label: 'Now',
      doc: now.value?.doc ?? null,
      picture: api.pictureUrl(collection, head.id, now.value?.revision ?? 0),
    },
    ...saves.value.map(({ revision, name, savedAt, doc }) => ({
      revision,
      label: `${name || `Revision ${revision}`}, until ${when(savedAt)}`,
      doc,
      picture: api.pictureOfRevision(collection, head.id, revision),
    })),
  ];
});
const visible = computed({ get: () => of.value !== null, set: () => (of.value = null) });
let openings = 0;

watch(of, async (opened) => {
  const mine = ++openings;
  saves.value = [];
  problem.value = null;
  comparing.value = null;
  if (!opened) return;
  const { collection, of: thing } = opened;
  loading.value = true;
  try {
    const [past, current] = await Promise.all([api.revisions(collection, thing.id), api.get(collection, thing.id)]);
    if (mine !== openings) return;
    now.value = current;
    saves.value = past.map((one) => ({ ...one, doc: null, differs: '', problem: null }));
    loading.value = false;
    for (const save of saves.value) {
      try {
        save.doc = await api.revision(collection, thing.id, save.revision);
        const sections = sectionsThatDiffer(save.doc, current.doc);
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
  const thing = of.value;
  if (!thing || !doc) return;
  await things.takeBack(thing.collection, thing.of, doc);
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
          title="With how it is now, or with another save"
          @click="comparing = save.revision"
          >Side by side</PushButton
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
    <CompareSaves v-if="of" v-model="comparing" :name="of.of.card.name" :collection="of.collection" :states="states" />
  </DialogBox>
</template>
