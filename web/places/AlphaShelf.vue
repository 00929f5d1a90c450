<script setup lang="ts">
/** The alphas of Sources. Some can be chosen, and become brushes at once. */
import { Download } from '@lucide/vue';
import { onKeyStroke } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import type { AlphaHead } from '#core/stored';
import { pictureUrl } from '../api/client';
import BrushesDialog from '../bench/BrushesDialog.vue';
import { alphaFacts } from '../controls/alphaFacts';
import { orSay } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';
import { useRecast } from '../stores/recast';
import { useUpstream } from '../stores/upstream';
import PushButton from '../controls/PushButton.vue';
import TickBox from '../controls/TickBox.vue';
import SourceActions from './SourceActions.vue';

const props = defineProps<{ alphas: readonly (AlphaHead & { revision: number })[] }>();
defineEmits<{
  saves: [alpha: AlphaHead];
  rename: [alpha: AlphaHead];
  copy: [alpha: AlphaHead];
  remove: [alpha: AlphaHead];
}>();
const library = useLibrary();
const upstream = useUpstream();
const recast = useRecast();
watch([() => library.alphas, () => library.sources], () => void upstream.look(), { immediate: true });
const chosenIds = ref(new Set<string>());
const making = ref(false);
/** Where Shift takes up: what was chosen last. */
let last: string | null = null;
const chosen = computed(() => props.alphas.filter(({ id }) => chosenIds.value.has(id)));
const from = { id: 'alphas', name: 'chosen alphas' };

function choose(id: string, { on, through }: { on: boolean; through: boolean }): void {
  const ids = props.alphas.map((alpha) => alpha.id);
  const [a, b] = [ids.indexOf(through && last ? last : id), ids.indexOf(id)];
  const next = new Set(chosenIds.value);
  for (const one of a < 0 ? [id] : ids.slice(Math.min(a, b), Math.max(a, b) + 1)) {
    if (on) next.add(one);
    else next.delete(one);
  }
  chosenIds.value = next;
  last = id;
}
const shift = ref(false);
onKeyStroke('Escape', () => {
  if (!making.value) chosenIds.value = new Set();
});
</script>

<template>
  <h2>
    Alphas <small>height pictures and vectors, cast and cleaned</small>
    <PushButton
      v-if="upstream.changed.length > 0 && !recast.running()"
      small
      title="Cast anew those whose sources have changed since, with their own frames, sizes and recipes"
      @click="orSay(() => recast.recast(upstream.changed))"
    >
      Cast anew: {{ upstream.changed.length }} changed upstream
    </PushButton>
  </h2>
  <p v-if="library.loaded && library.alphas.length === 0" class="none">Nothing is cast yet.</p>
  <ul class="grid" :class="{ choosing: chosen.length > 0 }">
    <li v-for="doc in alphas" :key="doc.id" class="card" :class="{ chosen: chosenIds.has(doc.id) }">
      <TickBox
        class="pick"
        :model-value="chosenIds.has(doc.id)"
        :aria-label="`Choose ${doc.card.name}`"
        title="Choose; with Shift all up to here"
        @click.capture="(e: MouseEvent) => (shift = e.shiftKey)"
        @update:model-value="(on) => choose(doc.id, { on, through: shift })"
      />
      <RouterLink :to="`/bench/alpha/${doc.id}`" :aria-label="`Open ${doc.card.name}`"
        ><img :src="pictureUrl('alphas', doc.id, doc.revision)" alt=""
      /></RouterLink>
      <b>{{ doc.card.name }}</b>
      <span v-if="upstream.ids.has(doc.id)" class="behind">changed upstream</span>
      <span v-else class="muted">{{ alphaFacts(doc) }}</span>
      <SourceActions
        :id="doc.id"
        :name="doc.card.name"
        @saves="$emit('saves', doc)"
        @rename="$emit('rename', doc)"
        @copy="$emit('copy', doc)"
        @remove="$emit('remove', doc)"
      >
        <a
          :href="`/api/alphas/${doc.id}/${doc.format === 'vector32f' ? 'exr' : 'png'}`"
          download
          :title="doc.format === 'vector32f' ? 'Download EXR, float vectors' : 'Download PNG, 16 bit'"
          :aria-label="`Download ${doc.card.name}`"
          ><Download :size="15"
        /></a>
      </SourceActions>
    </li>
  </ul>
  <div v-if="chosen.length > 0" class="chosen-bar" role="status">
    <span>{{ chosen.length }} {{ chosen.length === 1 ? 'alpha' : 'alphas' }} chosen</span>
    <PushButton @click="chosenIds = new Set(alphas.map(({ id }) => id))">Choose all</PushButton>
    <PushButton title="Esc" @click="chosenIds = new Set()">Choose none</PushButton>
    <PushButton look="main" @click="making = true">
      Make {{ chosen.length === 1 ? 'a brush' : `${chosen.length} brushes` }}…
    </PushButton>
  </div>
  <BrushesDialog v-model:visible="making" :alphas="chosen" :from="from" />
</template>

<style scoped src="./rack.css"></style>
<style scoped src="./card.css"></style>
<style scoped>
.card {
  position: relative;
}
.pick {
  position: absolute;
  left: 8px;
  top: 6px;
  z-index: 1;
  height: auto;
  opacity: 0;
}
.card:hover .pick,
.pick:focus-within,
.choosing .pick {
  opacity: 1;
}
/* A finger doesn’t hover. */
@media (pointer: coarse) {
  .pick {
    opacity: 1;
  }
}
h2 {
  display: flex;
  align-items: center;
  gap: 10px;
}
.behind {
  color: var(--warn);
  font-weight: 500;
}
.card.chosen img {
  box-shadow: 0 0 0 3px var(--act);
}
.chosen-bar {
  box-shadow: 0 -6px 18px rgb(28 36 40 / 14%);
  position: sticky;
  bottom: 0;
  z-index: 2;
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 12px;
  padding: 8px 12px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--field);
}
.chosen-bar span {
  margin-right: auto;
}
@media (hover: none) {
  .pick {
    opacity: 1;
  }
}
</style>
