<script setup lang="ts">
/** The pattern's form and its few settings. */
import { Dices, Shuffle } from '@lucide/vue';
import { computed } from 'vue';
import { growSchema, newGrow, PATTERN_FORMS, settingsIn, type Pattern, type PatternForm } from '#core/settings';
import SettingSlider from '../controls/SettingSlider.vue';
import { useMadeBench } from '../stores/madeBench';
import { FORM_LABELS } from './formLabels';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import TickBox from '../controls/TickBox.vue';
import ToolButton from '../controls/ToolButton.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';

defineEmits<{ surprise: [] }>();
const bench = useMadeBench();
const doc = computed(() => bench.doc as Pattern);
const numbers = computed(() => settingsIn(growSchema(doc.value.grow.form)).filter(([key]) => key !== 'seed'));
const values = computed(() => doc.value.grow as unknown as Record<string, number>);
const seedMeta = settingsIn(growSchema('soft')).find(([key]) => key === 'seed')![1];

function edit(label: string, change: (pattern: Pattern) => void): void {
  bench.edit(label, (made) => {
    if (made.kind === 'pattern') change(made);
  });
}
function choose(form: PatternForm): void {
  edit('form', (p) => (p.grow = { ...newGrow(form, p.grow.seed), tiles: p.grow.tiles }));
}
function put(key: string, value: number | boolean): void {
  edit(key, (p) => Object.assign(p.grow, { [key]: value }));
}
</script>

<template>
  <div class="column">
    <div class="heading">Pattern</div>
    <ChoiceBar
      label="Form"
      :across="2"
      :model-value="doc.grow.form"
      :options="PATTERN_FORMS.map((value) => ({ value, label: FORM_LABELS[value] }))"
      @update:model-value="choose"
    />
    <SettingSlider
      v-for="[key, meta] in numbers"
      :key="key"
      :meta="meta"
      :model-value="values[key]"
      @update:model-value="(v) => put(key, v)"
    />
    <div class="seed">
      <SettingSlider
        :meta="seedMeta"
        :model-value="doc.grow.seed"
        @update:model-value="(v) => put('seed', v)"
      /><ToolButton :icon="Shuffle" label="Another seed" @click="put('seed', 1 + Math.floor(Math.random() * 99998))" />
    </div>
    <TickBox :model-value="doc.grow.tiles" @update:model-value="put('tiles', $event)">Repeats without a seam</TickBox>
    <PushButton class="surprise" @click="$emit('surprise')"><Dices :size="16" /> Surprise me</PushButton>
    <div class="heading part">Source</div>
    <label class="row"
      ><span class="label">Name</span
      ><TextField
        maxlength="80"
        :model-value="doc.card.name"
        @update:model-value="bench.edit('name', (m) => (m.card.name = $event))"
    /></label>
  </div>
</template>

<style scoped>
.column {
  display: grid;
  grid-auto-rows: max-content;
  gap: 8px;
  align-content: start;
  padding: 12px;
  overflow: auto;
  border-right: 1px solid var(--line-soft);
  --label: 74px;
}
.column .row {
  grid-template-columns: 74px 1fr;
}
.seed {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px;
  align-items: center;
}
.surprise {
  justify-content: center;
}
.part {
  margin-top: 6px;
  padding-top: 10px;
  border-top: 1px solid var(--line-soft);
}
</style>
