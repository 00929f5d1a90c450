<script setup lang="ts">
/** How marks are found, how they are cut, and the alphas that were cast from the sheet. */
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import type { AlphaHead } from '#core/stored';
import { FindSchema, settingAt, settingsIn, SheetSchema } from '#core/settings';
import CutName from '../controls/CutName.vue';
import { pictureUrl } from '../api/client';
import { brushFrom } from '../bench/brushFrom';
import BrushesDialog from '../bench/BrushesDialog.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { failNotice, tellNotice } from '../controls/undoNotice';
import { useArrivals } from '../stores/arrivals';
import { sentence } from '../stores/connection';
import { useSheetBench } from '../stores/sheetBench';
import { BakeCancelled } from '../workers/recipes';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import TickBox from '../controls/TickBox.vue';

const bench = useSheetBench();
const arrivals = useArrivals();
const router = useRouter();
const fresh = ref<string[]>([]);
const making = ref(false);
const doc = computed(() => bench.doc!);
const summary = computed(() => {
  const { marks, included, found } = bench;
  if (bench.finding) return 'Looking for marks…';
  if (marks.length === 0)
    return 'Nothing was found on this sheet. Raise “faint marks”, lower “smallest mark”, or draw round what you want with the lasso.';
  const left = found
    ? `; ${found.specks} ${found.specks === 1 ? 'speck' : 'specks'} and ${found.hairs} ${found.hairs === 1 ? 'hair' : 'hairs'} left out`
    : '';
  return `${marks.length} ${marks.length === 1 ? 'mark' : 'marks'}, ${included.length} included${left}.`;
});
const numbers = settingsIn(FindSchema);

async function castMarks(): Promise<AlphaHead[]> {
  const made = await bench.castAll();
  fresh.value = made.map((a) => a.id);
  return made;
}
async function cast(): Promise<void> {
  const { id } = doc.value;
  const made = await castMarks();
  if (made.length && bench.doc?.id === id)
    tellNotice(`${made.length} ${made.length === 1 ? 'alpha is' : 'alphas are'} cast.`);
}
/** What is open is saved first, so that the lineage is true. */
async function castWhole(): Promise<void> {
  if (bench.unsaved && !(await bench.save())) return;
  const { id, card, file, cut } = doc.value;
  try {
    const alpha = await arrivals.castWhole({ id, revision: bench.revision!, name: card.name, file, size: cut.size });
    if (bench.doc?.id === id) fresh.value = [alpha.id];
    else tellNotice(`“${alpha.card.name}” is cast.`);
  } catch (error) {
    if (!(error instanceof BakeCancelled)) failNotice(`The cast wasn’t kept. ${sentence(error)}`);
  }
}
async function makeBrush(alpha: AlphaHead): Promise<void> {
  await router.push(`/bench/brush/${await brushFrom(alpha)}`);
}
</script>

<template>
  <div class="panel">
    <div class="heading">
      Marks <small>{{ doc.file.what }}, {{ doc.file.width }} × {{ doc.file.height }} px</small>
    </div>
    <p :class="bench.marks.length ? 'muted' : 'sentence-bad'" role="status">{{ summary }}</p>
    <div class="row">
      <span class="label">Ink is</span
      ><ChoiceBar
        label="Ink is"
        :model-value="doc.find.polarity"
        :options="[
          {
            value: 'auto',
            label: bench.finding || doc.marks === null ? 'Found' : `Auto (${doc.dark ? 'dark' : 'light'})`,
          },
          { value: 'dark', label: 'Dark' },
          { value: 'light', label: 'Light' },
        ]"
        @update:model-value="bench.findSoon((s) => (s.find.polarity = $event))"
      />
    </div>
    <SettingSlider
      v-for="[key, meta] in numbers"
      :key="key"
      :meta="meta"
      :model-value="doc.find[key as 'join']"
      @update:model-value="bench.findSoon((s) => (s.find[key as 'join'] = $event))"
    />
    <div class="buttons">
      <PushButton
        :disabled="!bench.marks.length"
        @click="
          bench.include(
            bench.marks.map((m) => m.id),
            true,
          )
        "
      >
        Include all
      </PushButton>
      <PushButton
        :disabled="!bench.included.length"
        @click="
          bench.include(
            bench.marks.map((m) => m.id),
            false,
          )
        "
      >
        Exclude all
      </PushButton>
      <PushButton :disabled="bench.chosen.length < 2" title="Shift-click chooses marks (J)" @click="bench.join()">
        Join {{ bench.chosen.length > 1 ? bench.chosen.length : '' }}
      </PushButton>
      <PushButton :disabled="!bench.chosen.length" title="Delete" @click="bench.remove(bench.chosen)">
        Take away
      </PushButton>
    </div>
    <div class="heading part">Casting</div>
    <SettingSlider
      v-for="key in ['size', 'margin'] as const"
      :key="key"
      :meta="settingAt(SheetSchema, `cut.${key}`)"
      :model-value="doc.cut[key]"
      @update:model-value="bench.edit(key, (s) => (s.cut[key] = $event))"
    />
    <TickBox
      :model-value="doc.cut.straighten"
      @update:model-value="bench.edit('straighten', (s) => (s.cut.straighten = $event))"
      >Turn each upright</TickBox
    >
    <PushButton v-if="!bench.casting" look="main" :disabled="!bench.included.length || bench.finding" @click="cast">
      Cast {{ bench.included.length }} {{ bench.included.length === 1 ? 'alpha' : 'alphas' }}
    </PushButton>
    <div v-else class="going">
      <ProgressLine :share="bench.casting.share" label="Casting" /><span>{{ bench.casting.detail }}</span
      ><PushButton @click="bench.casting.cancel()">Cancel</PushButton>
    </div>
    <PushButton
      :disabled="!!bench.casting"
      title="Nothing is cut out; steps can be added on its bench"
      @click="castWhole"
    >
      Cast the whole picture
    </PushButton>
    <PushButton
      :disabled="!!bench.casting || bench.finding || bench.included.length + bench.casts.length === 0"
      title="Each mark becomes a brush that works like one of your choice"
      @click="making = true"
    >
      Make brushes of all…
    </PushButton>
    <BrushesDialog
      v-model:visible="making"
      :alphas="bench.casts"
      :from="{ id: doc.id, name: doc.card.name }"
      :marks="{ count: bench.included.length, casting: bench.casting ?? null, cast: castMarks }"
    />
    <div class="heading part">
      Cast from this sheet <small>{{ bench.casts.length || 'none yet' }}</small>
    </div>
    <ul>
      <li v-for="alpha in bench.casts" :key="alpha.id" :class="{ fresh: fresh.includes(alpha.id) }">
        <RouterLink
          :to="`/bench/alpha/${alpha.id}`"
          :aria-label="`Open ${alpha.card.name}`"
          :title="`Open ${alpha.card.name}`"
          ><img :src="pictureUrl('alphas', alpha.id, alpha.revision)" alt=""
        /></RouterLink>
        <CutName class="name" :name="alpha.card.name" />
        <PushButton small :aria-label="`Make a brush of ${alpha.card.name}`" @click="makeBrush(alpha)">
          Make brush
        </PushButton>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 8px;
  align-content: start;
  height: 100%;
  overflow: auto;
  padding: 12px;
  --label: 100px;
}
.panel .row {
  grid-template-columns: 100px 1fr;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.part {
  margin-top: 4px;
  padding-top: 10px;
  border-top: 1px solid var(--line-soft);
}
.going {
  display: flex;
  gap: 10px;
  align-items: center;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  gap: 8px;
}
li {
  display: grid;
  gap: 4px;
  padding: 4px;
  border-radius: var(--r);
  justify-items: center;
}
li.fresh {
  background: var(--act-wash);
}
li img {
  width: 88px;
  height: 88px;
  border-radius: 4px;
  display: block;
  background: #000;
}
li .name {
  font-size: 12px;
  max-width: 100%;
}
</style>
