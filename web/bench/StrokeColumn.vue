<script setup lang="ts">
/** How the brush lays it down: stroke type, mapping, stroke and touch settings, and the brush's card. */
import { ElInputTag } from 'element-plus';
import { BrushSchema, settingAt, type Action, type Brush, type StrokeType } from '#core/settings';
import ChoiceBar from '../parts/ChoiceBar.vue';
import SettingSlider from '../parts/SettingSlider.vue';

defineProps<{ brush: Brush; nameProblem: string | null; base: boolean }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();

const TYPES: readonly { value: StrokeType; label: string; help: string }[] = [
  { value: 'trail', label: 'Trail', help: 'Dabs along the path at the spacing' },
  { value: 'press', label: 'Press', help: 'One stamp of fixed size, slid into place before release' },
  { value: 'grow', label: 'Grow', help: 'Press at the centre, drag for size and turn' },
];
const ACTIONS: readonly { value: Action; label: string; help: string }[] = [
  { value: 'lift', label: 'Lift', help: 'Raises the form; D held digs it' },
  { value: 'crease', label: 'Crease', help: 'Cuts a line and draws the clay together' },
  { value: 'smooth', label: 'Smooth', help: 'Evens the clay out' },
  { value: 'move', label: 'Move', help: 'Carries the clay with the pointer' },
];
const STROKE = ['size', 'spacing', 'scatter'] as const;
const meta = (path: string) => settingAt(BrushSchema, path);
const touches = (brush: Brush) => (['strength', 'footing', 'reachDepth', ...(brush.touch.action === 'crease' ? ['pinch' as const] : [])] as const);
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
</script>

<template>
  <div class="column">
    <div class="heading">Stroke</div>
    <div class="types" role="radiogroup" aria-label="Stroke type">
      <button v-for="t in TYPES" :key="t.value" type="button" role="radio" :aria-checked="brush.stroke.type === t.value" :class="{ on: brush.stroke.type === t.value }" :title="t.help" @click="edit((b) => { b.stroke.type = t.value; })">
        <svg viewBox="0 0 40 22" aria-hidden="true">
          <template v-if="t.value === 'trail'"><circle cx="7" cy="15" r="3.5" /><circle cx="16" cy="9" r="3.5" /><circle cx="25" cy="10" r="3.5" /><circle cx="34" cy="15" r="3.5" /></template>
          <template v-else-if="t.value === 'press'"><circle cx="20" cy="13" r="5.5" /><path d="M20 1v5m-2.5-2L20 6.500l2.500-2.500" class="stroke" /></template>
          <template v-else><circle cx="17" cy="12" r="3" /><circle cx="17" cy="12" r="8.500" class="stroke" stroke-dasharray="2.500 2" /><path d="M17 12 30 4m-4.500 0H30v4" class="stroke" /></template>
        </svg>
        {{ t.label }}
      </button>
    </div>
    <ChoiceBar
      label="Mapping" :model-value="brush.stroke.mapping" :options="[{ value: 'surface', label: 'On surface', help: 'Laid on along the surface’s own normal' }, { value: 'view', label: 'From view', help: 'Projected along the view' }]"
      @update:model-value="(v) => edit((b) => { b.stroke.mapping = v; })"
    />
    <SettingSlider v-for="name in STROKE" :key="name" :meta="meta(`stroke.${name}`)" :model-value="brush.stroke[name]" @update:model-value="(v) => edit((b) => { b.stroke[name] = v; })" />
    <div class="row">
      <span class="label">Turn from</span>
      <ChoiceBar
        label="Turn from" :model-value="brush.stroke.turnFrom" :options="[{ value: 'fixed', label: 'Fixed', help: 'Upright as seen' }, { value: 'stroke', label: 'Stroke', help: 'Turns with the stroke’s direction' }]"
        @update:model-value="(v) => edit((b) => { b.stroke.turnFrom = v; })"
      />
    </div>
    <div class="heading part">Touch</div>
    <ChoiceBar label="Action" :model-value="brush.touch.action" :options="ACTIONS" @update:model-value="(v) => edit((b) => { b.touch.action = v; })" />
    <SettingSlider v-for="name in touches(brush)" :key="name" :meta="meta(`touch.${name}`)" :model-value="brush.touch[name]" @update:model-value="(v) => edit((b) => { b.touch[name] = v; })" />
    <div class="row">
      <span class="label">Overlaps</span>
      <ChoiceBar
        label="Overlaps" :model-value="brush.touch.overlaps" :options="[{ value: 'even', label: 'Even', help: 'Within a stroke the strongest dab counts: no peaks where dabs cross' }, { value: 'add', label: 'Add up', help: 'Every dab adds' }]"
        @update:model-value="(v) => edit((b) => { b.touch.overlaps = v; })"
      />
    </div>
    <div class="heading part">Card <small v-if="base">base brush: the first change makes a copy</small></div>
    <label class="row"><span class="label">Name</span><input class="field" :class="{ bad: nameProblem }" maxlength="80" :value="brush.card.name" @input="(e) => edit((b) => { b.card.name = (e.target as HTMLInputElement).value; })" /></label>
    <p v-if="nameProblem" class="sentence-bad" role="alert">{{ nameProblem }}</p>
    <label class="row"><span class="label">Author</span><input class="field" maxlength="120" :value="brush.card.author" @input="(e) => edit((b) => { b.card.author = (e.target as HTMLInputElement).value; })" /></label>
    <div class="row"><span class="label">Tags</span><ElInputTag :model-value="brush.card.tags" :max="24" placeholder="Enter adds a tag" aria-label="Tags" @update:model-value="(v) => edit((b) => { b.card.tags = (v ?? []).map((t) => t.trim().slice(0, 40)).filter((t) => t !== ''); })" /></div>
    <label class="row notes"><span class="label">Notes</span><textarea class="field" rows="2" maxlength="4000" :value="brush.card.notes" @input="(e) => edit((b) => { b.card.notes = (e.target as HTMLTextAreaElement).value; })" /></label>
  </div>
</template>

<style scoped>
.column { display: grid; gap: 6px; align-content: start; padding: 12px 14px; overflow: auto; }
.types { display: grid; grid-template-columns: repeat(3, 1fr); gap: 8px; }
.types button { height: 46px; border: 1px solid var(--line); border-radius: var(--r); background: var(--leaf); cursor: pointer; font-size: var(--small); display: grid; justify-items: center; align-content: center; gap: 1px; }
.types button:hover { border-color: var(--ink-3); }
.types .on { background: var(--ink); border-color: var(--ink); color: #fff; }
.types svg { height: 22px; fill: currentcolor; }
.types .stroke { fill: none; stroke: currentcolor; stroke-width: 1.4; }
.part { margin-top: 8px; padding-top: 8px; border-top: 1px solid var(--line-soft); }
.notes { align-items: start; }
.notes textarea { height: 42px; padding: 4px 8px; resize: vertical; }
</style>
