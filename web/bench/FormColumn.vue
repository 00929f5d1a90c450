<script setup lang="ts">
/** What the brush stamps: alpha, fit, turn, ground, depth, footprint, falloff. */
import { computed } from 'vue';
import type { AlphaHead } from '#core/stored';
import { BrushSchema, paints, paintsOnly, type Brush } from '#core/settings';
import AlphaRing from '../controls/AlphaRing.vue';
import CheckNote from '../controls/CheckNote.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import FalloffEditor from '../controls/FalloffEditor.vue';
import { useLibrary } from '../stores/library';
import AlphaChooser from './AlphaChooser.vue';
import ColourWells from './ColourWells.vue';
import InsideMenu from './InsideMenu.vue';
import SettingList from '../controls/SettingList.vue';
import PushButton from '../controls/PushButton.vue';

const props = defineProps<{ brush: Brush; alpha: AlphaHead | null }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const library = useLibrary();
const missing = computed(() => props.brush.form.alphaId !== null && !props.alpha && library.loaded);

function choose(alpha: AlphaHead | null): void {
  emit('edit', (brush) => {
    brush.form.alphaId = alpha?.id ?? null;
    if (alpha) brush.form.ground = alpha.ground;
  });
}
</script>

<template>
  <div class="column">
    <AlphaChooser :chosen="brush.form.alphaId" none="Plain form" @choose="choose">
      <PushButton look="face" class="picture" title="Choose another alpha">
        <AlphaRing :alpha="alpha" :form="brush.form" />
      </PushButton>
    </AlphaChooser>
    <CheckNote
      v-if="missing"
      sentence="The alpha of this brush is gone; it stamps the plain form."
      mend="Keep the plain form"
      @mend="choose(null)"
    />
    <ColourWells
      v-if="paints(brush) && brush.touch.action !== 'smudge' && brush.touch.action !== 'erase'"
      :brush="brush"
      @edit="(change) => emit('edit', change)"
    />
    <div class="heading">
      Form <small v-if="alpha">relief {{ alpha.relief.toFixed(3) }}</small>
    </div>
    <div class="numbers">
      <SettingList
        :schema="BrushSchema"
        :of="brush"
        :paths="['form.fit', 'form.turn', ...(paintsOnly(brush) ? [] : ['form.ground', 'form.depth'])]"
        @edit="(change) => emit('edit', change)"
      />
    </div>
    <div class="print">
      <ChoiceBar
        label="Footprint"
        :model-value="brush.form.footprint"
        :options="[
          { value: 'round', label: 'Round' },
          { value: 'square', label: 'Square' },
        ]"
        @update:model-value="emit('edit', (b) => (b.form.footprint = $event))"
      />
      <InsideMenu v-if="alpha" :brush="brush" @edit="(change) => emit('edit', change)" />
    </div>
    <FalloffEditor
      :model-value="brush.touch.falloff"
      @update:model-value="emit('edit', (b) => (b.touch.falloff = $event))"
    />
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
}
.picture {
  border: 0;
  padding: 0;
  background: none;
  cursor: pointer;
  width: 100%;
  border-radius: var(--r);
}
.print {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
}
.numbers {
  display: grid;
  gap: 8px;
  --label: 46px;
}
</style>
