<script setup lang="ts">
/** The frame by number, and fitted to the form. */
import { computed } from 'vue';
import { CastSettingsSchema, settingAt } from '#core/settings';
import NumberField from '../controls/NumberField.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { useSlabBench } from '../stores/slabBench';
import { useSlabCast } from '../stores/slabCast';

const bench = useSlabBench();
const cast = useSlabCast();
const frame = computed(() => bench.doc!.cast.frame);
const meta = (path: string) => settingAt(CastSettingsSchema, path);
</script>

<template>
  <div class="frame">
    <div class="two">
      <button
        type="button"
        class="btn"
        title="The form, with the margin, inside the frame’s sides"
        @click="cast.fit('square')"
      >
        Fit to form
      </button>
      <button
        type="button"
        class="btn"
        title="The form, with the margin, inside the reach ring"
        @click="cast.fit('ring')"
      >
        Fit to ring
      </button>
    </div>
    <SettingSlider
      :meta="meta('margin')"
      :model-value="bench.doc!.cast.margin"
      @update:model-value="
        (v) =>
          cast.edit((c) => {
            c.margin = v;
          })
      "
    />
    <SettingSlider
      :meta="meta('frame.side')"
      :model-value="frame.side"
      @update:model-value="
        (v) =>
          cast.edit((c) => {
            c.frame.side = v;
          })
      "
    />
    <SettingSlider
      :meta="meta('frame.turn')"
      :model-value="frame.turn"
      @update:model-value="
        (v) =>
          cast.edit((c) => {
            c.frame.turn = v;
          })
      "
    />
    <div class="two">
      <NumberField
        label="X"
        unit="body units"
        :model-value="frame.x"
        :min="-8"
        :max="8"
        :step="0.01"
        @update:model-value="
          (v) =>
            cast.edit((c) => {
              c.frame.x = v;
            })
        "
      />
      <NumberField
        label="Y"
        unit="body units"
        :model-value="frame.y"
        :min="-8"
        :max="8"
        :step="0.01"
        @update:model-value="
          (v) =>
            cast.edit((c) => {
              c.frame.y = v;
            })
        "
      />
    </div>
    <button
      type="button"
      class="btn"
      :class="{ on: cast.framing }"
      :aria-pressed="cast.framing"
      @click="cast.framing = !cast.framing"
    >
      {{ cast.framing ? 'Let the frame go (G)' : 'Take hold of it on the slab (G)' }}
    </button>
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  gap: 8px;
  --label: 50px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.btn {
  justify-content: center;
}
.btn.on {
  background: var(--act-wash);
  border-color: var(--act);
  color: var(--act-deep);
}
</style>
