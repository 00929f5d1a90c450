<script setup lang="ts">
/** The pattern's form and its few settings. */
import { Dices, Shuffle } from '@lucide/vue';
import { computed } from 'vue';
import { growSchema, newGrow, PATTERN_FORMS, settingsIn, type Pattern, type PatternForm } from '#core/settings';
import SettingSlider from '../controls/SettingSlider.vue';
import { useMadeBench } from '../stores/madeBench';
import { FORM_LABELS } from './formLabels';

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
    <div class="forms" role="radiogroup" aria-label="Form">
      <button
        v-for="form in PATTERN_FORMS"
        :key="form"
        type="button"
        role="radio"
        :aria-checked="form === doc.grow.form"
        :class="{ on: form === doc.grow.form }"
        @click="choose(form)"
      >
        {{ FORM_LABELS[form] }}
      </button>
    </div>
    <SettingSlider
      v-for="[key, meta] in numbers"
      :key="key"
      :meta="meta"
      :model-value="values[key]!"
      @update:model-value="(v) => put(key, v)"
    />
    <div class="seed">
      <SettingSlider :meta="seedMeta" :model-value="doc.grow.seed" @update:model-value="(v) => put('seed', v)" /><button
        type="button"
        class="btn quiet"
        title="Another seed"
        aria-label="Another seed"
        @click="put('seed', 1 + Math.floor(Math.random() * 99998))"
      >
        <Shuffle :size="15" />
      </button>
    </div>
    <label class="check"
      ><input
        type="checkbox"
        :checked="doc.grow.tiles"
        @change="put('tiles', ($event.target as HTMLInputElement).checked)"
      />
      Repeats without a seam</label
    >
    <button type="button" class="btn surprise" @click="$emit('surprise')"><Dices :size="16" /> Surprise me</button>
    <div class="heading part">Source</div>
    <label class="row"
      ><span class="label">Name</span
      ><input
        class="field"
        maxlength="80"
        :value="doc.card.name"
        @input="
          bench.edit('name', (m) => {
            m.card.name = ($event.target as HTMLInputElement).value;
          })
        "
    /></label>
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
  --label: 74px;
}
.column .row {
  grid-template-columns: 74px 1fr;
}
.column :deep(.slider) {
  --label: 74px;
}
.forms {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px;
}
.forms button {
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--field);
  padding: 5px 2px;
  cursor: pointer;
  font-size: 12px;
}
.forms button.on {
  background: var(--act-wash);
  border-color: var(--act);
  color: var(--act-deep);
  font-weight: 600;
}
.seed {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px;
  align-items: center;
}
.seed .btn {
  padding: 0 6px;
}
.check {
  display: flex;
  gap: 6px;
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
