<script setup lang="ts">
/**
 * The cast beside the slab: the picture as it grows, its heights, its checks and their mends, and the button that keeps
 * it.
 */
import { computed, reactive, ref } from 'vue';
import type { AlphaHead } from '#core/stored';
import { useLibrary } from '../stores/library';
import { useSlabBench } from '../stores/slabBench';
import { MENDS, useSlabCast } from '../stores/slabCast';
import CastFrame from './CastFrame.vue';
import CastForm from '../cast/CastForm.vue';
import CastAlphas from '../cast/CastAlphas.vue';
import CastLook from '../cast/CastLook.vue';
import CastSettingsTabs from '../cast/CastSettingsTabs.vue';
import KeepAsPart from '../cast/KeepAsPart.vue';
import { provideCastDesk } from '../cast/desk';
import type { Captured } from '../stores/newPart';
import { tellAnew } from '../cast/tellAnew';
import { usePreferences } from '../stores/preferences';

const bench = useSlabBench();
const cast = useSlabCast();
const library = useLibrary();
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

async function keep(name: string, over: AlphaHead | null): Promise<boolean> {
  const alpha = await cast.keep(name, over);
  if (!alpha) return false;
  fresh.value = alpha.id;
  if (over) await tellAnew(alpha);
  return true;
}

async function captured(): Promise<Captured> {
  const { id, card, cast: settings } = bench.doc!;
  const sourceRevision = bench.revision;
  const turn = (settings.frame.turn * Math.PI) / 180;
  return {
    name: `${card.name} part`,
    mesh: await bench.sculptor!.raised(settings.frame),
    made: { from: 'slab', sourceId: id, sourceRevision },
    millimetres: usePreferences().millimetres(),
    up: { up: [0, 0, 1], forward: [-Math.sin(turn), Math.cos(turn), 0] },
  };
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
    <CastForm
      :suggested="suggested"
      :share="cast.share"
      :ready="cast.result !== null"
      :cast="(name) => keep(name, null)"
      @cancel="cast.cancel()"
    />
    <KeepAsPart :ready="cast.result !== null" :capture="captured" @failed="(why) => (bench.problem = why)" />
    <p v-if="cast.problem || bench.problem" class="sentence-bad" role="alert">{{ cast.problem ?? bench.problem }}</p>
    <CastAlphas
      :source-id="bench.doc!.id"
      from="this slab"
      :fresh="fresh"
      :ready="cast.caster !== null && cast.share === null"
      again="Cast it anew as the clay is now; brushes follow"
      @again="(alpha) => keep(alpha.card.name, alpha)"
    />
  </div>
</template>

<style scoped>
.panel {
  height: 100%;
  overflow: auto;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
  align-content: start;
  padding: 12px 14px;
  container-type: inline-size;
}
</style>
