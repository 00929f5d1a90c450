<script setup lang="ts">
/** A brush's picture: the server's for a saved brush, rendered here for one that is still being changed. */
import { watchDebounced } from '@vueuse/core';
import { computed, ref } from 'vue';
import type { BrushHead } from '#core/stored';
import { worksOf, type Brush } from '#core/settings';
import { pictureUrl } from '../api/client';
import { namedBlobs } from '../api/namedBlobs';
import { useLibrary } from '../stores/library';
import { useThumbnails } from '../stores/thumbnails';

const props = defineProps<{ brush: BrushHead | Brush; size: number; square?: boolean }>();
const library = useLibrary();
const thumbnails = useThumbnails();
const url = ref('');
/** A brush whose alpha was cast anew has another picture under the same revision. */
const saved = computed(() => {
  const stored = library.listedBrush(props.brush.id);
  return stored
    ? `${pictureUrl('brushes', stored.id, stored.revision)}&alpha=${library.alpha(stored.form.alphaId)?.revision ?? 0}`
    : '';
});
/** What is drawn here: a draft, or a brush that isn't of the library. */
const draft = computed(
  () => library.draftOf(props.brush.id) ?? (saved.value === '' && 'pen' in props.brush ? props.brush : null),
);
const drawn = computed(() =>
  draft.value
    ? [worksOf(draft.value), JSON.stringify(draft.value.thumbnail), ...namedBlobs(library.alphasOf(draft.value))].join()
    : '',
);

async function render(): Promise<void> {
  if (!draft.value) {
    url.value = saved.value;
    return;
  }
  const { id } = draft.value;
  const picture = await thumbnails.of(draft.value, library.alphasOf(draft.value)).catch(() => '');
  if (draft.value?.id === id) url.value = picture;
}
watchDebounced([() => props.brush.id, drawn, saved], render, { debounce: 350 });
void library.ready().then(render);
</script>

<template>
  <img v-if="url" class="disc" :class="{ square }" :src="url" :width="size" :height="size" alt="" loading="lazy" />
  <span v-else class="disc" :class="{ square }" :style="{ width: `${size}px`, height: `${size}px` }" />
</template>

<style scoped>
.disc {
  border-radius: 50%;
  flex: none;
  background: var(--clay);
  display: block;
  object-fit: cover;
}
.disc.square {
  border-radius: var(--r);
}
</style>
