<script setup lang="ts">
/** The frame by number, and fitted to the form. */
import { computed } from 'vue';
import { CastSettingsSchema } from '#core/settings';
import NumberField from '../controls/NumberField.vue';
import SettingList from '../controls/SettingList.vue';
import { useSlabBench } from '../stores/slabBench';
import { useSlabCast } from '../stores/slabCast';
import PushButton from '../controls/PushButton.vue';

const bench = useSlabBench();
const cast = useSlabCast();
const frame = computed(() => bench.doc!.cast.frame);
</script>

<template>
  <div class="frame">
    <div class="two">
      <PushButton title="The form, with the margin, inside the frame’s sides" @click="cast.fit('square')">
        Fit to form
      </PushButton>
      <PushButton title="The form, with the margin, inside the reach ring" @click="cast.fit('ring')">
        Fit to ring
      </PushButton>
    </div>
    <SettingList
      :schema="CastSettingsSchema"
      :of="bench.doc!.cast"
      :paths="['margin', 'frame.side', 'frame.turn']"
      @edit="cast.edit"
    />
    <div class="two">
      <NumberField
        label="X"
        unit="body units"
        :model-value="frame.x"
        :min="-8"
        :max="8"
        :step="0.01"
        @update:model-value="cast.edit((c) => (c.frame.x = $event))"
      />
      <NumberField
        label="Y"
        unit="body units"
        :model-value="frame.y"
        :min="-8"
        :max="8"
        :step="0.01"
        @update:model-value="cast.edit((c) => (c.frame.y = $event))"
      />
    </div>
    <PushButton :on="cast.framing" @click="cast.framing = !cast.framing">
      {{ cast.framing ? 'Let the frame go (G)' : 'Take hold of it on the slab (G)' }}
    </PushButton>
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
</style>
