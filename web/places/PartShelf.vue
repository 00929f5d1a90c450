<script setup lang="ts">
/** The parts of Sources: light meshes that are set down on a surface. */
import { useRouter } from 'vue-router';
import type { PartHead } from '#core/stored';
import { spaced } from '#core/words';
import { pictureUrl } from '../api/client';
import PushButton from '../controls/PushButton.vue';
import WorkLine from '../controls/WorkLine.vue';
import { usePickFiles } from '../controls/pickFiles';
import { failNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { usePartFiles } from '../stores/partFiles';
import { MESH_ENDINGS } from '../workers/meshFiles';
import SourceActions from './SourceActions.vue';

defineProps<{ parts: readonly (PartHead & { revision: number })[] }>();
defineEmits<{ saves: [part: PartHead]; rename: [part: PartHead]; copy: [part: PartHead]; remove: [part: PartHead] }>();
const library = useLibrary();
const router = useRouter();
const { going, open: asParts } = usePartFiles((error) => failNotice(sentence(error)));

async function open(files: readonly File[]): Promise<void> {
  const [made] = await asParts(files);
  if (files.length === 1 && made && router.currentRoute.value.name === 'sources')
    await router.push(`/bench/part/${made}`);
}
const pick = usePickFiles(
  { accept: MESH_ENDINGS.map((ending) => `.${ending}`).join(','), several: true },
  (files) => void open(files),
);
</script>

<template>
  <h2>
    Parts <small>light meshes that are set down on a surface</small>
    <PushButton small :disabled="going !== null" title="OBJ, PLY, STL or GLB; each file is a part" @click="pick">
      Open as parts…
    </PushButton>
  </h2>
  <WorkLine v-if="going" class="going" :work="going" />
  <p v-if="library.loaded && library.parts.length === 0" class="none">
    No part yet. Capture one on a scan or a slab, or open a mesh as one.
  </p>
  <ul class="grid">
    <li v-for="doc in parts" :key="doc.id" class="card">
      <RouterLink :to="`/bench/part/${doc.id}`" :aria-label="`Open ${doc.card.name}`"
        ><img :src="pictureUrl('parts', doc.id, doc.revision)" alt=""
      /></RouterLink>
      <b>{{ doc.card.name }}</b>
      <span class="muted">{{ spaced(doc.triangles) }} of {{ spaced(doc.wholeTriangles) }} faces</span>
      <SourceActions
        :id="doc.id"
        :name="doc.card.name"
        @saves="$emit('saves', doc)"
        @rename="$emit('rename', doc)"
        @copy="$emit('copy', doc)"
        @remove="$emit('remove', doc)"
      />
    </li>
  </ul>
</template>

<style scoped src="./rack.css"></style>
<style scoped src="./card.css"></style>
<style scoped>
h2 {
  display: flex;
  align-items: center;
  gap: 10px;
}
.none {
  padding: 16px 0;
  text-align: left;
}
.going {
  max-width: 360px;
  margin-bottom: 10px;
}
</style>
