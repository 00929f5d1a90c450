<script setup lang="ts">
/**
 * The cast beside the slab: the picture as it grows, its heights, its checks and their mends, and the button that keeps
 * it.
 */
import { computed, reactive, ref } from 'vue';
import type { AlphaHead } from '#core/kept';
import { tellNotice } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';
import { useSlabBench } from '../stores/slabBench';
import { MENDS, useSlabCast } from '../stores/slabCast';
import CastFrame from './CastFrame.vue';
import CastKept from '../cast/CastKept.vue';
import CastLook from '../cast/CastLook.vue';
import CastSettingsTabs from '../cast/CastSettingsTabs.vue';
import { provideCastDesk } from '../cast/desk';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';

const bench = useSlabBench();
const cast = useSlabCast();
const library = useLibrary();
const name = ref('');
const fresh = ref<string | null>(null);

provideCastDesk(
  reactive({
    settings: computed(() => bench.doc!.cast),
    result: computed(() => cast.result),
    flat: computed(() => cast.flat),
    edit: cast.edit,
  }),
);
const suggested = computed(() => library.freeName('alphas', `${bench.doc?.card.name ?? 'Slab'} cast`));

async function keep(over: AlphaHead | null): Promise<void> {
  const alpha = await cast.keep(over ? over.card.name : name.value.trim() === '' ? suggested.value : name.value, over);
  if (!alpha) return;
  fresh.value = alpha.id;
  if (!over) {
    name.value = '';
    return;
  }
  const follow = library.followersOf(alpha.id);
  tellNotice(
    follow.length === 0
      ? `“${alpha.card.name}” is cast anew; no brush uses it yet.`
      : `“${alpha.card.name}” is cast anew. ${follow.map((f) => `“${f}”`).join(', ')} ${follow.length === 1 ? 'follows' : 'follow'} it.`,
  );
  await library.load();
}
</script>

<template>
  <div class="panel">
    <div class="heading">
      Cast
      <small v-if="cast.result">live, {{ cast.result.size }} px in {{ cast.result.milliseconds.toFixed(0) }} ms</small>
    </div>
    <CastLook :mends="MENDS" @mend="cast.mend">
      <template #flat
        >Everything lies at one height.<br />Lift or carve a form inside the frame and its cast grows here.</template
      >
    </CastLook>
    <CastSettingsTabs><CastFrame /></CastSettingsTabs>
    <form class="row" @submit.prevent="keep(null)">
      <span class="label">Name</span>
      <span class="go">
        <TextField v-model="name" maxlength="80" :placeholder="suggested" aria-label="Name of the alpha" />
        <PushButton v-if="cast.share === null" look="main" native-type="submit" :disabled="!cast.result"
          >Cast</PushButton
        >
        <PushButton v-else @click="cast.cancel()"> Cancel · {{ (cast.share * 100).toFixed(0) }} % </PushButton>
      </span>
    </form>
    <p v-if="cast.problem || bench.problem" class="sentence-bad" role="alert">{{ cast.problem ?? bench.problem }}</p>
    <CastKept
      :source-id="bench.doc!.id"
      from="this slab"
      :fresh="fresh"
      :ready="cast.caster !== null && cast.share === null"
      again="Cast it anew as the clay is now; brushes follow"
      @again="keep"
    />
  </div>
</template>

<style scoped>
.panel {
  height: 100%;
  overflow: auto;
  display: grid;
  gap: 8px;
  align-content: start;
  padding: 12px 14px;
}
.row {
  grid-template-columns: 50px 1fr;
}
.go {
  display: flex;
  gap: 8px;
}
</style>
