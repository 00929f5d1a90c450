<script setup lang="ts">
/** The cast beside the slab: the picture as it grows, its heights, its checks, and the button that keeps it. */
import { Download } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { checkMargin } from '#core/checks';
import { STAMP_BASE } from '#core/presets';
import { CAST_SIZES, type Alpha } from '#core/settings';
import { pictureUrl } from '../api/client';
import { keepBrushDraft } from '../api/drafts';
import { drawGreys, reduced } from '../parts/alphaPictures';
import CheckNote from '../parts/CheckNote.vue';
import ChoiceBar from '../parts/ChoiceBar.vue';
import HistogramChart from '../parts/HistogramChart.vue';
import { useLibrary } from '../stores/library';
import { useSlabBench } from '../stores/slabBench';
import HeightField from './HeightField.vue';

const bench = useSlabBench();
const library = useLibrary();
const router = useRouter();
const canvas = ref<HTMLCanvasElement>();
const name = ref('');
const fresh = ref<string | null>(null);

watch([() => bench.result, canvas], ([result, at]) => {
  if (result && at) drawGreys(at, reduced(result.greys, result.size));
}, { immediate: true });

const cast = computed(() => bench.doc!.cast);
/** The margin in pixels of the size that will be kept. */
const margin = computed(() => {
  const { result } = bench;
  if (!result) return null;
  const factor = cast.value.size / result.size;
  const full = { marginPx: Math.round(result.margin.marginPx * factor), box: result.margin.box };
  return checkMargin({ width: cast.value.size, height: cast.value.size, data: new Float32Array(0) }, full);
});
const kept = computed(() => library.alphas.filter((a) => a.doc.lineage.sourceId === bench.doc?.id).reverse());
const suggested = computed(() => library.freeName('alphas', `${bench.doc?.card.name ?? 'Slab'} cast`));

async function keep(): Promise<void> {
  const alpha = await bench.cast(name.value.trim() === '' ? suggested.value : name.value);
  if (!alpha) return;
  name.value = '';
  fresh.value = alpha.id;
}

async function makeBrush(alpha: Alpha): Promise<void> {
  const brush = structuredClone(STAMP_BASE);
  brush.id = crypto.randomUUID();
  brush.form.alphaId = alpha.id;
  brush.form.ground = alpha.ground;
  brush.touch.falloff.kind = 'full';
  brush.card = { name: library.freeName('brushes', alpha.card.name), author: alpha.card.author, tags: [], notes: '' };
  await keepBrushDraft({ doc: brush, revision: null, keptAt: Date.now(), waiting: false });
  await library.loadDrafts();
  await router.push(`/bench/brush/${brush.id}`);
}
</script>

<template>
  <div class="panel">
    <div class="heading">Cast <small v-if="bench.result">live, {{ bench.result.size }} px in {{ bench.result.milliseconds.toFixed(0) }} ms</small></div>
    <div class="top">
      <div class="picture" :data-cast="bench.result ? bench.result.crown.toFixed(5) : bench.flat ? 'flat' : ''">
        <canvas v-show="bench.result" ref="canvas" />
        <svg v-if="bench.result" viewBox="0 0 100 100" aria-hidden="true"><circle cx="50" cy="50" r="50" /><rect x="2" y="2" width="96" height="96" :class="{ bad: margin && !margin.ok }" /></svg>
        <p v-if="bench.flat" class="flat">Everything lies at one height.<br />Lift or carve a form inside the frame and its cast grows here.</p>
      </div>
      <div class="facts">
        <HeightField label="Crown" :value="cast.crown" :found="bench.result?.crown ?? bench.flat?.floor ?? 0" @put="(v) => bench.editCast((c) => { c.crown = v; })" />
        <HeightField label="Floor" :value="cast.floor" :found="bench.result?.floor ?? bench.flat?.floor ?? 0" @put="(v) => bench.editCast((c) => { c.floor = v; })" />
        <dl v-if="bench.result">
          <dt title="(crown − floor) ÷ frame side">Relief</dt><dd>{{ bench.result.relief.toFixed(4) }}</dd>
          <dt>Ground</dt><dd>{{ bench.result.ground.toFixed(3) }}</dd>
          <dt>Used range</dt><dd>{{ (bench.result.usedRange * 100).toFixed(0) }} %</dd>
          <dt>Frame side</dt><dd>{{ cast.frame.side.toFixed(2) }}</dd>
          <dt>Margin</dt><dd :class="{ warn: margin && !margin.ok }">{{ margin?.value }} px</dd>
        </dl>
      </div>
    </div>
    <CheckNote v-if="margin && !margin.ok" :sentence="margin.sentence" />
    <HistogramChart v-if="bench.result" :counts="bench.result.histogram" :floor="bench.result.floor" :crown="bench.result.crown" />
    <div class="row"><span class="label">Size, px</span><ChoiceBar label="Size in pixels" :model-value="cast.size" :options="CAST_SIZES.map((n) => ({ value: n, label: String(n) }))" @update:model-value="(v) => bench.editCast((c) => { c.size = v; })" /></div>
    <div class="row"><span class="label">Samples</span><ChoiceBar label="Samples a pixel" :model-value="cast.samples" :options="[{ value: 1, label: '1 a pixel' }, { value: 4, label: '4 a pixel' }]" @update:model-value="(v) => bench.editCast((c) => { c.samples = v; })" /></div>
    <form class="row" @submit.prevent="keep">
      <span class="label">Name</span>
      <span class="go">
        <input v-model="name" class="field" maxlength="80" :placeholder="suggested" aria-label="Name of the alpha" />
        <button v-if="bench.castShare === null" class="btn main" type="submit" :disabled="!bench.result">Cast</button>
        <button v-else class="btn" type="button" @click="bench.caster?.cancel()">Cancel · {{ (bench.castShare * 100).toFixed(0) }} %</button>
      </span>
    </form>
    <p v-if="bench.problem" class="sentence-bad" role="alert">{{ bench.problem }}</p>
    <div class="heading part">Cast from this slab <small>{{ kept.length || 'none yet' }}</small></div>
    <ul>
      <li v-for="{ doc, revision } in kept" :key="doc.id" :class="{ fresh: doc.id === fresh }">
        <img :src="pictureUrl('alphas', doc.id, revision)" alt="" />
        <span>{{ doc.card.name }}<small>{{ doc.size }} px · relief {{ doc.relief.toFixed(3) }}</small></span>
        <a class="btn quiet" :href="`/api/alphas/${doc.id}/png`" download title="Download PNG, 16 bit" :aria-label="`Download ${doc.card.name}`"><Download :size="15" /></a>
        <button class="btn" type="button" @click="makeBrush(doc)">Make brush</button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.panel { height: 100%; overflow: auto; display: grid; gap: 8px; align-content: start; padding: 12px 14px; }
.top { display: grid; grid-template-columns: minmax(0, 240px) minmax(150px, 1fr); gap: 14px; }
.picture { position: relative; aspect-ratio: 1; background: #000; border-radius: var(--r); overflow: hidden; }
.picture canvas { width: 100%; height: 100%; display: block; }
.picture svg { position: absolute; inset: 0; }
.picture svg * { fill: none; stroke: #7fd3c3; stroke-width: 1.2px; vector-effect: non-scaling-stroke; }
.picture rect { stroke-dasharray: 3 4; opacity: .75; }
.picture rect.bad { stroke: #f0b45a !important; opacity: 1; }
.flat { position: absolute; inset: 0; display: grid; place-content: center; text-align: center; color: #d8d5cf; padding: 20px; }
.facts { display: grid; gap: 8px; align-content: start; }
dl { display: grid; grid-template-columns: 1fr auto; gap: 5px 10px; }
dt { color: var(--ink-2); }
dd { text-align: right; }
.warn { color: var(--warn); font-weight: 600; }
.go { display: flex; gap: 8px; }
.part { margin-top: 6px; padding-top: 8px; border-top: 1px solid var(--line-soft); }
li { display: flex; align-items: center; gap: 10px; padding: 4px; border-radius: var(--r); }
li.fresh { background: var(--act-wash); }
li img { width: 40px; height: 40px; border-radius: 4px; }
li span { flex: 1; min-width: 0; font-weight: 500; }
li small { display: block; font-weight: 400; color: var(--ink-2); }
</style>
