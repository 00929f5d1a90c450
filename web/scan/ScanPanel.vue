<script setup lang="ts">
/** The chosen patch as a cast: its picture, the overall shape that is taken out, tones, output, and what was kept. */
import { computed, reactive, ref } from 'vue';
import type { AlphaHead } from '#core/stored';
import { PatchSchema } from '#core/settings';
import CastForm from '../cast/CastForm.vue';
import CastAlphas from '../cast/CastAlphas.vue';
import CastLook from '../cast/CastLook.vue';
import CastSettingsTabs from '../cast/CastSettingsTabs.vue';
import { provideCastDesk } from '../cast/desk';
import { tellAnew } from '../cast/tellAnew';
import PushButton from '../controls/PushButton.vue';
import SettingList from '../controls/SettingList.vue';
import TextField from '../controls/TextField.vue';
import { tellNotice } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';
import { useScanBench } from '../stores/scanBench';
import { PATCH_MENDS, useScanCast } from '../stores/scanCast';
import PatchShape from './PatchShape.vue';

const bench = useScanBench();
const cast = useScanCast();
const library = useLibrary();
const fresh = ref<string | null>(null);
const patch = computed(() => bench.chosen);

provideCastDesk(
  reactive({
    settings: computed(() => bench.chosen!.cast),
    result: computed(() => cast.result),
    flat: computed(() => cast.flat),
    edit: cast.edit,
  }),
);
const nameOf = (name: string): string => `${bench.doc!.card.name} ${name.replace(/^Patch /, '')}`.trim();
const suggested = computed(() => library.freeName('alphas', nameOf(patch.value?.name ?? '')));

async function keep(name: string): Promise<boolean> {
  const [made] = patch.value ? await cast.keep([{ patch: patch.value, name, over: null }]) : [];
  if (made) fresh.value = made.id;
  return made !== undefined;
}

async function keepAll(): Promise<void> {
  const patches = bench.doc!.patches.map((p) => ({ patch: p, name: nameOf(p.name), over: null }));
  const made = await cast.keep(patches);
  if (made.length > 0) tellNotice(`${made.length} ${made.length === 1 ? 'patch is' : 'patches are'} cast.`);
}

const patchOf = (alpha: AlphaHead) => bench.doc?.patches.find(({ id }) => id === alpha.lineage.patchId) ?? null;
async function again(alpha: AlphaHead): Promise<void> {
  const own = patchOf(alpha);
  if (!own) return;
  const [made] = await cast.keep([{ patch: own, name: alpha.card.name, over: alpha }]);
  if (!made) return;
  fresh.value = made.id;
  await tellAnew(made);
}
const rename = (name: string): void => {
  const short = name.trim().slice(0, 60);
  if (patch.value && short) bench.editPatch(patch.value.id, 'name', (p) => (p.name = short));
};
</script>

<template>
  <div class="panel">
    <div v-if="!patch" class="none">
      <p>No patch yet. A patch is the square window of the scan that is cast.</p>
      <PushButton look="main" @click="bench.laying = true">Lay a patch</PushButton>
      <p class="muted">Press on the scan and drag out its size. It lies as the surface does.</p>
    </div>
    <template v-else>
      <div class="heading">
        Cast of {{ patch.name }}
        <small v-if="cast.result"
          >live, {{ cast.result.size }} px in {{ cast.result.milliseconds.toFixed(0) }} ms</small
        >
      </div>
      <CastLook :mends="PATCH_MENDS" @mend="cast.mend">
        <template #flat>{{ cast.flat?.flat ?? 'Casting…' }}</template>
      </CastLook>
      <PatchShape />
      <CastSettingsTabs>
        <div class="frame">
          <div class="row">
            <span class="label">Name</span>
            <TextField
              :key="patch.id"
              :model-value="patch.name"
              aria-label="Name of the patch"
              maxlength="60"
              @update:model-value="rename"
            />
          </div>
          <SettingList
            :schema="PatchSchema"
            :of="patch"
            :paths="['cast.frame.side', 'cast.frame.turn']"
            @edit="(change) => bench.editPatch(patch!.id, 'cast', change)"
          />
          <PushButton title="Turned as the surface under all of it lies (K)" @click="bench.level(patch.id)">
            Lay it as the surface lies
          </PushButton>
        </div>
      </CastSettingsTabs>
      <CastForm
        :suggested="suggested"
        :share="cast.share"
        :ready="cast.result !== null"
        :cast="keep"
        @cancel="cast.cancel()"
      />
      <PushButton v-if="bench.doc!.patches.length > 1" :disabled="cast.share !== null" @click="keepAll">
        Cast all {{ bench.doc!.patches.length }} patches
      </PushButton>
    </template>
    <p v-if="cast.problem" class="sentence-bad" role="alert">{{ cast.problem }}</p>
    <CastAlphas
      :source-id="bench.doc!.id"
      from="this scan"
      :fresh="fresh"
      :ready="bench.mesh !== null && cast.share === null"
      again="Cast it anew as its patch is now; brushes follow"
      :castable="(alpha) => patchOf(alpha) !== null"
      @again="again"
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
.none {
  display: grid;
  gap: 10px;
  justify-items: start;
  padding: 12px 0;
}
.frame {
  display: grid;
  gap: 8px;
  --label: 50px;
}
.row {
  grid-template-columns: 50px 1fr;
}
</style>
