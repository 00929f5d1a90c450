<script setup lang="ts">
/** The body: which one, how dense, and how many strokes are on it. */
import { Download, FolderOpen, Grid3x3, Minus, Plus, Trash2 } from '@lucide/vue';
import { computed, ref } from 'vue';
import { BODIES, BODY_DENSITIES, BODY_LABELS, type BodyDensity } from '#core/mesh';
import { RefineUnderSchema, settingAt } from '#core/settings';
import SettingSlider from '../controls/SettingSlider.vue';
import { orSay, undoNotice } from '../controls/undoNotice';
import { useBodies } from '../stores/bodies';
import { useProof } from '../stores/proof';
import { meshAsObj, MESH_ENDINGS } from '../workers/meshFiles';
import TrialMenu from './TrialMenu.vue';
import PopMenu from '../controls/PopMenu.vue';

defineProps<{ brushId: string }>();
const proof = useProof();
const bodies = useBodies();
const file = ref<HTMLInputElement>();
const EDGE = settingAt(RefineUnderSchema, 'edge');
const shipped = computed(() => (BODIES as readonly string[]).includes(proof.name));
const DENSITIES: Record<BodyDensity, string> = { 64: 'coarse', 150: 'medium', 300: 'dense' };
const thousands = (n: number): string =>
  n >= 1e6 ? `${(n / 1e6).toFixed(2)} M` : n >= 1000 ? `${Math.round(n / 1000)} k` : String(n);
const note = computed(() => {
  const { about } = proof;
  if (!about) return '';
  const said = [
    ...(about.pieces > 1 ? [`${about.pieces} loose parts`] : []),
    ...(about.open > 0 ? [`${about.open} open edges`] : []),
    ...(about.dropped > 0 ? [`${about.dropped} faces without area left out`] : []),
  ];
  return said.join(', ');
});

function pickBody(event: Event): void {
  const select = event.target as HTMLSelectElement;
  if (select.value === 'file') {
    select.value = proof.name;
    file.value!.click();
  } else void proof.show(select.value, proof.density);
}
function pickDensity(event: Event): void {
  void proof.show(proof.name, Number((event.target as HTMLSelectElement).value) as BodyDensity);
}
async function download(): Promise<void> {
  const { name: id, label } = proof;
  const url = URL.createObjectURL(await meshAsObj(label, await bodies.meshOf(id)));
  Object.assign(document.createElement('a'), { href: url, download: `${label}.obj` }).click();
  URL.revokeObjectURL(url);
}
async function forget(): Promise<void> {
  const { name: id, label } = proof;
  undoNotice(`“${label}” taken off the list.`, await proof.forget(id));
}
function opened(event: Event): void {
  const input = event.target as HTMLInputElement;
  const [chosen] = input.files ?? [];
  input.value = '';
  if (chosen) void proof.bring(chosen);
}
</script>

<template>
  <div class="body">
    <select aria-label="Body" :value="proof.name" @change="pickBody">
      <option v-for="b in BODIES" :key="b" :value="b">{{ BODY_LABELS[b] }}</option>
      <option v-for="b in proof.own" :key="b.id" :value="b.id">{{ b.name }}</option>
      <option value="file">Open a file…</option>
    </select>
    <button
      type="button"
      title="Open a body of your own: OBJ, PLY, STL or GLB, up to 5 M triangles; or drop it here"
      aria-label="Open a body"
      @click="file?.click()"
    >
      <FolderOpen :size="15" />
    </button>
    <button
      v-if="!shipped"
      type="button"
      title="Take this body off the list"
      aria-label="Take this body off the list"
      @click="orSay(forget)"
    >
      <Trash2 :size="15" />
    </button>
    <select v-if="shipped" aria-label="Density" :value="proof.density" @change="pickDensity">
      <option v-for="d in BODY_DENSITIES" :key="d" :value="d">{{ DENSITIES[d] }}</option>
    </select>
    <button
      type="button"
      :disabled="proof.levels === 0"
      title="A level coarser"
      aria-label="Step down a level"
      @click="proof.stepDown()"
    >
      <Minus :size="15" />
    </button>
    <button
      type="button"
      :disabled="!proof.finer"
      title="Subdivide: four faces for one; strokes are run again on it"
      aria-label="Subdivide the body"
      @click="proof.subdivide()"
    >
      <Plus :size="15" />
    </button>
    <PopMenu placement="top" :width="280">
      <template #reference
        ><button
          type="button"
          :class="{ on: proof.refine.on }"
          title="Refine under the brush: splits and joins faces where strokes go"
          aria-label="Refine under the brush"
        >
          <Grid3x3 :size="15" /></button
      ></template>
      <label class="check"><input v-model="proof.refine.on" type="checkbox" /> Refine under the brush</label>
      <SettingSlider
        :meta="EDGE"
        :model-value="proof.refine.edge"
        :disabled="!proof.refine.on"
        @update:model-value="
          (v) => {
            proof.refine.edge = v;
          }
        "
      />
      <p class="muted">
        Faces under the stroke are split and joined until their edges are this long: while it is drawn on a light body,
        at its end on a dense one.
      </p>
    </PopMenu>
    <button
      v-if="!shipped"
      type="button"
      title="Download it as OBJ, as it was opened"
      aria-label="Download this body"
      @click="orSay(download)"
    >
      <Download :size="15" />
    </button>
    <span
      >{{ thousands(proof.state.triangles) }} faces<template v-if="proof.levels">
        · subdivided {{ proof.levels }}×</template
      ></span
    >
    <span v-if="note" class="warn" :title="note">{{ note }}</span>
    <TrialMenu :brush-id="brushId" />
    <span v-if="proof.state.strokes"
      >{{ proof.state.strokes }} {{ proof.state.strokes === 1 ? 'stroke' : 'strokes' }} replayed</span
    >
    <span v-else>Draw on it</span>
    <input
      ref="file"
      type="file"
      hidden
      :accept="MESH_ENDINGS.map((e) => `.${e}`).join(',')"
      aria-label="Body file"
      @change="opened"
    />
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.body {
  gap: 7px;
}
.body button {
  border: 0;
  background: none;
  padding: 4px;
  line-height: 0;
  cursor: pointer;
  color: var(--ink-2);
  border-radius: 4px;
}
.body button:hover:not(:disabled) {
  background: var(--well);
  color: var(--ink);
}
.body button:disabled {
  opacity: 0.35;
  cursor: default;
}
.body .on {
  color: var(--act-deep);
  background: var(--act-wash);
}
.check {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.check input {
  accent-color: var(--act);
}
/* Where there is little room the words give way, and no button does. */
.body select {
  max-width: 150px;
  min-width: 62px;
  flex: 0 1 auto;
}
.body button {
  flex: none;
}
.body > span {
  flex: 0 100 auto;
  min-width: 0;
}
.body .warn {
  color: var(--warn);
}
</style>
