<script setup lang="ts">
/** Retouching: the tool in hand, and what it has done so far. Strokes are drawn on the picture. */
import {
  settingAt,
  RETOUCH_TOOLS,
  RetouchStrokeSchema,
  TONE_RANGES,
  type RetouchTool,
  type StepOf,
} from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { useAlphaBench } from '../stores/alphaBench';
import { useRetouch } from '../stores/retouch';
import PushButton from '../controls/PushButton.vue';

defineProps<{ step: StepOf<'retouch'> }>();
const bench = useAlphaBench();
const hand = useRetouch();
const LABELS: Record<RetouchTool, string> = {
  erase: 'Erase',
  heal: 'Heal',
  copy: 'Copy',
  lighten: 'Lighten',
  darken: 'Darken',
  smudge: 'Smudge',
  paint: 'Paint',
};
const HELP: Record<RetouchTool, string> = {
  erase: 'Paints back to ground',
  heal: 'Covers with texture from round about',
  copy: 'Copies from a point: Alt-click sets it',
  lighten: 'Raises tones',
  darken: 'Lowers tones',
  smudge: 'Carries tones along',
  paint: 'Lays a grey',
};
</script>

<template>
  <div class="retouch">
    <ChoiceBar
      v-model="hand.tool.tool"
      label="Tool"
      :across="3"
      :options="RETOUCH_TOOLS.map((value) => ({ value, label: LABELS[value], help: HELP[value] }))"
    />
    <p class="muted">
      {{
        hand.tool.tool === 'copy' && !hand.source
          ? 'Alt-click the place to copy from, then draw.'
          : `${HELP[hand.tool.tool]}. Draw on the picture.`
      }}
    </p>
    <SettingSlider
      v-for="key in ['size', 'strength', 'hardness'] as const"
      :key="key"
      :meta="settingAt(RetouchStrokeSchema, key)"
      :model-value="hand.tool[key]"
      @update:model-value="(v) => (hand.tool[key] = v)"
    />
    <SettingSlider
      v-if="hand.tool.tool === 'paint'"
      :meta="settingAt(RetouchStrokeSchema, 'grey')"
      :model-value="hand.tool.grey"
      @update:model-value="(v) => (hand.tool.grey = v)"
    />
    <ChoiceBar
      v-if="hand.tool.tool === 'lighten' || hand.tool.tool === 'darken'"
      label="Tones"
      :model-value="hand.tool.range"
      :options="
        TONE_RANGES.map((value) => ({
          value,
          label: { all: 'All', shadows: 'Shadows', mids: 'Mids', lights: 'Lights' }[value],
        }))
      "
      @update:model-value="(v) => (hand.tool.range = v)"
    />
    <div class="done">
      <span class="muted">{{ step.strokes.length === 1 ? '1 stroke' : `${step.strokes.length} strokes` }}</span>
      <PushButton
        v-if="step.strokes.length"
        look="quiet"
        @click="
          bench.editStep(
            step.id,
            (own) => {
              if (own.kind === 'retouch') own.strokes.pop();
            },
            `drop ${step.strokes.length}`,
          )
        "
      >
        Undo the last
      </PushButton>
    </div>
  </div>
</template>

<style scoped>
.retouch {
  display: grid;
  gap: 6px;
}
.done {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 30px;
}
</style>
