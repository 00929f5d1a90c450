<script setup lang="ts">
/** What was deleted in the last 30 days, to be taken back. */
import { Trash2 } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { SINGULAR } from '#core/stored';
import * as api from '../api/client';
import { sentence } from '../stores/connection';
import { useLibrary, type Shelf } from '../stores/library';
import DialogBox from './DialogBox.vue';
import PushButton from './PushButton.vue';
import TextField from './TextField.vue';
import LoadingPlaces from './LoadingPlaces.vue';
import ToolButton from './ToolButton.vue';
import { holds, wordsOf } from './finding';
import { failNotice } from './undoNotice';
import { when } from './when';

const KEPT_DAYS = 30;
const DAY_MS = 24 * 3600 * 1000;
/** What the rack and the sources show; bodies, palettes and packs are taken back where they were deleted. */
const SHOWN: readonly string[] = ['brushes', 'alphas', 'sources', 'parts'] satisfies Shelf[];

const library = useLibrary();
const visible = ref(false);
const all = ref<api.Trashed[]>([]);
const wanted = ref('');
const loading = ref(false);
const problem = ref<string | null>(null);
const shown = computed(() => {
  const words = wordsOf(wanted.value);
  return all.value.filter(({ name, collection }) => holds(`${name} ${SINGULAR[collection]}`.toLowerCase(), words));
});

watch(visible, async (open) => {
  if (!open) return;
  wanted.value = '';
  problem.value = null;
  loading.value = true;
  try {
    all.value = (await api.trash()).filter(({ collection }) => SHOWN.includes(collection));
  } catch (error) {
    problem.value = sentence(error);
  } finally {
    loading.value = false;
  }
});

const days = (at: string): string => {
  const left = Math.max(0, Math.ceil(KEPT_DAYS - (Date.now() - Date.parse(at)) / DAY_MS));
  return left === 1 ? 'a day left' : `${left} days left`;
};

async function restore({ collection, id }: api.Trashed): Promise<void> {
  try {
    await library.restore(collection as Shelf, id);
    all.value = all.value.filter((one) => one.id !== id);
  } catch (error) {
    failNotice(sentence(error));
  }
}
</script>

<template>
  <ToolButton :icon="Trash2" label="Trash" help="What was deleted in the last 30 days" @click="visible = true" />
  <DialogBox v-model:visible="visible" title="Trash" :width-px="520">
    <LoadingPlaces v-if="loading" of="rows" label="Looking into the trash" />
    <p v-else-if="problem" class="sentence-bad" role="alert">{{ problem }}</p>
    <p v-else-if="all.length === 0" class="muted">
      Nothing was deleted. Brushes, alphas, sources and parts stay here for {{ KEPT_DAYS }} days.
    </p>
    <template v-else>
      <TextField v-model="wanted" type="search" placeholder="Name or kind" aria-label="Search the trash" />
      <ul>
        <li v-for="one in shown" :key="one.id">
          <img
            :src="api.pictureUrl(one.collection, one.id, one.revision)"
            width="44"
            height="44"
            alt=""
            loading="lazy"
          />
          <div class="about">
            <b>{{ one.name }}</b>
            <span class="muted"
              >{{ SINGULAR[one.collection] }} · deleted {{ when(one.deletedAt) }} · {{ days(one.deletedAt) }}</span
            >
          </div>
          <PushButton small :aria-label="`Restore ${one.name}`" @click="restore(one)">Restore</PushButton>
        </li>
      </ul>
      <p v-if="shown.length === 0" class="muted">Nothing in the trash fits this search.</p>
    </template>
  </DialogBox>
</template>

<style scoped>
ul {
  display: grid;
  gap: 8px;
  max-height: 52vh;
  margin: 10px 0 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
}
img {
  flex: none;
  border-radius: var(--r);
  background: var(--clay);
}
.about {
  display: grid;
  flex: 1;
  min-width: 0;
}
</style>
