<script setup lang="ts">
/**
 * What the data folder takes, and what of it is kept for taking back; cleaned up once a day, and now when it is asked
 * for.
 */
import { computed, onMounted } from 'vue';
import { counted } from '#core/words';
import { failNotice, tellNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { megabytes, useStorageSizes } from '../stores/storage';
import PushButton from '../controls/PushButton.vue';

const { sizes, cleaning, look, clean } = useStorageSizes();
const told = computed(
  () =>
    sizes.value &&
    [
      `${megabytes(sizes.value.files)} MB of pictures, clay and meshes`,
      `${megabytes(sizes.value.database)} MB of documents`,
      counted(sizes.value.revisions, 'earlier revision', 'earlier revisions'),
      `${counted(sizes.value.deleted, 'deleted thing', 'deleted things')} kept for 30 days`,
    ].join(' · '),
);
onMounted(look);
const cleanUp = (): Promise<void> => clean().then(tellNotice, (error: unknown) => failNotice(sentence(error)));
</script>

<template>
  <p v-if="told" class="storage">
    <span>{{ told }}</span>
    <PushButton
      small
      look="quiet"
      :loading="cleaning"
      title="Thins old revisions, empties what was deleted over 30 days ago, and frees the space"
      @click="cleanUp"
      >Clean up now</PushButton
    >
  </p>
</template>

<style scoped>
.storage {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 28px 0 0;
  padding-top: 12px;
  border-top: 1px solid var(--line-soft);
  color: var(--ink-2);
  font-size: 12px;
  font-variant-numeric: tabular-nums;
}
</style>
