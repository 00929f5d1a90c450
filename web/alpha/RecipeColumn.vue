<script setup lang="ts">
/**
 * The recipe: its steps in their order, switched, dragged, copied, opened; and the alpha's own size, depth and name.
 */
import { ChevronDown, ChevronRight, Copy, Eye, EyeOff, GripVertical, Plus, Trash2 } from '@lucide/vue';
import { computed, ref } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { CAST_SIZES, type Step } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { useAlphaBench } from '../stores/alphaBench';
import StepEditor from './StepEditor.vue';
import { STEP_GROUPS, STEP_LABELS } from './stepLabels';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';

const bench = useAlphaBench();
const adding = ref(false);
const steps = computed<Step[]>({
  get: () => bench.recipe?.steps ?? [],
  set: (next) => bench.orderSteps(next.map((s) => s.id)),
});
const problemOf = (id: string): string | undefined => bench.answer?.problems.find((p) => p.id === id)?.sentence;
const base = computed(() => {
  switch (bench.recipe?.base.kind) {
    case 'sheet':
      return 'Window of a sheet';
    case 'lettering':
      return 'Lettering';
    case 'pattern':
      return 'Pattern';
    case 'cast':
      return bench.doc?.lineage.sourceId === null ? 'Detail of a part' : 'Cast of a slab';
    default:
      return 'Vectors';
  }
});
const RELIEF = {
  label: 'Relief',
  unit: '',
  min: 0.005,
  max: 1,
  step: 0.001,
  fallback: 0.1,
  scale: 'log',
  help: 'Depth from black to white at 100 %, in sides of the picture',
} as const;
const SIZE = {
  label: 'Size',
  unit: 'px',
  min: 8,
  max: 4096,
  step: 1,
  fallback: 1024,
  scale: 'log',
  help: 'Pixels per side',
} as const;

function add(kind: Step['kind']): void {
  adding.value = false;
  bench.addStep(kind);
}
function move(id: string, by: -1 | 1): void {
  const ids = steps.value.map((s) => s.id);
  const at = ids.indexOf(id);
  if (at + by < 0 || at + by >= ids.length) return;
  [ids[at], ids[at + by]] = [ids[at + by], ids[at]];
  bench.orderSteps(ids);
}
</script>

<template>
  <div class="column">
    <div class="heading">
      Recipe <small>{{ base }}</small>
    </div>
    <p v-if="bench.vector" class="muted">
      A vector alpha is kept as it was cast. Cast it as heights to work on its tones.
    </p>
    <VueDraggable v-else v-model="steps" tag="ol" handle=".grip" :animation="120" class="steps">
      <li
        v-for="s in steps"
        :key="s.id"
        :class="{ on: s.id === bench.chosen, off: !s.on, failed: problemOf(s.id) }"
        :data-step="s.kind"
      >
        <div class="line">
          <ToolButton
            class="grip"
            :icon="GripVertical"
            :label="`Move ${STEP_LABELS[s.kind]}`"
            help="Drag into another place; arrows move it"
            @keydown.up.prevent="move(s.id, -1)"
            @keydown.down.prevent="move(s.id, 1)"
          />
          <PushButton
            look="face"
            class="name"
            :aria-expanded="s.id === bench.chosen"
            @click="bench.chosen = s.id === bench.chosen ? null : s.id"
          >
            <ChevronDown v-if="s.id === bench.chosen" :size="13" /><ChevronRight v-else :size="13" />{{
              STEP_LABELS[s.kind]
            }}
          </PushButton>
          <ToolButton
            :icon="s.on ? Eye : EyeOff"
            :label="`Turn ${s.on ? 'off' : 'on'} ${STEP_LABELS[s.kind]}`"
            :help="s.on ? 'Turn the step off' : 'Turn the step on'"
            @click="
              bench.editStep(
                s.id,
                (own) => {
                  own.on = !own.on;
                },
                'switch',
              )
            "
          />
          <ToolButton :icon="Copy" :label="`Copy ${STEP_LABELS[s.kind]}`" help="Copy" @click="bench.copyStep(s.id)" />
          <ToolButton
            :icon="Trash2"
            :label="`Take ${STEP_LABELS[s.kind]} away`"
            help="Take it away"
            command="remove"
            @click="bench.removeStep(s.id)"
          />
        </div>
        <p v-if="problemOf(s.id)" class="sentence-bad" role="alert">{{ problemOf(s.id) }}</p>
        <StepEditor v-if="s.id === bench.chosen" :step="s" />
      </li>
    </VueDraggable>
    <p v-if="!bench.vector && steps.length === 0" class="muted">
      No steps yet: the picture is as it came. Add one, or mend what the checks find.
    </p>
    <PopMenu v-if="!bench.vector" v-model:visible="adding" placement="right-start" :width="330">
      <template #reference
        ><PushButton class="add"><Plus :size="15" /> Add a step</PushButton></template
      >
      <div class="groups">
        <div v-for="group in STEP_GROUPS" :key="group.label">
          <div class="heading">{{ group.label }}</div>
          <PushButton v-for="kind in group.kinds" :key="kind" look="row" class="offer" @click="add(kind)">
            {{ STEP_LABELS[kind] }}
          </PushButton>
        </div>
      </div>
    </PopMenu>
    <template v-if="bench.doc">
      <div class="heading part">Alpha</div>
      <label class="row"
        ><span class="label">Name</span
        ><TextField
          maxlength="80"
          :model-value="bench.doc.card.name"
          @update:model-value="bench.edit('name', (a) => (a.card.name = $event))"
      /></label>
      <template v-if="!bench.vector">
        <ChoiceBar
          label="Size in pixels"
          :model-value="bench.doc.size"
          :options="CAST_SIZES.map((n) => ({ value: n as number, label: String(n) }))"
          @update:model-value="bench.edit('size', (a) => (a.size = $event))"
        />
        <SettingSlider
          :meta="SIZE"
          :model-value="bench.doc.size"
          @update:model-value="bench.edit('size', (a) => (a.size = $event))"
        />
        <SettingSlider
          :meta="RELIEF"
          :model-value="bench.doc.relief"
          @update:model-value="bench.edit('relief', (a) => (a.relief = $event))"
        />
        <div class="row">
          <span class="label">Keep as</span
          ><ChoiceBar
            label="Keep as"
            :model-value="bench.doc.format"
            :options="[
              { value: 'grey16', label: '16 bit' },
              { value: 'grey32f', label: 'Float' },
            ]"
            @update:model-value="bench.edit('format', (a) => (a.format = $event))"
          />
        </div>
      </template>
    </template>
  </div>
</template>

<style scoped>
.column {
  display: grid;
  gap: 8px;
  align-content: start;
  padding: 12px;
  overflow: auto;
  border-right: 1px solid var(--line-soft);
  --label: 62px;
}
.column .row {
  grid-template-columns: 62px 1fr;
}
.steps {
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.steps li {
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--field);
}
.steps li.on {
  border-color: var(--act);
}
.steps li.off .name {
  color: var(--ink-3);
  text-decoration: line-through;
}
.steps li.failed {
  border-color: var(--bad);
}
.line {
  display: flex;
  align-items: center;
}
.line .grip {
  cursor: grab;
  padding-right: 2px;
}
.line .name {
  flex: 1;
  min-width: 0;
  justify-content: flex-start;
  padding: 6px 0 6px 2px;
  font-weight: 500;
  gap: 4px;
}
.sentence-bad {
  padding: 0 8px 6px;
}
.groups {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px 8px;
}
.offer {
  width: 100%;
  margin-left: -6px;
  padding: 4px 6px;
}
.part {
  margin-top: 6px;
  padding-top: 10px;
  border-top: 1px solid var(--line-soft);
}
</style>
