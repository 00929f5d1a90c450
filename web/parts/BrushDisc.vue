<script setup lang="ts">
/** A brush's picture: the server's for a saved brush, rendered here for one that is still being changed. */
import { watchDebounced } from '@vueuse/core';
import { ref } from 'vue';
import { worksOf, type Brush } from '#core/settings';
import { pictureUrl } from '../api/client';
import { useLibrary } from '../stores/library';
import { thumbnail } from '../workers/thumbnails';

const props = defineProps<{ brush: Brush; size: number; square?: boolean }>();
const library = useLibrary();
const url = ref('');

async function render(): Promise<void> {
  const kept = library.brushes.find((b) => b.doc.id === props.brush.id);
  const same = kept && worksOf(kept.doc) === worksOf(props.brush);
  // A brush whose alpha was cast anew has another picture under the same revision.
  const alpha = library.alphas.find((a) => a.doc.id === props.brush.form.alphaId)?.revision ?? 0;
  if (same) url.value = `${pictureUrl('brushes', props.brush.id, kept.revision)}&alpha=${alpha}`;
  else url.value = await thumbnail(props.brush, library.alphasOf(props.brush)).catch(() => '');
}
watchDebounced(() => [props.brush.id, worksOf(props.brush), library.loaded, library.brushes.length, ...Object.values(library.alphasOf(props.brush)).map((a) => a?.blob)], render, { debounce: 350 });
void library.ready().then(render);
</script>

<template>
  <img v-if="url" class="disc" :class="{ square }" :src="url" :width="size" :height="size" alt="" />
  <span v-else class="disc" :class="{ square }" :style="{ width: `${size}px`, height: `${size}px` }" />
</template>

<style scoped>
.disc { border-radius: 50%; flex: none; background: var(--clay); display: block; object-fit: cover; }
.disc.square { border-radius: var(--r); }
</style>
