<script setup lang="ts">
/** How the brush paints: flow, what covers, how colours drift, run out and mix. */
import { computed } from 'vue';
import { BrushSchema, paintsOnly, type Brush } from '#core/settings';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingList from '../controls/SettingList.vue';
import TickBox from '../controls/TickBox.vue';
import { COLOUR_DRIFT_CHOICES, COVER_CHOICES, FILL_CHOICES, MIXING_CHOICES } from './labels';

const props = defineProps<{ brush: Brush; coloured: boolean }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const only = computed(() => paintsOnly(props.brush));
const action = computed(() => props.brush.touch.action);
const on = computed(() => only.value || props.brush.colour.too);
const lays = computed(() => action.value === 'paint' || !only.value);
const strokes = computed(() => action.value !== 'fill');
const drifts = computed(() => {
  const { hue, chroma, lightness, mix } = props.brush.colour;
  return hue + chroma + lightness + mix > 0;
});
</script>

<template>
  <div class="tab">
    <TickBox
      v-if="!only"
      :model-value="brush.colour.too"
      title="Sculpts and paints in one stroke, from the same picture"
      @update:model-value="(too: boolean) => edit((b) => (b.colour.too = too))"
    >
      Paint too
    </TickBox>
    <template v-if="on">
      <SettingList :schema="BrushSchema" :of="brush" :paths="['colour.flow']" @edit="edit" />
      <SettingList
        v-if="action !== 'smudge'"
        :schema="BrushSchema"
        :of="brush"
        :paths="['colour.opacity']"
        @edit="edit"
      />
      <div v-if="action === 'fill'" class="row">
        <span class="label">Fills</span>
        <ChoiceBar
          label="Fills"
          :model-value="brush.colour.fills"
          :options="FILL_CHOICES"
          @update:model-value="edit((b) => (b.colour.fills = $event))"
        />
      </div>
      <SettingList
        v-if="action === 'fill' && brush.colour.fills === 'colour'"
        :schema="BrushSchema"
        :of="brush"
        :paths="['colour.tolerance']"
        @edit="edit"
      />
      <div v-if="strokes && brush.form.alphaId" class="row">
        <span class="label">Covers by</span>
        <ChoiceBar
          label="Covers by"
          :model-value="brush.colour.cover"
          :options="COVER_CHOICES.filter(({ value }) => value !== 'clear' || coloured)"
          @update:model-value="edit((b) => (b.colour.cover = $event))"
        />
      </div>
      <TickBox
        v-if="lays && coloured"
        :model-value="brush.colour.own"
        title="Paints the colours that the picture was cast with"
        @update:model-value="(own: boolean) => edit((b) => (b.colour.own = own))"
      >
        The picture’s own colours
      </TickBox>
      <SettingList v-if="strokes" :schema="BrushSchema" :of="brush" :paths="['colour.hardness']" @edit="edit" />
      <template v-if="lays">
        <SettingList
          :schema="BrushSchema"
          :of="brush"
          :paths="['colour.hue', 'colour.chroma', 'colour.lightness', 'colour.mix']"
          @edit="edit"
        />
        <div class="row">
          <span class="label">Drifts</span>
          <ChoiceBar
            label="Colour drifts"
            :model-value="brush.colour.per"
            :options="COLOUR_DRIFT_CHOICES"
            :disabled="!drifts"
            @update:model-value="edit((b) => (b.colour.per = $event))"
          />
        </div>
        <SettingList
          :schema="BrushSchema"
          :of="brush"
          :paths="[
            ...(brush.colour.per === 'along' ? ['colour.length'] : []),
            'colour.pooling',
            'colour.load',
            'colour.pickup',
          ]"
          @edit="edit"
        />
      </template>
      <div v-if="lays || action === 'smudge'" class="row">
        <span class="label">Mixes like</span>
        <ChoiceBar
          label="Mixes like"
          :model-value="brush.colour.mixing"
          :options="MIXING_CHOICES"
          @update:model-value="edit((b) => (b.colour.mixing = $event))"
        />
      </div>
    </template>
  </div>
</template>
