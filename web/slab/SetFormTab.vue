<script setup lang="ts">
/** Set forms: laid on the slab, moved and measured, baked into the clay when they are right. */
import { Trash2 } from '@lucide/vue';
import { computed } from 'vue';
import { PART_UPS, SET_FORMS, SetFormSchema, settingAt, type SetForm, type SetFormShape } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { undoNotice } from '../controls/undoNotice';
import { useSlabBench } from '../stores/slabBench';
import { useSlabTools } from '../stores/slabTools';
import { useSlabParts } from '../stores/slabParts';
import PushButton from '../controls/PushButton.vue';
import WorkLine from '../controls/WorkLine.vue';
import ToolButton from '../controls/ToolButton.vue';
import { usePickFiles } from '../controls/pickFiles';

const bench = useSlabBench();
const tools = useSlabTools();
const LABELS: Record<SetFormShape, string> = {
  dome: 'Dome',
  disc: 'Disc',
  ring: 'Ring',
  hex: 'Hex head',
  pin: 'Pin',
  bar: 'Bar',
  wedge: 'Wedge',
  part: 'Part',
};
const parts = useSlabParts();
const labelOf = (setForm: SetForm): string => setForm.part?.name ?? LABELS[setForm.form];
const UPS = PART_UPS.map((value) => ({ value, label: value.replace('-', '−').toUpperCase() }));
const chosen = computed(() => bench.setForms.find((p) => p.id === tools.setFormId) ?? null);
const numbers = computed(() => {
  const setForm = chosen.value;
  if (!setForm) return [];
  const wide = setForm.form === 'bar' || setForm.form === 'wedge' || setForm.form === 'ring';
  const edged = setForm.form !== 'dome' && setForm.form !== 'pin' && setForm.form !== 'part';
  return [
    'size',
    ...(wide ? ['width'] : []),
    'height',
    ...(edged ? ['edge'] : []),
    'turn',
    ...(setForm.repeat === 'one' ? [] : ['count', 'pitch']),
  ] as ('size' | 'width' | 'height' | 'edge' | 'turn' | 'count' | 'pitch')[];
});

function add(form: SetFormShape): void {
  const first = bench.doc?.cast.frame;
  const setForm = SetFormSchema.parse({
    id: crypto.randomUUID(),
    form,
    x: first?.x ?? 0,
    y: first?.y ?? 0,
    ...(form === 'pin'
      ? { size: 0.05, height: 0.08 }
      : form === 'bar' || form === 'wedge'
        ? { size: 0.3, width: 30 }
        : {}),
  });
  tools.setFormId = setForm.id;
  void bench.editSetForms((slab) => slab.setForms.push(setForm));
}
const pick = usePickFiles({ accept: '.obj,.ply,.stl,.glb' }, ([file]) => file && void parts.add(file));
function put(change: Partial<SetForm>): void {
  void bench.editSetForms((slab) => {
    const setForm = slab.setForms.find((p) => p.id === tools.setFormId);
    if (setForm) Object.assign(setForm, change);
  });
}
function remove(setForm: SetForm): void {
  const snapshot = { ...setForm };
  void bench.editSetForms((slab) => {
    slab.setForms = slab.setForms.filter((p) => p.id !== setForm.id);
  });
  undoNotice(`${labelOf(setForm)} removed.`, () => bench.editSetForms((slab) => slab.setForms.push(snapshot)));
}
</script>

<template>
  <div class="tab">
    <div class="two">
      <PushButton v-for="form in SET_FORMS.filter((f) => f !== 'part')" :key="form" @click="add(form)">
        + {{ LABELS[form] }}
      </PushButton>
      <PushButton
        title="A mesh from an OBJ, PLY, STL or GLB file; it can be dropped on the slab too"
        :disabled="parts.going !== null"
        @click="pick"
      >
        + Part…
      </PushButton>
    </div>
    <WorkLine v-if="parts.going" :work="parts.going" />
    <p v-if="parts.problem" class="sentence-bad" role="alert">{{ parts.problem }}</p>
    <ul v-if="bench.setForms.length">
      <li v-for="setForm in bench.setForms" :key="setForm.id" :class="{ on: setForm.id === tools.setFormId }">
        <PushButton look="row" :on="setForm.id === tools.setFormId" @click="tools.setFormId = setForm.id">
          {{ labelOf(setForm) }}{{ setForm.repeat === 'one' ? '' : ` × ${setForm.count}` }}
        </PushButton>
        <ToolButton :icon="Trash2" :label="`Take ${labelOf(setForm)} off`" @click="remove(setForm)" />
      </li>
    </ul>
    <p v-else class="muted">Lay a form or a part on the slab, drag it into place, and bake it when it is right.</p>
    <template v-if="chosen">
      <ChoiceBar
        label="Raised or sunk"
        :model-value="chosen.set"
        :options="[
          { value: 'raised', label: 'Raised' },
          { value: 'sunk', label: 'Sunk' },
        ]"
        @update:model-value="(v) => put({ set: v })"
      />
      <ChoiceBar
        v-if="chosen.part"
        label="Side that points up"
        :model-value="chosen.part.up"
        :options="UPS"
        @update:model-value="(v) => parts.turnUp(chosen!, v)"
      />
      <SettingSlider
        v-for="key in numbers"
        :key="key"
        :meta="settingAt(SetFormSchema, key)"
        :model-value="chosen[key]"
        @update:model-value="(v) => put({ [key]: v })"
      />
      <ChoiceBar
        label="How many"
        :model-value="chosen.repeat"
        :options="[
          { value: 'one', label: 'One' },
          { value: 'row', label: 'Row' },
          { value: 'ring', label: 'Ring' },
        ]"
        @update:model-value="(v) => put({ repeat: v })"
      />
    </template>
    <PushButton v-if="bench.setForms.length" look="main" @click="bench.bakeSetForms()">
      Bake {{ bench.setForms.length === 1 ? 'it' : `all ${bench.setForms.length}` }} into the clay
    </PushButton>
  </div>
</template>
