<script setup lang="ts">
/** Writing a pack, or chosen brushes: as one pack file, as a page with it inside, or as plain folders. */
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { fileNameOf } from '#core/pack';
import ChoiceBar from '../controls/ChoiceBar.vue';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';
import { saveFile } from '../controls/saveFile';
import TickBox from '../controls/TickBox.vue';
import { failNotice, orSay, tellNotice } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';
import { usePackFiles } from '../stores/packFiles';
import { usePackFolder } from '../stores/packFolder';
import { counted, usePacks } from '../stores/packs';
import { usePalettes } from '../stores/palettes';

export interface ToWrite {
  /** A pack; null for brushes that were chosen one by one. */
  pack: string | null;
  ids: readonly string[];
}

const FORMS = [
  { value: 'file', label: 'Pack file', help: 'All that belongs to the brushes, for Mold Stamp' },
  { value: 'page', label: 'Web page', help: 'One page to look at anywhere, with the pack file inside' },
  { value: 'folders', label: 'Plain folders', help: 'Pictures, meshes and cards, for any program' },
] as const;
const asked = defineModel<ToWrite | null>({ required: true });
const library = useLibrary();
const packs = usePacks();
const palettes = usePalettes();
const files = usePackFiles();
const folders = usePackFolder();
const form = useLocalStorage<(typeof FORMS)[number]['value']>('write-form', 'file');
const recipes = useLocalStorage('write-recipes', true);
const sources = useLocalStorage('write-sources', false);
const chosen = ref<string[]>([]);
const visible = computed({ get: () => asked.value !== null, set: () => (asked.value = null) });
const pack = computed(() => (asked.value?.pack ? packs.docOf(asked.value.pack) : null));
const name = computed(() => pack.value?.card.name ?? 'Brushes');
/** Drafts that were never saved can’t go out. */
const unsaved = computed(() => (asked.value?.ids ?? []).filter((id) => !library.listedBrush(id)).length);
const count = computed(() => (asked.value?.ids.length ?? 0) - unsaved.value);
watch(asked, () => (chosen.value = []));

function flip(id: string): void {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter((one) => one !== id) : [...chosen.value, id];
}

function go(): void {
  const what = asked.value;
  if (!what) return;
  const wish = {
    pack: what.pack,
    brushes: what.ids.filter((id) => library.listedBrush(id)),
    name: name.value,
    recipes: recipes.value,
    sources: sources.value,
    palettes: [...chosen.value],
  };
  const groups = pack.value
    ? pack.value.groups.map((group) => ({
        name: group.name,
        ids: group.brushes.filter((id) => library.brushHead(id)),
      }))
    : [{ name: '', ids: what.ids }];
  const about = pack.value;
  asked.value = null;
  orSay(async () => {
    if (form.value !== 'folders') {
      await files.write(wish, form.value);
      return;
    }
    const written = await folders.write(wish.name, about, groups);
    if (!written) return;
    saveFile(`${fileNameOf(wish.name, 'Pack')}.zip`, written.file);
    if (written.left.length > 0) failNotice(`Left out: ${written.left.join(' ')}`);
    else tellNotice(`“${wish.name}” is written.`);
  });
}
</script>

<template>
  <DialogBox v-model:visible="visible" :title="`Write “${name}”`" :width-px="460">
    <form @submit.prevent="go">
      <ChoiceBar v-model="form" label="Form" :options="FORMS" />
      <template v-if="form !== 'folders'">
        <p v-if="form === 'page'">
          One page with the pictures and cards of {{ counted(count).toLowerCase() }}, to be looked at in any browser
          without Mold Stamp. The pack file lies inside it and is saved from it.
        </p>
        <p v-else>
          One file with {{ counted(count).toLowerCase() }}: every setting, alphas in 16 bits and float, parts, pictures,
          maker and licence. Opened here again it is the same.
        </p>
        <TickBox v-model="recipes">Recipes, and parts in full detail, so that they can be cast anew</TickBox>
        <TickBox v-model="sources">The sources they were made from: slabs, sheets, scans</TickBox>
        <div v-if="palettes.all.length" class="palettes">
          <span class="muted">Palettes that come along</span>
          <TickBox
            v-for="palette in palettes.all"
            :key="palette.id"
            :model-value="chosen.includes(palette.id)"
            @update:model-value="flip(palette.id)"
            >{{ palette.card.name }}</TickBox
          >
        </div>
      </template>
      <p v-else>
        A ZIP of folders, one for each of {{ counted(count).toLowerCase() }}: 16-bit PNG or EXR, GLB, the settings as
        JSON and a card to read.
      </p>
      <p v-if="unsaved" class="sentence-bad">{{ counted(unsaved) }} never saved: left out.</p>
    </form>
    <template #footer>
      <PushButton @click="asked = null">Cancel</PushButton>
      <PushButton look="main" :disabled="count === 0" @click="go">Write</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
}
p {
  color: var(--ink-2);
  line-height: 1.45;
}
.palettes {
  display: grid;
  max-height: 150px;
  overflow-y: auto;
}
</style>
