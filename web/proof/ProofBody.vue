<script setup lang="ts">
/** The body: which one, how dense, and how many strokes are on it. */
import { FolderOpen, Grid3x3, Link2, Minus, Plus, Trash2, Unlink2 } from '@lucide/vue';
import { computed } from 'vue';
import { BODIES, BODY_DENSITIES, BODY_LABELS, type BodyDensity } from '#core/mesh';
import { RefineUnderSchema, settingAt } from '#core/settings';
import SettingSlider from '../controls/SettingSlider.vue';
import { orSay, undoNotice } from '../controls/undoNotice';
import { useProof } from '../stores/proof';
import { MESH_ENDINGS } from '../workers/meshFiles';
import BodyFiles from './BodyFiles.vue';
import TrialMenu from './TrialMenu.vue';
import PopMenu from '../controls/PopMenu.vue';
import TickBox from '../controls/TickBox.vue';
import ToolButton from '../controls/ToolButton.vue';
import SelectField from '../controls/SelectField.vue';
import { usePickFiles } from '../controls/pickFiles';
import { useShortcuts } from '../keys/shortcuts';

defineProps<{ brushId: string }>();
const proof = useProof();
const EDGE = settingAt(RefineUnderSchema, 'edge');
const shipped = computed(() => (BODIES as readonly string[]).includes(proof.name));
const DENSITIES: Record<BodyDensity, string> = { 64: 'coarse', 150: 'medium', 300: 'dense' };
const thousands = (n: number): string =>
  n >= 1e6 ? `${(n / 1e6).toFixed(2)} M` : n >= 1000 ? `${Math.round(n / 1000)} k` : String(n);
const note = computed(() => {
  const { about } = proof;
  if (!about) return '';
  const said = [
    ...(about.components > 1 ? [`${about.components} loose parts`] : []),
    ...(about.open > 0 ? [`${about.open} open edges`] : []),
    ...(about.dropped > 0 ? [`${about.dropped} faces without area left out`] : []),
  ];
  return said.join(', ');
});

const choices = computed(() => [
  ...BODIES.map((value) => ({ value: value as string, label: BODY_LABELS[value] })),
  ...proof.own.map(({ id, name }) => ({ value: id, label: name })),
  { value: 'file', label: 'Open a file…' },
]);
const pickFile = usePickFiles(
  { accept: MESH_ENDINGS.map((e) => `.${e}`).join(',') },
  ([file]) => file && void proof.bring(file),
);
function toggleFollows(): void {
  orSay(() => proof.setFollows(!proof.follows));
}
useShortcuts([{ command: 'follow', run: toggleFollows }]);
function pickBody(name: string): void {
  if (name === 'file') pickFile();
  else void proof.show(name, proof.density);
}
async function forget(): Promise<void> {
  const { name: id, label } = proof;
  undoNotice(`“${label}” removed from the list.`, await proof.forget(id));
}
</script>

<template>
  <div class="body">
    <SelectField
      class="which"
      label="Body"
      :choices="choices"
      :model-value="proof.name"
      @update:model-value="pickBody"
    />
    <ToolButton
      :icon="FolderOpen"
      label="Open a body"
      help="Open a body of your own: OBJ, PLY, STL or GLB, up to 5 M triangles; or drop it here"
      @click="pickFile"
    />
    <ToolButton v-if="!shipped" :icon="Trash2" label="Remove this body from the list" @click="orSay(forget)" />
    <SelectField
      v-if="shipped"
      class="density"
      label="Density"
      :choices="BODY_DENSITIES.map((value) => ({ value, label: DENSITIES[value] }))"
      :model-value="proof.density"
      @update:model-value="(density) => void proof.show(proof.name, density)"
    />
    <ToolButton
      :icon="Minus"
      label="Step down a level"
      help="A coarser level"
      :disabled="proof.levels === 0"
      @click="proof.stepDown()"
    />
    <ToolButton
      :icon="Plus"
      label="Subdivide the body"
      help="Subdivide: four faces for one; strokes are run again on it"
      :disabled="!proof.finer"
      @click="proof.subdivide()"
    />
    <PopMenu placement="top" :width="280">
      <template #reference
        ><ToolButton
          :icon="Grid3x3"
          label="Refine under the brush"
          help="Refine under the brush: splits and joins faces where strokes go"
          :on="proof.refine.on"
      /></template>
      <TickBox v-model="proof.refine.on">Refine under the brush</TickBox>
      <SettingSlider
        :meta="EDGE"
        :model-value="proof.refine.edge"
        :disabled="!proof.refine.on"
        @update:model-value="proof.refine.edge = $event"
      />
      <p class="muted">
        Faces under the stroke are split and joined until their edges are this long: while it is drawn on a light body,
        at its end on a dense one.
      </p>
    </PopMenu>
    <BodyFiles />
    <TrialMenu :brush-id="brushId" />
    <ToolButton
      :icon="proof.follows ? Link2 : Unlink2"
      label="Strokes follow the brush"
      :help="
        proof.follows
          ? 'Strokes follow the brush: they are replayed as a setting moves. Their colours stay'
          : 'Strokes stay as they were drawn: settings are those of the next ones'
      "
      command="follow"
      :on="proof.follows"
      @click="toggleFollows"
    />
    <div class="said">
      <span
        >{{ thousands(proof.state.triangles) }} faces<template v-if="proof.levels">
          · subdivided {{ proof.levels }}×</template
        ></span
      >
      <span v-if="note" class="warn" :title="note">{{ note }}</span>
      <span v-if="proof.state.strokes"
        >{{ proof.state.strokes }} {{ proof.state.strokes === 1 ? 'stroke' : 'strokes'
        }}{{ proof.follows ? ' replayed' : '' }}</span
      >
      <span v-else>Draw on it</span>
    </div>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.which {
  width: 132px;
  min-width: 60px;
}
.density {
  width: 92px;
  min-width: 52px;
}
/* Where there is little room the words fall into a second line, which isn't shown, then the lists give way. */
.body {
  gap: 7px;
}
@container (max-width: 440px) {
  .body {
    gap: 1px;
    padding-right: 4px;
  }
  .which {
    min-width: 48px;
  }
  .density {
    min-width: 44px;
  }
  .body :deep(.tool-button) {
    margin: 0;
    padding: 5px 4px;
  }
}
.said {
  display: flex;
  flex: 0 1000 auto;
  flex-wrap: wrap;
  gap: 4px 10px;
  min-width: 0;
  height: 26px;
  overflow: hidden;
}
.said > span {
  flex: none;
  line-height: 26px;
}
.said .warn {
  color: var(--warn);
}
</style>
