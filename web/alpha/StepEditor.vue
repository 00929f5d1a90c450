<script setup lang="ts">
/**
 * The settings of one step, from its schema; curves, histogram, the other alpha and retouching have parts of their own.
 */
import { computed } from 'vue';
import { curveAt, prepareCurve } from '#core/falloff';
import {
  BACKGROUND_WAYS,
  COMBINE_WAYS,
  EVEN_WAYS,
  FLIPS,
  MIRRORS,
  PROFILES,
  PROPORTIONS,
  settingsIn,
  SHAPES,
  stepSchema,
  type CurveNode,
  type SettingMeta,
  type Step,
} from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import CurveEditor from '../controls/CurveEditor.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { useAlphaBench } from '../stores/alphaBench';
import { useLibrary } from '../stores/library';
import LevelsEditor from './LevelsEditor.vue';
import PickOutEditor from './PickOutEditor.vue';
import RetouchEditor from './RetouchEditor.vue';
import TickBox from '../controls/TickBox.vue';
import SelectField from '../controls/SelectField.vue';

const props = defineProps<{ step: Step }>();
const bench = useAlphaBench();
const library = useLibrary();

interface Choice {
  key: string;
  label: string;
  options: { value: string; label: string }[];
}
const WORDS: Record<string, string> = {
  across: 'Across',
  down: 'Down',
  both: 'Both',
  radial: 'Wheel',
  tone: 'By tone',
  click: 'By a click',
  edge: 'From the sides',
  bright: 'Bright ground',
  dark: 'Dark ground',
  round: 'Round',
  square: 'Square',
  found: 'Found',
  chamfer: 'Chamfer',
  own: 'Own',
  max: 'Higher',
  min: 'Lower',
  add: 'Add',
  multiply: 'Multiply',
  over: 'Over',
};
const choice = (key: string, label: string, values: readonly string[]): Choice => ({
  key,
  label,
  options: values.map((value) => ({ value, label: WORDS[value] })),
});
const CHOICES: Partial<Record<Step['kind'], Choice>> = {
  flip: choice('way', 'Flip', FLIPS),
  perspective: choice('proportion', 'Proportion', PROPORTIONS),
  background: choice('by', 'Background', BACKGROUND_WAYS),
  even: choice('way', 'Ground', EVEN_WAYS),
  feather: choice('shape', 'Shape', SHAPES),
  symmetry: choice('way', 'Symmetry', MIRRORS),
  bevel: choice('profile', 'Profile', PROFILES),
  combine: choice('way', 'Combine by', COMBINE_WAYS),
};

/** Settings that don't apply as the step stands. */
function applies(key: string): boolean {
  const { step } = props;
  if (step.kind === 'background' && key === 'tone') return step.by === 'tone';
  if (step.kind === 'symmetry' && key === 'copies') return step.way === 'radial';
  if (step.kind === 'perspective' && key === 'ratio') return step.proportion === 'own';
  return true;
}
const numbers = computed<[string, SettingMeta][]>(() =>
  props.step.kind === 'levels' ? [] : settingsIn(stepSchema(props.step.kind)).filter(([key]) => applies(key)),
);
const values = computed(() => props.step as unknown as Record<string, number & string>);
const nodes = computed<readonly CurveNode[] | null>(() => {
  const { step } = props;
  if (step.kind === 'curve') return step.nodes;
  return step.kind === 'bevel' && step.profile === 'own' ? step.nodes : null;
});
const curve = computed(() => {
  const made = prepareCurve(nodes.value ?? []);
  return (x: number): number => curveAt(made, x);
});
const others = computed(() => library.alphas.filter((a) => a.id !== bench.doc?.id && a.format !== 'vector32f'));

function put(key: string, value: unknown): void {
  bench.editStep(props.step.id, (own) => Object.assign(own, { [key]: value }), key);
}
</script>

<template>
  <div class="editor">
    <LevelsEditor v-if="step.kind === 'levels'" :step="step" />
    <RetouchEditor v-else-if="step.kind === 'retouch'" :step="step" />
    <PickOutEditor v-else-if="step.kind === 'pickOut'" :step="step" />
    <p v-if="step.kind === 'perspective'" class="muted">
      Drag the four corners to those of something square: a tile, a door, a page.
    </p>
    <p v-if="step.kind === 'shading'" class="muted">
      An estimate: it assumes a matt thing of one colour under one light. Drag the lamp to where the light came from.
    </p>
    <ChoiceBar
      v-if="CHOICES[step.kind]"
      :label="CHOICES[step.kind]!.label"
      :model-value="values[CHOICES[step.kind]!.key]"
      :options="CHOICES[step.kind]!.options"
      @update:model-value="(v) => put(CHOICES[step.kind]!.key, v)"
    />
    <p v-if="step.kind === 'background' && step.by === 'click'" class="muted">Click the background on the picture.</p>
    <label v-if="step.kind === 'combine'" class="other">
      <span class="label">With</span>
      <SelectField
        label="Other alpha"
        placeholder="Choose an alpha"
        :choices="others.map(({ id, card }) => ({ value: id, label: card.name }))"
        :model-value="step.alphaId ?? ''"
        @update:model-value="put('alphaId', $event)"
      />
    </label>
    <CurveEditor
      v-if="nodes"
      :nodes="nodes"
      :value="curve"
      editable
      :label="step.kind === 'bevel' ? 'Profile of the bevel' : 'Tone curve'"
      :describe="(n) => `${n.x.toFixed(2)} becomes ${n.y.toFixed(2)}`"
      :height="110"
      @update:nodes="(n) => put('nodes', n)"
    />
    <SettingSlider
      v-for="[key, meta] in numbers"
      :key="key"
      :meta="meta"
      :model-value="values[key]"
      @update:model-value="(v) => put(key, v)"
    />
    <template v-if="step.kind === 'pad'">
      <TickBox :model-value="step.centre" @update:model-value="put('centre', $event)">Centre on the form</TickBox>
    </template>
    <p v-if="step.kind === 'cut'" class="muted">
      {{ step.outlines.length === 1 ? 'One outline' : `${step.outlines.length} outlines` }}, drawn on the sheet.
    </p>
    <p v-if="step.kind === 'invert'" class="muted">High becomes low.</p>
  </div>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 6px;
  padding: 4px 8px 9px;
  --label: 68px;
}
.other {
  display: grid;
  grid-template-columns: 68px 1fr;
  align-items: center;
}
.other .label {
  color: var(--ink-2);
}
</style>
