<script setup lang="ts">
/** What is kept: size, samples, format, and where the ground of a new brush is taken. */
import { computed } from 'vue';
import { CAST_SIZES, CastSettingsSchema, settingAt } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { useCastDesk } from './desk';

const cast = useCastDesk();
const settings = computed(() => cast.settings);
const vector = computed(() => settings.value.format === 'vector32f');
const meta = settingAt(CastSettingsSchema, 'size');
</script>

<template>
  <div class="output">
    <div class="row">
      <span class="label">Size, px</span
      ><ChoiceBar
        label="Size in pixels"
        :model-value="settings.size"
        :options="CAST_SIZES.map((n) => ({ value: n as number, label: String(n) }))"
        @update:model-value="cast.edit((c) => (c.size = $event))"
      />
    </div>
    <SettingSlider
      :meta="meta"
      :model-value="settings.size"
      @update:model-value="cast.edit((c) => (c.size = $event))"
    />
    <div class="row">
      <span class="label">Keep as</span>
      <ChoiceBar
        label="Keep as"
        :model-value="settings.format"
        :options="[
          { value: 'grey16', label: '16 bit' },
          { value: 'grey32f', label: 'Float' },
          { value: 'vector32f', label: 'Vectors', help: 'An offset per pixel, so that overhangs survive' },
        ]"
        @update:model-value="cast.edit((c) => (c.format = $event))"
      />
    </div>
    <template v-if="!vector">
      <div class="row">
        <span class="label">Samples</span
        ><ChoiceBar
          label="Samples per pixel"
          :model-value="settings.samples"
          :options="[
            { value: 1, label: '1 per pixel' },
            { value: 4, label: '4 per pixel' },
          ]"
          @update:model-value="cast.edit((c) => (c.samples = $event))"
        />
      </div>
      <div class="row">
        <span class="label">Ground</span
        ><ChoiceBar
          label="Ground"
          :model-value="settings.ground"
          :options="[
            { value: 'edge', label: 'At the edge', help: 'The median of the border' },
            { value: 'average', label: 'At the average', help: 'A dab adds no volume' },
          ]"
          @update:model-value="cast.edit((c) => (c.ground = $event))"
        />
      </div>
    </template>
    <p v-else class="muted">
      A vector alpha holds where each point of the surface went, up, down and sideways. Depth, tones and floor don’t
      apply to it.
    </p>
  </div>
</template>

<style scoped>
.output {
  display: grid;
  gap: 6px;
  --label: 84px;
}
</style>
