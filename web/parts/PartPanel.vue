<script setup lang="ts">
/** The part: its budget of faces, its seat, its real size, what was found about it, and its files. */
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { brushFromParts } from '../bench/brushFrom';
import { partChecks } from '#core/checks';
import { packMesh } from '#core/formats';
import { seatOf, stood, seatOnFlattest, snappedSeat, turnedSeat, type Seat } from '#core/part';
import {
  BUDGET_METHODS,
  BudgetSchema,
  PART_BASES,
  PartSeatSchema,
  setsParts,
  settingAt,
  type Budget,
  type Part,
} from '#core/settings';
import { plus, scaled, cross } from '#core/vector';
import { spaced } from '#core/words';
import CheckNote from '../controls/CheckNote.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import MeshFileButtons from '../controls/MeshFileButtons.vue';
import NumberField from '../controls/NumberField.vue';
import PopMenu from '../controls/PopMenu.vue';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import SettingList from '../controls/SettingList.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import TextField from '../controls/TextField.vue';
import { saveFile } from '../controls/saveFile';
import { failNotice } from '../controls/undoNotice';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { usePartBench } from '../stores/partBench';
import { useProof } from '../stores/proof';
import type { MeshEnding } from '../workers/meshOut';
import { meshFile } from '../workers/meshOutFile';
import LostDetail from './LostDetail.vue';
import { mendLabel, mendPart } from './mends';
import type { Picking } from './picking';
import { usePreferences } from '../stores/preferences';

const bench = usePartBench();
const proof = useProof();
const picking = defineModel<Picking>('picking', { required: true });
defineEmits<{ seatFromView: [] }>();
const doc = computed(() => bench.doc!);
const FACES = settingAt(BudgetSchema, 'faces');
const METHODS: Record<Budget['way'], { label: string; help: string }> = {
  shape: { label: 'Shape kept', help: 'Few faces where it is flat, many where it bends; sharp edges stay' },
  even: { label: 'Even faces', help: 'Triangles of about one size, pulled back on the surface: for sculpting on it' },
};
const BASES: Record<Part['seat']['base'], { label: string; help: string }> = {
  flat: { label: 'As it is', help: 'Its base stays flat, whatever it is set down on' },
  bent: { label: 'Follows the surface', help: 'It is bent so that its base lies on the surface' },
};

const real = (length: number): string => `${Number((length * doc.value.millimetres).toPrecision(3))} mm`;
/** From vertex to vertex of the body on the proof, in units of the part. */
const spacing = computed(() =>
  proof.state.spacing > 0 ? (proof.state.spacing * usePreferences().millimetres()) / doc.value.millimetres : null,
);
const checks = computed(() => (bench.report ? partChecks(bench.report, { spacing: spacing.value, real }) : []));
const found = computed(() => checks.value.filter(({ ok }) => !ok));
const all = ref(false);

/** Real extents, and what one of them makes of the others. */
const SIDES = ['Across', 'Along', 'High'] as const;
const sideMm = (k: number): number => Number(((bench.size?.[k] ?? 0) * doc.value.millimetres).toPrecision(4));
function putSide(k: number, mm: number): void {
  const side = bench.size?.[k] ?? 0;
  if (side > 0 && mm > 0) bench.edit('size', (part) => (part.millimetres = mm / side));
}

const angles = ref({ turn: 0, tip: 90, roll: 0 });
const rad = (deg: number): number => (deg * Math.PI) / 180;
function turnBy(): void {
  const { turn, tip, roll } = angles.value;
  bench.reseat('by angles', (mesh, now) => turnedSeat(mesh, now, { turn: rad(turn), tip: rad(tip), roll: rad(roll) }));
}

/** The rest point goes so far across and forward, millimetres; typed as how it lies now. */
const shift = ref({ across: 0, along: 0 });
function shiftRest(): void {
  const { across, along } = shift.value;
  bench.reseat('rest point', (_, now: Seat) => ({
    ...now,
    rest: plus(
      now.rest,
      plus(
        scaled(cross(now.forward, now.up), across / doc.value.millimetres),
        scaled(now.forward, along / doc.value.millimetres),
      ),
    ),
  }));
}

const router = useRouter();
const library = useLibrary();
const making = ref(false);
/** A brush names what is saved, so the part is saved first. */
async function makeBrush(): Promise<void> {
  making.value = true;
  try {
    if (!(await bench.save())) return;
    const head = library.part(doc.value.id);
    if (head) await router.push(`/bench/brush/${await brushFromParts([head])}`);
  } catch (error) {
    failNotice(sentence(error));
  } finally {
    making.value = false;
  }
}

/** Brushes that set parts down; the shipped ones stay as they are. */
const sets = computed(() => library.brushes.filter((brush) => setsParts(brush)));
async function addTo(brushId: string): Promise<void> {
  making.value = true;
  try {
    if (await bench.save()) await router.push({ path: `/bench/brush/${brushId}`, query: { add: doc.value.id } });
  } finally {
    making.value = false;
  }
}

const writing = ref<MeshEnding | null>(null);
async function download(ending: MeshEnding): Promise<void> {
  if (!bench.raw || writing.value) return;
  writing.value = ending;
  const { card, millimetres, seat } = doc.value;
  try {
    const mesh = packMesh(stood(bench.raw, seatOf(seat)));
    const file = await meshFile(ending, [{ name: card.name, mesh, millimetres, up: 'z' }]);
    saveFile(`${card.name}.${ending}`, file);
  } catch (error) {
    failNotice(sentence(error));
  } finally {
    writing.value = null;
  }
}
</script>

<template>
  <div class="panel">
    <div class="row">
      <span class="label">Name</span>
      <TextField
        :model-value="doc.card.name"
        aria-label="Name of the part"
        maxlength="80"
        @update:model-value="(name: string) => bench.edit('name', (part) => (part.card.name = name))"
      />
    </div>
    <p v-if="!bench.report" class="muted" role="status">Checking the part…</p>
    <template v-else>
      <PushButton look="quiet" class="sum" :aria-expanded="all" @click="all = !all">
        {{
          found.length === 0
            ? `All ${checks.length} checks passed`
            : `${found.length} of ${checks.length} checks found something`
        }}
      </PushButton>
      <CheckNote
        v-for="check in found"
        :key="check.name"
        :sentence="check.sentence"
        :mend="bench.busy ? '' : mendLabel(check.name, doc.budget)"
        @mend="mendPart(bench, check.name)"
      />
      <ul v-if="all" class="well">
        <li v-for="check in checks.filter((c) => c.ok)" :key="check.name">{{ check.sentence }}</li>
      </ul>
    </template>

    <div class="heading">
      Budget <small>{{ spaced(doc.wholeTriangles) }} faces captured, {{ spaced(doc.triangles) }} set down</small>
    </div>
    <ChoiceBar
      label="How it is brought down"
      :model-value="bench.budget!.way"
      :options="BUDGET_METHODS.map((value) => ({ value, ...METHODS[value] }))"
      @update:model-value="(way) => bench.setBudget({ ...bench.budget!, way })"
    />
    <SettingSlider
      :meta="FACES"
      :model-value="bench.budget!.faces"
      @update:model-value="(faces: number) => bench.setBudget({ ...bench.budget!, faces: Math.round(faces) })"
    />
    <div v-if="bench.reducing" class="going" role="status">
      <ProgressLine :share="bench.reducing.share" :label="bench.reducing.what" />
      <span>{{ bench.reducing.what }}…</span>
      <PushButton small @click="bench.reducing.cancel()">Cancel</PushButton>
    </div>
    <p class="muted">
      Off by {{ doc.error.largest.toFixed(2) }} % of its size at the most, {{ doc.error.mean.toFixed(2) }} % on the mean
    </p>

    <LostDetail />

    <div class="heading">Seat</div>
    <div class="buttons">
      <PushButton title="What faces you points up (J)" @click="$emit('seatFromView')">From the view</PushButton>
      <PushButton
        :on="picking === 'face'"
        title="Click the face that it rests on (N)"
        @click="picking = picking === 'face' ? null : 'face'"
      >
        On a face…
      </PushButton>
      <PushButton
        title="Rests on the side with the most flat area"
        @click="bench.reseat('on its flattest side', (mesh, now) => seatOnFlattest(mesh, now.forward))"
      >
        Flattest side
      </PushButton>
      <PushButton title="To the nearest axis (K)" @click="bench.reseat('snapped', snappedSeat)">
        Snap to an axis
      </PushButton>
    </div>
    <div class="three">
      <NumberField v-model="angles.turn" label="Turn" unit="°" :min="-180" :max="180" :step="1" />
      <NumberField v-model="angles.tip" label="Tip" unit="°" :min="-180" :max="180" :step="1" />
      <NumberField v-model="angles.roll" label="Roll" unit="°" :min="-180" :max="180" :step="1" />
      <PushButton small @click="turnBy">Turn it</PushButton>
    </div>
    <div class="three">
      <NumberField v-model="shift.across" label="Across" unit="mm" :min="-1e5" :max="1e5" :step="0.1" />
      <NumberField v-model="shift.along" label="Along" unit="mm" :min="-1e5" :max="1e5" :step="0.1" />
      <PushButton small title="The point that it rests on goes so far" @click="shiftRest">Move rest point</PushButton>
      <PushButton
        small
        :on="picking === 'rest'"
        title="Click the place of the part under which it rests; its base stays where it is (M)"
        @click="picking = picking === 'rest' ? null : 'rest'"
        >Pick it…</PushButton
      >
    </div>
    <div class="row">
      <span class="label">Base</span>
      <ChoiceBar
        label="How its base meets the surface"
        :model-value="doc.seat.base"
        :options="PART_BASES.map((value) => ({ value, ...BASES[value] }))"
        @update:model-value="(base) => bench.editSeat('base', (seat) => (seat.base = base))"
      />
    </div>
    <SettingList
      :schema="PartSeatSchema"
      :of="doc.seat"
      :paths="['sink', 'scale']"
      @edit="(change, path) => bench.editSeat(path, change, true)"
    />

    <div class="heading">Real size <small>in millimetres; one sets the others</small></div>
    <div class="three">
      <NumberField
        v-for="(side, k) in SIDES"
        :key="side"
        :label="side"
        unit="mm"
        :min="0.001"
        :max="1e6"
        :step="0.1"
        :model-value="sideMm(k)"
        @update:model-value="(mm: number) => putSide(k, mm)"
      />
    </div>

    <PushButton look="main" :disabled="bench.busy || making" @click="makeBrush">Make a brush of it</PushButton>
    <PopMenu v-if="sets.length > 0" :width="220">
      <template #reference
        ><PushButton :disabled="bench.busy || making" title="Into the set of a brush that sets parts down"
          >Add to a brush…</PushButton
        ></template
      >
      <div class="sets">
        <PushButton v-for="set in sets" :key="set.id" look="row" @click="addTo(set.id)">{{ set.card.name }}</PushButton>
      </div>
    </PopMenu>

    <div class="heading">Files <small>as it stands on its seat, in millimetres</small></div>
    <MeshFileButtons :disabled="writing !== null || !bench.raw" @write="download" />
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
  --label: 50px;
}
.row {
  grid-template-columns: 50px 1fr;
}
.heading {
  margin-top: 6px;
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
.buttons {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.three {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(96px, 1fr));
  gap: 6px;
}
.sets {
  display: grid;
  max-height: 300px;
  overflow: auto;
}
.going {
  display: grid;
  gap: 4px;
  grid-template-columns: 1fr auto;
  align-items: center;
}
.going > :first-child {
  grid-column: 1 / -1;
}
@media (pointer: coarse) {
  .sum {
    min-height: 44px;
  }
}
</style>
