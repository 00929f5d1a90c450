<script setup lang="ts">
/** Beside the scan: what it is and how large, what was found about it with the click that mends it, and its patches. */
import { Trash2 } from '@lucide/vue';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { MILLIMETRES, SCAN_UNITS } from '#core/settings';
import { spaced } from '#core/words';
import CheckNote from '../controls/CheckNote.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import NumberField from '../controls/NumberField.vue';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';
import { useLibrary } from '../stores/library';
import { useScanBench } from '../stores/scanBench';
import { useScanParts, type CaptureMode } from '../stores/scanParts';
import { faultsOf, LONGEST_RIM, type Fault } from './faults';

const bench = useScanBench();
const parts = useScanParts();
const library = useLibrary();
const router = useRouter();
const doc = computed(() => bench.doc!);
const STEPS = [
  { unit: 'm', mm: 1000 },
  { unit: 'cm', mm: 10 },
  { unit: 'mm', mm: 1 },
  { unit: 'µm', mm: 0.001 },
];
/** Lengths in body units as they are in the world, in the unit that suits the longest. */
function real(...lengths: number[]): string {
  const mm = lengths.map((length) => length * bench.millimetres);
  const step = STEPS.find((s) => Math.max(...mm) >= s.mm) ?? STEPS[3];
  return `${mm.map((length) => Number((length / step.mm).toPrecision(3))).join(' × ')} ${step.unit}`;
}
const extents = computed(() => (bench.report ? real(...bench.report.size) : ''));
const faults = computed(() => (bench.report ? faultsOf(bench.report, doc.value.file.broken, real) : []));
const found = computed(() => faults.value.filter(({ ok }) => !ok));
const all = ref(false);
const target = ref<number | null>(null);
const half = computed(() => Math.max(200, Math.round(doc.value.triangles / 2 / 100) * 100));

/** How long the rims of holes are that are filled, in millimetres of the real thing; longer ones are open sheets. */
const rim = ref<number | null>(null);
const usualRim = computed(() => Number((LONGEST_RIM * bench.millimetres).toPrecision(2)));
const rimBody = computed(() => (rim.value ?? usualRim.value) / bench.millimetres);

function mend({ mend: act, doing }: Fault): void {
  if (!act) return;
  void bench.mend(doing, act.kind === 'holes' ? { ...act, longest: rimBody.value } : act);
}
function thin(): void {
  const triangles = target.value ?? half.value;
  void bench.mend('Thinning out the scan', { kind: 'thin', triangles });
}

const captured = computed(() => library.parts.filter((part) => part.made.sourceId === doc.value.id));
async function captureWhole(): Promise<void> {
  const id = await parts.capture({ kind: 'whole' }, null);
  if (id && router.currentRoute.value.name === 'scan') await router.push(`/bench/part/${id}`);
}
function toggle(mode: CaptureMode): void {
  bench.laying = false;
  parts.mode = parts.mode === mode ? null : mode;
}
</script>

<template>
  <div class="column">
    <div class="heading">Scan</div>
    <dl>
      <dt>Faces</dt>
      <dd>{{ spaced(doc.triangles) }}</dd>
      <dt>File</dt>
      <dd :title="doc.file.name">{{ doc.file.what }}{{ doc.coloured ? ', coloured' : '' }}</dd>
      <dt>Size</dt>
      <dd>{{ extents || '…' }}</dd>
    </dl>
    <div class="stack">
      <span class="muted">One unit of the file is 1</span>
      <ChoiceBar
        label="Unit of the file"
        :model-value="doc.unit"
        :options="
          SCAN_UNITS.map((unit) => ({ value: unit, label: unit, help: `${MILLIMETRES[unit]} mm a unit of the file` }))
        "
        @update:model-value="bench.edit('unit', (scan) => (scan.unit = $event))"
      />
    </div>
    <div v-if="bench.mending" class="going" role="status">
      <ProgressLine :share="bench.mending.share" :label="bench.mending.what" />
      <span>{{ bench.mending.what }}…</span>
      <PushButton small @click="bench.mending.cancel()">Cancel</PushButton>
    </div>
    <p v-if="!bench.report" class="muted" role="status">Checking the scan…</p>
    <template v-else>
      <PushButton look="quiet" class="sum" :aria-expanded="all" @click="all = !all">
        {{
          found.length === 0
            ? `All ${faults.length} checks passed`
            : `${found.length} of ${faults.length} checks found something`
        }}
      </PushButton>
      <CheckNote
        v-for="fault in found"
        :key="fault.name"
        :sentence="fault.sentence"
        :mend="fault.mend && !bench.mending ? fault.button : ''"
        @mend="mend(fault)"
      />
      <NumberField
        v-if="found.some(({ name }) => name === 'holes')"
        label="Rims up to"
        unit="mm"
        :model-value="rim ?? usualRim"
        :min="0.001"
        :max="1e6"
        :step="Number((usualRim / 20).toPrecision(1))"
        @update:model-value="rim = $event"
      />
      <ul v-if="all" class="well">
        <li v-for="fault in faults.filter((f) => f.ok)" :key="fault.name">{{ fault.sentence }}</li>
      </ul>
    </template>
    <div class="thin">
      <NumberField
        label="Thin to"
        unit="faces"
        :model-value="target ?? half"
        :min="100"
        :max="Math.max(200, doc.triangles)"
        :step="100"
        @update:model-value="target = $event"
      />
      <PushButton small :disabled="bench.mending !== null || (target ?? half) >= doc.triangles" @click="thin">
        Thin out
      </PushButton>
    </div>
    <div class="heading part">
      Patches <small>{{ doc.patches.length || 'none yet' }}</small>
    </div>
    <ul class="patches">
      <li v-for="patch in doc.patches" :key="patch.id" :class="{ on: patch.id === bench.chosenId }">
        <PushButton look="row" :on="patch.id === bench.chosenId" @click="bench.chosenId = patch.id">
          <span class="name">{{ patch.name }}</span><small>{{ real(patch.cast.frame.side) }}</small>
        </PushButton>
        <ToolButton
          :icon="Trash2"
          :label="`Take ${patch.name} away`"
          help="Remove this patch"
          @click="bench.remove(patch.id)"
        />
      </li>
    </ul>
    <PushButton
      :on="bench.laying"
      title="Press on the scan and drag out its size (N)"
      @click="bench.laying = !bench.laying"
    >
      Lay a patch
    </PushButton>
    <div class="heading part">
      Parts <small>{{ captured.length || 'none yet' }}</small>
    </div>
    <ul class="patches">
      <li v-for="part in captured" :key="part.id">
        <RouterLink class="captured" :to="`/bench/part/${part.id}`">
          <span class="name">{{ part.card.name }}</span><small>{{ spaced(part.triangles) }} faces</small>
        </RouterLink>
      </li>
    </ul>
    <div class="capture">
      <PushButton
        small
        :disabled="parts.busy || !bench.mesh"
        title="All of the scan becomes a part"
        @click="captureWhole"
      >
        Whole scan
      </PushButton>
      <PushButton
        small
        :on="parts.mode === 'component'"
        :disabled="parts.busy || !bench.mesh"
        title="Press on what hangs together"
        @click="toggle('component')"
      >
        A component
      </PushButton>
      <PushButton
        small
        :on="parts.mode === 'region'"
        :disabled="parts.busy || !bench.mesh"
        title="Draw a lasso round it; it gets a closed back"
        @click="toggle('region')"
      >
        A region
      </PushButton>
    </div>
    <p v-if="parts.busy" class="muted" role="status">Capturing the part…</p>
  </div>
</template>

<style scoped>
.column {
  height: 100%;
  overflow: auto;
  display: grid;
  gap: 8px;
  align-content: start;
  padding: 12px;
  border-right: 1px solid var(--line);
  background: var(--page);
  --name: 50px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 10px;
}
dt {
  color: var(--ink-2);
}
dd {
  text-align: right;
}
.stack,
.going,
.thin {
  display: grid;
  gap: 4px;
}
.going {
  grid-template-columns: 1fr auto;
  align-items: center;
}
.going > :first-child {
  grid-column: 1 / -1;
}
.sum {
  padding: 0 4px;
  height: auto;
  min-height: 24px;
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
.part {
  margin-top: 4px;
  padding-top: 10px;
  border-top: 1px solid var(--line-soft);
}
.patches li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  border-radius: var(--r);
}
.patches li :deep(span) {
  width: 100%;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
}
.captured {
  display: flex;
  gap: 8px;
  padding: 4px 8px;
  color: inherit;
  text-decoration: none;
}
.captured:hover {
  color: var(--act-deep);
}
.capture {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.patches small {
  color: var(--ink-2);
  margin-left: auto;
}
@media (pointer: coarse) {
  .sum {
    min-height: 44px;
  }
}
</style>
