<script setup lang="ts">
/** The slab's brushes, and the settings of the one at hand. */
import { RotateCcw, SlidersHorizontal } from '@lucide/vue';
import { computed } from 'vue';
import { BrushSchema } from '#core/settings';
import BrushDisc from '../controls/BrushDisc.vue';
import FalloffEditor from '../controls/FalloffEditor.vue';
import SettingList from '../controls/SettingList.vue';
import SelectField from '../controls/SelectField.vue';
import { useBeltKeys } from '../keys/beltKeys';
import { keyOf } from '../keys/chosen';
import type { CommandId } from '../keys/commands';
import { useLibrary } from '../stores/library';
import { useSlabTools } from '../stores/slabTools';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import ToolButton from '../controls/ToolButton.vue';

const tools = useSlabTools();
const library = useLibrary();
useBeltKeys({
  ids: () => tools.brushes.map(({ id }) => id),
  open: () => tools.brush.id,
  pick: (id) => tools.choose(id),
});
/** What a brush's disc says at its end: its keys. */
function keysAt(place: number): string {
  const keys = [
    place < 8 ? keyOf(`belt${place + 1}` as CommandId) : '',
    smooths(place) ? `${keyOf('smooth')} held` : '',
  ];
  return keys.some(Boolean) ? ` (${keys.filter(Boolean).join(', ')})` : '';
}
const smooths = (place: number): boolean => tools.brushes[place].touch.action === 'smooth';
const action = computed(() => tools.brush.touch.action);
/** What the action has no use for. */
const resting = computed(() => [
  ...(action.value === 'move' ? ['stroke.spacing', 'drift.across', 'stroke.steady'] : []),
  ...(['move', 'smooth', 'flatten', 'mask'].includes(action.value) ? ['form.depth'] : []),
]);
const alphas = computed(() => [
  { value: '', label: 'Plain form' },
  ...library.alphas.map(({ id, card }) => ({ value: id, label: card.name })),
]);
function takeAlpha(id: string): void {
  tools.edit((brush) => {
    brush.form.alphaId = id || null;
    brush.form.ground = library.alpha(id)?.ground ?? 0;
  });
}
</script>

<template>
  <footer class="belt" aria-label="Belt">
    <ToolGroup label="Brushes" class="brushes"
      ><PushButton
        v-for="(brush, i) in tools.brushes"
        :key="brush.id"
        look="face"
        class="tool"
        :title="`${brush.card.notes}${keysAt(i)}`"
        :on="brush.id === tools.brush.id"
        @click="tools.choose(brush.id)"
      >
        <span class="ring"><BrushDisc :brush="brush" :size="44" /></span>{{ brush.card.name }}
      </PushButton></ToolGroup
    >
    <i />
    <div class="sliders">
      <SettingList
        :schema="BrushSchema"
        :of="tools.brush"
        :paths="['stroke.size', 'touch.strength', 'stroke.spacing', 'form.depth']"
        :resting="resting"
        @edit="tools.edit"
      />
    </div>
    <PopMenu :width="288" placement="top-end">
      <template #reference>
        <PushButton title="Scatter, steady, pen, alpha and falloff of this brush">
          <SlidersHorizontal :size="15" /> More
        </PushButton>
      </template>
      <div class="more">
        <div class="heading">{{ tools.brush.card.name }}</div>
        <SettingList
          :schema="BrushSchema"
          :of="tools.brush"
          :paths="['drift.across', 'stroke.steady', ...(action === 'crease' ? ['touch.pinch'] : [])]"
          :resting="resting"
          @edit="tools.edit"
        />
        <div class="heading">Pen <small>under light pressure</small></div>
        <SettingList
          :schema="BrushSchema"
          :of="tools.brush"
          :paths="['pen.pressureSize.low', 'pen.pressureStrength.low']"
          @edit="tools.edit"
        />
        <div class="row">
          <span class="label">Alpha</span>
          <SelectField
            label="Alpha of the brush"
            :choices="alphas"
            :model-value="tools.brush.form.alphaId ?? ''"
            @update:model-value="takeAlpha"
          />
        </div>
        <SettingList
          v-if="tools.brush.form.alphaId"
          :schema="BrushSchema"
          :of="tools.brush"
          :paths="['form.turn']"
          @edit="tools.edit"
        />
        <FalloffEditor
          :model-value="tools.brush.touch.falloff"
          @update:model-value="tools.edit((b) => (b.touch.falloff = $event))"
        />
      </div>
    </PopMenu>
    <ToolButton
      :icon="RotateCcw"
      label="Back to the defaults"
      :help="`${tools.brush.card.name} back to its defaults`"
      @click="tools.reset()"
    />
  </footer>
</template>

<style scoped>
.belt {
  height: 92px;
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 14px;
  border-top: 1px solid var(--line);
  background: var(--leaf);
}
.brushes {
  display: flex;
  flex: none;
  gap: 2px;
}
.tool {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 4px;
  width: 66px;
  flex: none;
  font-size: var(--small);
}
.ring {
  border-radius: 50%;
  padding: 3px;
  border: 1px solid var(--line);
  background: var(--field);
}
.tool:hover .ring {
  border-color: var(--ink-3);
}
.on {
  font-weight: 600;
}
.on .ring {
  border-color: var(--act);
  box-shadow: 0 0 0 2px var(--act);
}
i {
  width: 1px;
  height: 60px;
  background: var(--line);
  margin: 0 10px;
}
.sliders {
  flex: 1;
  max-width: 640px;
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 4px 20px;
  --label: 58px;
  margin-right: 10px;
}
.more {
  display: grid;
  gap: 6px;
  --label: 92px;
}
/* In half a screen the numbers are typed. */
@media (max-width: 1000px) {
  .sliders {
    --label: 50px;
  }
  .sliders :deep(.slider) {
    grid-template-columns: var(--label) minmax(0, 1fr);
  }
  .sliders :deep(.el-slider) {
    display: none;
  }
}
/* The track keeps some length in a small window. */
@media (max-width: 1140px) {
  .tool {
    width: 56px;
  }
  .sliders {
    column-gap: 12px;
    --typed: 54px;
  }
}
@media (pointer: coarse) {
  .belt {
    height: 104px;
  }
}
</style>
