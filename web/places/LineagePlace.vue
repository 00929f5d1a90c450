<script setup lang="ts">
/** The lineage of one thing: what it was made from, and what was made from it. One walks along it. */
import { computed, ref, shallowRef, watch } from 'vue';
import type { Alpha } from '#core/settings';
import { othersOf } from '#core/recipe';
import * as api from '../api/client';
import PushButton from '../controls/PushButton.vue';
import { useSaidSteps } from '../controls/saidSteps';
import EmptyPlace from '../controls/EmptyPlace.vue';
import TopBar from '../controls/TopBar.vue';
import UndoButtons from '../controls/UndoButtons.vue';
import { failNotice, orSay } from '../controls/undoNotice';
import LineageNotes from '../lineage/LineageNotes.vue';
import LineagePicture from '../lineage/LineagePicture.vue';
import { useKin } from '../lineage/kin';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { useRecast } from '../stores/recast';
import { useUpstream } from '../stores/upstream';

const props = defineProps<{ id: string }>();
const library = useLibrary();
const upstream = useUpstream();
const recast = useRecast();
const mixed = shallowRef<ReadonlyMap<string, readonly string[]>>(new Map());
const all = useKin(mixed);
const one = computed(() => all.value.find(({ id }) => id === props.id) ?? null);
/** Casts are old that the notes of this thing don’t speak of. */
const elsewhere = computed(() =>
  upstream.changed.some((old) => old.id !== props.id && old.lineage.sourceId !== props.id),
);
const alpha = shallowRef<Alpha | null>(null);
const loaded = ref(false);
useSaidSteps();

/** The recipe of the alpha, what it mixes in, and who mixes it in. */
async function look(id: string): Promise<void> {
  alpha.value = null;
  if (!library.alpha(id)) return;
  try {
    const [{ doc }, users] = await Promise.all([api.get('alphas', id), api.usersOf('alphas', id)]);
    if (props.id === id) alpha.value = doc;
    const known = new Map(mixed.value).set(id, othersOf(doc.recipe?.steps ?? []));
    for (const user of users)
      if (user.collection === 'alphas') known.set(user.id, [...new Set([...(known.get(user.id) ?? []), id])]);
    mixed.value = known;
  } catch (error) {
    failNotice(sentence(error));
  }
}
watch(
  [() => props.id, () => library.alpha(props.id)?.revision],
  async ([id]) => {
    await library.ready();
    loaded.value = true;
    await look(id);
  },
  { immediate: true },
);
watch([() => library.alphas, () => library.sources], () => void upstream.look(), { immediate: true });
</script>

<template>
  <div class="place">
    <TopBar>
      <template #end>
        <PushButton
          v-if="elsewhere && !recast.running()"
          title="Every alpha here whose source has changed since"
          @click="orSay(() => recast.recast(upstream.changed))"
        >
          Cast anew: all {{ upstream.changed.length }} changed upstream
        </PushButton>
        <UndoButtons />
      </template>
    </TopBar>
    <div v-if="one" class="leaves">
      <LineagePicture :id="id" :all="all" :changed="upstream.ids" />
      <LineageNotes :one="one" :all="all" :alpha="alpha" />
    </div>
    <EmptyPlace
      v-else
      what="the lineage"
      :opening="!loaded"
      :says="library.failed ?? 'What this lineage is of isn’t here any more.'"
      to="/"
    />
  </div>
</template>

<style scoped src="./rack.css"></style>
<style scoped>
.leaves {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 280px;
  min-height: 0;
}
@media (max-width: 1100px) {
  .leaves {
    grid-template-columns: minmax(0, 1fr) 232px;
  }
}
</style>
