<script setup lang="ts">
/** The slab's brushes, and the settings of the one at hand. */
import { RotateCcw, SlidersHorizontal } from '@lucide/vue';
import { computed } from 'vue';
import { BrushSchema, settingAt, type Action } from '#core/settings';
import BrushDisc from '../controls/BrushDisc.vue';
import FalloffEditor from '../controls/FalloffEditor.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { useShortcuts } from '../controls/shortcuts';
import { useLibrary } from '../stores/library';
import { useSlabTools } from '../stores/slabTools';
import PopMenu from '../controls/PopMenu.vue';

const tools = useSlabTools();
const library = useLibrary();
const KEYS: Record<Action, string> = {
  lift: 'L',
  build: 'B',
  crease: 'C',
  inflate: 'I',
  smooth: 'S',
  flatten: 'F',
  move: 'M',
  mask: 'K',
};
useShortcuts(
  tools.brushes
    .filter((b) => b.touch.action !== 'smooth')
    .map((brush) => ({
      keys: KEYS[brush.touch.action],
      what: `${brush.card.name} brush`,
      run: () => tools.choose(brush.id),
    })),
);
const meta = (path: string) => settingAt(BrushSchema, path);
const action = computed(() => tools.brush.touch.action);
const depthless = computed(() => ['move', 'smooth', 'flatten', 'mask'].includes(action.value));
const alphas = computed(() => library.alphas);
</script>

<template>
  <footer class="belt" aria-label="Belt">
    <button
      v-for="brush in tools.brushes"
      :key="brush.id"
      type="button"
      class="tool"
      :class="{ on: brush.id === tools.brush.id }"
      :aria-pressed="brush.id === tools.brush.id"
      :title="`${brush.card.notes} (${KEYS[brush.touch.action]})`"
      @click="tools.choose(brush.id)"
    >
      <span class="ring"><BrushDisc :brush="brush" :size="44" /></span>{{ brush.card.name }}
    </button>
    <i />
    <div class="sliders">
      <SettingSlider
        :meta="meta('stroke.size')"
        :model-value="tools.brush.stroke.size"
        @update:model-value="
          (v) =>
            tools.edit((b) => {
              b.stroke.size = v;
            })
        "
      />
      <SettingSlider
        :meta="meta('touch.strength')"
        :model-value="tools.brush.touch.strength"
        @update:model-value="
          (v) =>
            tools.edit((b) => {
              b.touch.strength = v;
            })
        "
      />
      <SettingSlider
        :meta="meta('stroke.spacing')"
        :model-value="tools.brush.stroke.spacing"
        :disabled="action === 'move'"
        @update:model-value="
          (v) =>
            tools.edit((b) => {
              b.stroke.spacing = v;
            })
        "
      />
      <SettingSlider
        :meta="meta('form.depth')"
        :model-value="tools.brush.form.depth"
        :disabled="depthless"
        @update:model-value="
          (v) =>
            tools.edit((b) => {
              b.form.depth = v;
            })
        "
      />
    </div>
    <PopMenu :width="288" placement="top-end" :teleported="true">
      <template #reference
        ><button class="btn" type="button" title="Scatter, steady, pen, alpha and falloff of this brush">
          <SlidersHorizontal :size="15" /> More
        </button></template
      >
      <div class="more">
        <div class="heading">{{ tools.brush.card.name }}</div>
        <SettingSlider
          :meta="meta('drift.across')"
          :model-value="tools.brush.drift.across"
          :disabled="action === 'move'"
          @update:model-value="
            (v) =>
              tools.edit((b) => {
                b.drift.across = v;
              })
          "
        />
        <SettingSlider
          :meta="meta('stroke.steady')"
          :model-value="tools.brush.stroke.steady"
          :disabled="action === 'move'"
          @update:model-value="
            (v) =>
              tools.edit((b) => {
                b.stroke.steady = v;
              })
          "
        />
        <SettingSlider
          v-if="action === 'crease'"
          :meta="meta('touch.pinch')"
          :model-value="tools.brush.touch.pinch"
          @update:model-value="
            (v) =>
              tools.edit((b) => {
                b.touch.pinch = v;
              })
          "
        />
        <div class="heading">Pen <small>under light pressure</small></div>
        <SettingSlider
          :meta="meta('pen.pressureSize.low')"
          :model-value="tools.brush.pen.pressureSize.low"
          @update:model-value="
            (v) =>
              tools.edit((b) => {
                b.pen.pressureSize.low = v;
              })
          "
        />
        <SettingSlider
          :meta="meta('pen.pressureStrength.low')"
          :model-value="tools.brush.pen.pressureStrength.low"
          @update:model-value="
            (v) =>
              tools.edit((b) => {
                b.pen.pressureStrength.low = v;
              })
          "
        />
        <label class="row"
          ><span class="label">Alpha</span>
          <select
            class="field"
            aria-label="Alpha of the brush"
            :value="tools.brush.form.alphaId ?? ''"
            @change="
              (e) =>
                tools.edit((b) => {
                  const id = (e.target as HTMLSelectElement).value;
                  b.form.alphaId = id === '' ? null : id;
                  b.form.ground = library.alpha(id)?.ground ?? 0;
                })
            "
          >
            <option value="">Plain form</option>
            <option v-for="a in alphas" :key="a.id" :value="a.id">{{ a.card.name }}</option>
          </select>
        </label>
        <SettingSlider
          v-if="tools.brush.form.alphaId"
          :meta="meta('form.turn')"
          :model-value="tools.brush.form.turn"
          @update:model-value="
            (v) =>
              tools.edit((b) => {
                b.form.turn = v;
              })
          "
        />
        <FalloffEditor
          :model-value="tools.brush.touch.falloff"
          @update:model-value="
            (v) =>
              tools.edit((b) => {
                b.touch.falloff = v;
              })
          "
        />
      </div>
    </PopMenu>
    <button
      class="btn quiet"
      type="button"
      :title="`${tools.brush.card.name} back to its defaults`"
      aria-label="Back to the defaults"
      @click="tools.reset()"
    >
      <RotateCcw :size="15" />
    </button>
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
.tool {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 4px;
  width: 66px;
  flex: none;
  border: 0;
  background: none;
  cursor: pointer;
  font-size: var(--small);
  padding: 0;
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
.sliders :deep(.slider:has(:disabled)),
.more :deep(.slider:has(:disabled)) {
  opacity: 0.4;
}
.more {
  display: grid;
  gap: 6px;
  --label: 92px;
}
</style>
