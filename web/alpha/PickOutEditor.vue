<script setup lang="ts">
/** Picking out: which kind of stroke the hand draws and how wide. Strokes are drawn on the picture. */
import { computed } from 'vue';
import { PickStrokeSchema, settingAt, type StepOf } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import PushButton from '../controls/PushButton.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { useAlphaBench } from '../stores/alphaBench';
import { usePickStrokes } from '../stores/pickStrokes';

const props = defineProps<{ step: StepOf<'pickOut'> }>();
const bench = useAlphaBench();
const hand = usePickStrokes();
const counts = computed(() => {
  const inside = props.step.strokes.filter((s) => s.inside).length;
  const outside = props.step.strokes.length - inside;
  if (inside === 0) return 'Draw over the thing you want.';
  return outside === 0
    ? 'The rest is found. Draw outside where it takes too much.'
    : `${inside} inside, ${outside} outside. Draw more where it is wrong.`;
});
function clear(): void {
  bench.editStep(props.step.id, (own) => Object.assign(own, { strokes: [] }), 'clear');
}
</script>

<template>
  <div class="pick">
    <ChoiceBar
      label="Strokes"
      :model-value="hand.inside ? 'inside' : 'outside'"
      :options="[
        { value: 'inside', label: 'Inside', help: 'What you draw over belongs to the thing (X)' },
        { value: 'outside', label: 'Outside', help: 'What you draw over doesn’t; Alt draws the other kind (X)' },
      ]"
      @update:model-value="(v) => (hand.inside = v === 'inside')"
    />
    <p class="muted">{{ counts }}</p>
    <SettingSlider v-model="hand.size" :meta="settingAt(PickStrokeSchema, 'size')" />
    <PushButton v-if="step.strokes.length" @click="clear">Clear the strokes</PushButton>
  </div>
</template>

<style scoped>
.pick {
  display: grid;
  gap: 6px;
}
</style>
