<script setup lang="ts">
/** What is stored, where, and how much of it; cleaning up, copies and restoring. */
import { computed, onMounted, ref } from 'vue';
import { counted, spaced } from '#core/words';
import BackupsDialog from '../backups/BackupsDialog.vue';
import PushButton from '../controls/PushButton.vue';
import TrashDialog from '../controls/TrashDialog.vue';
import { failNotice, tellNotice } from '../controls/undoNotice';
import { sentence, useConnection } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { megabytes, useStorageSizes } from '../stores/storage';

const library = useLibrary();
const connection = useConnection();
const { sizes, cleaning, look, clean } = useStorageSizes();
/** Bytes that this browser keeps for the page; null where it doesn’t say. */
const inBrowser = ref<number | null>(null);

const things = computed(() => [
  [library.brushes.length, 'brush', 'brushes'] as const,
  [library.alphas.length, 'alpha', 'alphas'] as const,
  [library.sources.length, 'source', 'sources'] as const,
  [library.parts.length, 'part', 'parts'] as const,
]);
const pending = computed(() => library.drafts.filter((draft) => draft.pending).length);
onMounted(async () => {
  void look();
  void library.ready();
  inBrowser.value = (await navigator.storage?.estimate?.().catch(() => null))?.usage ?? null;
});
const cleanUp = (): Promise<void> => clean().then(tellNotice, (error: unknown) => failNotice(sentence(error)));
</script>

<template>
  <div class="panels">
    <section>
      <h2>In the data folder</h2>
      <dl v-if="sizes">
        <dt>Pictures, clay and meshes</dt>
        <dd>{{ megabytes(sizes.files) }} MB</dd>
        <dt>Documents</dt>
        <dd>{{ megabytes(sizes.database) }} MB</dd>
        <template v-for="[count, one, many] in things" :key="one">
          <dt class="inner">{{ many[0].toUpperCase() + many.slice(1) }}</dt>
          <dd>{{ spaced(count) }}</dd>
        </template>
        <dt>Earlier saves</dt>
        <dd>{{ spaced(sizes.revisions) }}</dd>
        <dt>Deleted, kept for 30 days</dt>
        <dd>{{ spaced(sizes.deleted) }}</dd>
      </dl>
      <p v-else class="muted">
        {{ connection.away ? 'The server is away, so its sizes can’t be told.' : 'Counting…' }}
      </p>
      <div class="acts">
        <PushButton
          :loading="cleaning"
          :disabled="!sizes"
          title="Thins old revisions, empties what was deleted over 30 days ago, and frees the space"
          @click="cleanUp"
          >Clean up now</PushButton
        >
        <BackupsDialog />
        <TrashDialog />
      </div>
    </section>
    <section>
      <h2>In this browser</h2>
      <dl>
        <dt>Drafts</dt>
        <dd>{{ spaced(library.drafts.length) }}</dd>
        <dt>Saves waiting for the server</dt>
        <dd>{{ spaced(pending) }}</dd>
        <template v-if="inBrowser !== null">
          <dt>Page, drafts and paint</dt>
          <dd>{{ megabytes(inBrowser) }} MB</dd>
        </template>
      </dl>
      <p class="muted">
        {{
          pending
            ? `Don’t clear this browser’s data: ${counted(pending, 'save waits', 'saves wait')} here for the server.`
            : 'Drafts are kept here a moment after every change, and go when their thing is saved.'
        }}
      </p>
    </section>
  </div>
</template>

<style scoped>
.panels {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 340px), 1fr));
  gap: 26px 40px;
  max-width: 900px;
  align-items: start;
}
section {
  display: grid;
  gap: 10px;
}
h2 {
  font-size: 14px;
  font-weight: 600;
  padding-bottom: 6px;
  border-bottom: 1px solid var(--line-soft);
}
dl {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px 16px;
  font-variant-numeric: tabular-nums;
}
dt {
  color: var(--ink-2);
}
.inner {
  padding-left: 14px;
}
dd {
  text-align: right;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
</style>
