<script setup lang="ts">
/**
 * What the data folder takes, and what of it is kept for taking back; cleaned up once a day, and now when it is asked
 * for.
 */
import { computed, onMounted, ref } from 'vue';
import { counted, spaced } from '#core/words';
import { cleanStorage, getStorage, type Sizes } from '../api/client';
import { failNotice, tellNotice } from '../controls/undoNotice';
import { sentence, useConnection } from '../stores/connection';
import PushButton from '../controls/PushButton.vue';

const connection = useConnection();
const sizes = ref<Sizes | null>(null);
const cleaning = ref(false);

const megabytes = (bytes: number): string =>
  bytes < 10 * 2 ** 20 ? (bytes / 2 ** 20).toFixed(1) : spaced(bytes / 2 ** 20);
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

onMounted(async () => {
  sizes.value = await getStorage().catch((error: unknown) => {
    connection.noticed(error);
    return null;
  });
});

async function clean(): Promise<void> {
  cleaning.value = true;
  try {
    const { cleaned, sizes: now } = await cleanStorage();
    const before = sizes.value ? sizes.value.files + sizes.value.database : 0;
    sizes.value = now;
    const won = before - now.files - now.database;
    tellNotice(
      won > 2 ** 20
        ? `${megabytes(won)} MB freed; ${counted(cleaned.revisions, 'old revision', 'old revisions')} went.`
        : 'There was nothing to clean up.',
    );
  } catch (error) {
    failNotice(sentence(error));
  } finally {
    cleaning.value = false;
  }
}
</script>

<template>
  <p v-if="told" class="storage">
    <span>{{ told }}</span>
    <PushButton
      small
      look="quiet"
      :loading="cleaning"
      title="Thins old revisions, empties what was deleted over 30 days ago, and frees the space"
      @click="clean"
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
