<script setup lang="ts">
/** Symmetry of strokes on a body: mirrors, and copies that go round an axis through its middle. */
import { FlipVertical2 as Mirror } from '@lucide/vue';
import { computed } from 'vue';
import { AXES, settingAt, SymmetrySchema, type Symmetry } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import PopMenu from '../controls/PopMenu.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';

const symmetry = defineModel<Symmetry>({ required: true });
const MIRRORS = [
  { key: 'mirrorX', label: 'X', what: 'left and right (X)' },
  { key: 'mirrorY', label: 'Y', what: 'up and down' },
  { key: 'mirrorZ', label: 'Z', what: 'front and back' },
] as const;
const on = computed(() => MIRRORS.some(({ key }) => symmetry.value[key]) || symmetry.value.copies > 1);
const put = (change: Partial<Symmetry>): void => {
  symmetry.value = { ...symmetry.value, ...change };
};
</script>

<template>
  <PopMenu placement="bottom" :width="280">
    <template #reference>
      <ToolButton :icon="Mirror" look="round" label="Symmetry" command="mirrorX" :on="on" />
    </template>
    <div class="menu">
      <div class="row">
        <span class="label">Mirror</span>
        <div class="mirrors">
          <PushButton
            v-for="{ key, label, what } in MIRRORS"
            :key="key"
            :title="`Mirror ${what}`"
            :aria-label="`Mirror ${label}`"
            :on="symmetry[key]"
            @click="put({ [key]: !symmetry[key] })"
            >{{ label }}</PushButton
          >
        </div>
      </div>
      <SettingSlider
        :meta="settingAt(SymmetrySchema, 'copies')"
        :model-value="symmetry.copies"
        @update:model-value="(copies) => put({ copies })"
      />
      <div class="row">
        <span class="label">Around</span>
        <ChoiceBar
          label="Around"
          :model-value="symmetry.axis"
          :options="AXES.map((axis) => ({ value: axis, label: axis.toUpperCase() }))"
          @update:model-value="(axis) => put({ axis })"
        />
      </div>
      <PushButton :disabled="!on" @click="put({ mirrorX: false, mirrorY: false, mirrorZ: false, copies: 1 })"
        >No symmetry</PushButton
      >
    </div>
  </PopMenu>
</template>

<style scoped>
.mirrors {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
.menu {
  display: grid;
  gap: 8px;
}
</style>
