<script setup lang="ts">
/**
 * Chooses one of the kept alphas, or none, or one from a file. The slot is what is clicked, and takes a dropped
 * picture.
 */
import { computed, ref, useTemplateRef } from 'vue';
import type { AlphaHead } from '#core/stored';
import { pictureUrl } from '../api/client';
import { PICTURE_ENDINGS, usePickFiles } from '../controls/pickFiles';
import { failNotice } from '../controls/undoNotice';
import { useFilesDropped } from '../controls/useFilesDropped';
import { useArrivals } from '../stores/arrivals';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';

defineProps<{ chosen: string | null; none: string }>();
const emit = defineEmits<{ choose: [alpha: AlphaHead | null] }>();
const library = useLibrary();
const arrivals = useArrivals();
const open = ref(false);
const wanted = ref('');
const taking = ref(false);
const found = computed(() => {
  const words = wanted.value.toLowerCase().split(/\s+/).filter(Boolean);
  return library.alphas.filter(({ card }) =>
    words.every((w) => [card.name, card.author, ...card.tags].some((text) => text.toLowerCase().includes(w))),
  );
});

function choose(alpha: AlphaHead | null): void {
  open.value = false;
  emit('choose', alpha);
}

async function take(file: File | undefined): Promise<void> {
  if (!file || taking.value) return;
  taking.value = true;
  try {
    choose(await arrivals.asAlpha(file));
  } catch (error) {
    failNotice(sentence(error));
  } finally {
    taking.value = false;
  }
}
const pick = usePickFiles({ accept: PICTURE_ENDINGS }, ([file]) => void take(file));
const [slot, menu] = [useTemplateRef<HTMLElement>('slot'), useTemplateRef<HTMLElement>('menu')];
const over = useFilesDropped(slot, (data) => void take(data.files[0]));
useFilesDropped(menu, (data) => void take(data.files[0]));
</script>

<template>
  <div ref="slot" class="slot" :class="{ over, taking }">
    <PopMenu v-model:visible="open" placement="right-start" :width="332">
      <template #reference><slot /></template>
      <div ref="menu" class="chooser">
        <div class="head">
          <TextField v-model="wanted" placeholder="Search alphas" clearable aria-label="Search alphas" />
          <PushButton
            small
            :loading="taking"
            title="PNG, TIFF or EXR of heights, taken as they are; or drop one here"
            @click="pick"
            >From a file…</PushButton
          >
        </div>
        <div class="alphas">
          <PushButton v-if="!wanted" look="face" :on="!chosen" @click="choose(null)">
            <span class="none" />{{ none }}
          </PushButton>
          <PushButton v-for="kept in found" :key="kept.id" look="face" :on="kept.id === chosen" @click="choose(kept)">
            <img :src="pictureUrl('alphas', kept.id, kept.revision)" alt="" loading="lazy" />{{ kept.card.name }}
          </PushButton>
        </div>
        <p v-if="wanted && found.length === 0" class="muted">No alpha is called that, or has such a tag.</p>
      </div>
    </PopMenu>
    <span v-if="taking" class="word">Reading…</span>
    <span v-else-if="over" class="word">Take it as the form</span>
  </div>
</template>

<style scoped>
.slot {
  position: relative;
}
.slot.over::after {
  content: '';
  position: absolute;
  inset: 0;
  border: 3px solid var(--act);
  border-radius: var(--r);
  pointer-events: none;
}
.word {
  position: absolute;
  left: 8px;
  right: 8px;
  bottom: 8px;
  padding: 4px 8px;
  border-radius: var(--r);
  background: rgb(28 36 40 / 82%);
  color: #fff;
  text-align: center;
  font-size: 12px;
  pointer-events: none;
}
.chooser {
  display: grid;
  gap: 8px;
}
.head {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
}
.alphas {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  max-height: 330px;
  overflow: auto;
}
.alphas button {
  flex-direction: column;
  gap: 2px;
  border: 1px solid transparent;
  padding: 4px;
  font-size: var(--small);
  text-align: center;
  overflow-wrap: anywhere;
}
.alphas button:hover {
  background: var(--leaf);
}
.alphas button.on {
  border-color: var(--act);
}
img,
.none {
  display: block;
  width: 100%;
  aspect-ratio: 1;
  border-radius: 4px;
  background: #000;
  margin-bottom: 3px;
}
.none {
  background: #fff;
  border: 1px solid var(--line);
  border-radius: 50%;
}
</style>
