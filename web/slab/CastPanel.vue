<script setup lang="ts">
/**
 * The cast beside the slab: the picture as it grows, its heights, its checks and their mends, and the button that keeps
 * it.
 */
import { computed, ref } from 'vue';
import type { AlphaHead } from '#core/kept';
import CheckNote from '../controls/CheckNote.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import { tellNotice } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';
import { useSlabBench } from '../stores/slabBench';
import { MENDS, useSlabCast } from '../stores/slabCast';
import CastFrame from './CastFrame.vue';
import CastKept from './CastKept.vue';
import CastOutput from './CastOutput.vue';
import CastPicture from './CastPicture.vue';
import CastTones from './CastTones.vue';
import HeightField from './HeightField.vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';

const bench = useSlabBench();
const cast = useSlabCast();
const library = useLibrary();
const name = ref('');
const fresh = ref<string | null>(null);
const tab = ref<'tones' | 'frame' | 'output'>('tones');
const all = ref(false);

const settings = computed(() => bench.doc!.cast);
const checks = computed(() => cast.result?.checks ?? []);
const found = computed(() => checks.value.filter((c) => !c.ok));
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
    <div class="top">
      <CastPicture />
      <div class="facts">
        <HeightField
          label="Crown"
          :value="settings.crown"
          :found="cast.result?.crown ?? cast.flat?.floor ?? 0"
          @put="
            (v) =>
              cast.edit((c) => {
                c.crown = v;
              })
          "
        />
        <HeightField
          label="Floor"
          :value="settings.floor"
          :found="cast.result?.floor ?? cast.flat?.floor ?? 0"
          @put="
            (v) =>
              cast.edit((c) => {
                c.floor = v;
              })
          "
        />
        <dl v-if="cast.result">
          <dt title="(crown − floor) ÷ frame side">Relief</dt>
          <dd>{{ cast.result.relief.toFixed(4) }}</dd>
          <dt title="The grey that leaves the surface where it is">Ground</dt>
          <dd>{{ cast.result.ground.toFixed(3) }}</dd>
          <dt>Used range</dt>
          <dd>{{ (cast.result.usedRange * 100).toFixed(0) }} %</dd>
          <dt>Undercut</dt>
          <dd>{{ (cast.result.undercutShare * 100).toFixed(1) }} %</dd>
        </dl>
        <PushButton v-if="cast.result" look="quiet" class="sum" :aria-expanded="all" @click="all = !all">
          {{
            found.length === 0
              ? `All ${checks.length} checks are well`
              : `${found.length} of ${checks.length} checks found something`
          }}
        </PushButton>
      </div>
    </div>
    <CheckNote
      v-for="check in found"
      :key="check.name"
      :sentence="check.sentence"
      :mend="MENDS[check.name] ?? ''"
      @mend="cast.mend(check.name)"
    />
    <ul v-if="all" class="well">
      <li v-for="check in checks.filter((c) => c.ok)" :key="check.name">{{ check.sentence }}</li>
    </ul>
    <ChoiceBar
      v-model="tab"
      label="Settings of the cast"
      :options="[
        { value: 'tones', label: 'Tones' },
        { value: 'frame', label: 'Frame' },
        { value: 'output', label: 'Output' },
      ]"
    />
    <CastTones v-if="tab === 'tones'" />
    <CastFrame v-else-if="tab === 'frame'" />
    <CastOutput v-else />
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
    <CastKept :fresh="fresh" :ready="cast.caster !== null && cast.share === null" @again="keep" />
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
.top {
  display: grid;
  grid-template-columns: minmax(0, 220px) minmax(150px, 1fr);
  gap: 14px;
}
.facts {
  display: grid;
  gap: 8px;
  align-content: start;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 5px 10px;
}
dt {
  color: var(--ink-2);
}
dd {
  text-align: right;
}
.sum {
  padding: 0 4px;
  height: 24px;
  margin-left: -4px;
  justify-content: start;
  font-weight: 400;
  color: var(--act-deep);
  white-space: normal;
  text-align: left;
}
.well {
  font-size: var(--small);
  color: var(--ink-2);
  display: grid;
  gap: 2px;
}
.row {
  grid-template-columns: 50px 1fr;
}
.go {
  display: flex;
  gap: 8px;
}
</style>
