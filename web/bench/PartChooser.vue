<script setup lang="ts">
/** Chooses parts that are kept. The slot is what is clicked. */
import { computed, ref } from 'vue';
import { spaced } from '#core/words';
import { pictureUrl } from '../api/client';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import WorkLine from '../controls/WorkLine.vue';
import TextField from '../controls/TextField.vue';
import { usePickFiles } from '../controls/pickFiles';
import { failNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { usePartFiles } from '../stores/partFiles';
import { MESH_ENDINGS } from '../workers/meshFiles';

const props = defineProps<{ several?: boolean }>();
const emit = defineEmits<{ choose: [ids: string[]] }>();
const library = useLibrary();
const open = ref(false);
const wanted = ref('');
const found = computed(() => {
  const words = wanted.value.toLowerCase().split(/\s+/).filter(Boolean);
  return library.parts.filter(({ card }) =>
    words.every((w) => [card.name, card.author, ...card.tags].some((text) => text.toLowerCase().includes(w))),
  );
});
const { going, open: asParts } = usePartFiles((error) => failNotice(sentence(error)));
const pick = usePickFiles(
  { accept: MESH_ENDINGS.map((ending) => `.${ending}`).join(','), several: props.several },
  (files) =>
    void asParts(files).then((made) => {
      if (made.length > 0) emit('choose', made);
    }),
);
/** Several are added one by one; the menu stays open for the next. */
function choose(id: string): void {
  if (!props.several) open.value = false;
  emit('choose', [id]);
}
</script>

<template>
  <PopMenu v-model:visible="open" placement="right-start" :width="332">
    <template #reference
      ><span><slot /></span
    ></template>
    <div class="chooser">
      <TextField v-model="wanted" placeholder="Search parts" clearable aria-label="Search parts" />
      <div class="parts">
        <PushButton v-for="part in found" :key="part.id" look="face" @click="choose(part.id)">
          <img :src="pictureUrl('parts', part.id, part.revision)" alt="" loading="lazy" />{{ part.card.name
          }}<small class="muted">{{ spaced(part.triangles) }} faces</small>
        </PushButton>
      </div>
      <PushButton small :disabled="going !== null" title="OBJ, PLY, STL or GLB; each file is a part" @click="pick">
        Open files as parts…
      </PushButton>
      <WorkLine v-if="going" :work="going" />
      <p v-if="library.parts.length === 0" class="muted">
        No part is kept yet. Capture one on a scan or a slab, or open a mesh as one.
      </p>
      <p v-else-if="found.length === 0" class="muted">No part is called that, or has such a tag.</p>
    </div>
  </PopMenu>
</template>

<style scoped>
.chooser {
  display: grid;
  gap: 8px;
}
.parts {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  max-height: 330px;
  overflow: auto;
}
.parts button {
  flex-direction: column;
  gap: 2px;
  border: 1px solid transparent;
  padding: 4px;
  font-size: var(--small);
  text-align: center;
  overflow-wrap: anywhere;
}
.parts button:hover {
  background: var(--leaf);
}
img {
  display: block;
  width: 100%;
  aspect-ratio: 1;
  border-radius: 4px;
  margin-bottom: 3px;
}
small {
  display: block;
}
</style>
