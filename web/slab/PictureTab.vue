<script setup lang="ts">
/** Reference pictures of the slab. */
import { Trash2 } from '@lucide/vue';
import { computed } from 'vue';
import { ReferenceSchema, settingAt, type Reference } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { undoNotice } from '../controls/undoNotice';
import { useSlabBench } from '../stores/slabBench';
import { useSlabTools } from '../stores/slabTools';
import { useSlabReferences } from '../stores/slabReferences';
import PushButton from '../controls/PushButton.vue';
import WorkLine from '../controls/WorkLine.vue';
import ToolButton from '../controls/ToolButton.vue';
import { usePickFiles } from '../controls/pickFiles';

const bench = useSlabBench();
const tools = useSlabTools();
const pictures = useSlabReferences();
const references = computed(() => bench.doc?.references ?? []);
const chosen = computed(() => references.value.find((r) => r.id === tools.referenceId) ?? null);

function put(change: Partial<Reference>): void {
  bench.edit((slab) => {
    const r = slab.references.find((one) => one.id === tools.referenceId);
    if (r) Object.assign(r, change);
  });
}
function remove(r: Reference): void {
  const snapshot = { ...r };
  bench.edit((slab) => {
    slab.references = slab.references.filter((one) => one.id !== r.id);
  });
  undoNotice(`“${r.name}” removed.`, async () => bench.edit((slab) => slab.references.push(snapshot)));
}
const pick = usePickFiles({ accept: 'image/png,image/jpeg,image/webp', several: true }, async (files) => {
  for (const file of files) await pictures.add(file);
});
</script>

<template>
  <div class="tab">
    <PushButton :disabled="pictures.going !== null" @click="pick">Pin a picture</PushButton>
    <WorkLine v-if="pictures.going" :work="pictures.going" />
    <p v-if="pictures.problem" class="sentence-bad" role="alert">{{ pictures.problem }}</p>
    <ul v-if="references.length">
      <li v-for="r in references" :key="r.id" :class="{ on: r.id === tools.referenceId }">
        <PushButton look="row" :on="r.id === tools.referenceId" @click="tools.referenceId = r.id">
          {{ r.name }}
        </PushButton>
        <ToolButton :icon="Trash2" :label="`Take ${r.name} down`" :help="`Take “${r.name}” down`" @click="remove(r)" />
      </li>
    </ul>
    <p v-else class="muted">
      Drop a picture on the slab, paste one, or pin one from a file. It is seen while you sculpt and never cast.
    </p>
    <template v-if="chosen">
      <ChoiceBar
        label="Where it is pinned"
        :model-value="chosen.pin"
        :options="[
          { value: 'slab', label: 'On the slab', help: 'Lies on the slab, see-through' },
          { value: 'view', label: 'Beside it', help: 'Stays in its place in the view' },
        ]"
        @update:model-value="
          (v) =>
            put(
              v === 'view'
                ? { pin: v, x: 0.32, y: 0.24, size: 0.9, opacity: 100, turn: 0 }
                : { pin: v, x: 0, y: 0, size: 1.4, opacity: 45 },
            )
        "
      />
      <SettingSlider
        v-for="key in ['opacity', 'size', 'turn'] as const"
        :key="key"
        :meta="settingAt(ReferenceSchema, key)"
        :model-value="chosen[key]"
        @update:model-value="(v) => put({ [key]: v })"
      />
      <p class="muted">Drag it while this tab is open; with another tab open, strokes go through it.</p>
    </template>
  </div>
</template>
