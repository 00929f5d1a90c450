<script setup lang="ts">
/** A second, repeating picture inside the form. */
import { computed } from 'vue';
import { BrushSchema, type Brush } from '#core/settings';
import { pictureUrl } from '../api/client';
import CheckNote from '../controls/CheckNote.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import { useLibrary } from '../stores/library';
import AlphaChooser from './AlphaChooser.vue';
import SettingList from '../controls/SettingList.vue';
import PushButton from '../controls/PushButton.vue';
import TickBox from '../controls/TickBox.vue';

const props = defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const library = useLibrary();
const stored = computed(() => library.alpha(props.brush.tooth.alphaId));
const gone = computed(() => props.brush.tooth.alphaId !== null && !stored.value && library.loaded);
const HOLDS = [
  { value: 'surface', label: 'Body', help: 'Lies still on the body' },
  { value: 'dab', label: 'Dab', help: 'Goes along with each dab' },
] as const;
const SCALES = [
  { value: 'fixed', label: 'Fixed', help: 'The same size on the body, whatever the brush’s size' },
  { value: 'follows', label: 'With size', help: 'Grows with the dab' },
] as const;
</script>

<template>
  <div class="tab">
    <AlphaChooser
      :chosen="brush.tooth.alphaId"
      none="No tooth"
      @choose="
        (alpha) =>
          edit((b) => {
            b.tooth.alphaId = alpha?.id ?? null;
          })
      "
    >
      <PushButton look="face" class="chosen" title="Choose the tooth’s picture">
        <img v-if="stored" :src="pictureUrl('alphas', stored.id, stored.revision)" alt="" /><span
          v-else
          class="empty"
        />
        {{ stored ? stored.card.name : 'No tooth: choose a picture' }}
      </PushButton>
    </AlphaChooser>
    <CheckNote
      v-if="gone"
      sentence="The tooth’s alpha is gone; the brush works without it."
      mend="Take it off"
      @mend="
        edit((b) => {
          b.tooth.alphaId = null;
        })
      "
    />
    <template v-if="brush.tooth.alphaId">
      <SettingList
        :schema="BrushSchema"
        :of="brush"
        :paths="['tooth.depth', brush.tooth.scale === 'fixed' ? 'tooth.side' : 'tooth.share', 'tooth.turn']"
        @edit="edit"
      />
      <div class="row">
        <span class="label">Held by</span
        ><ChoiceBar
          label="Held by"
          :model-value="brush.tooth.holds"
          :options="HOLDS"
          @update:model-value="edit((b) => (b.tooth.holds = $event))"
        />
      </div>
      <div class="row">
        <span class="label">Scale</span
        ><ChoiceBar
          label="Scale"
          :model-value="brush.tooth.scale"
          :options="SCALES"
          @update:model-value="edit((b) => (b.tooth.scale = $event))"
        />
      </div>
      <div class="row">
        <span class="label" />
        <TickBox :model-value="brush.tooth.invert" @update:model-value="edit((b) => (b.tooth.invert = $event))">
          Invert
        </TickBox>
      </div>
    </template>
  </div>
</template>

<style scoped>
.chosen {
  display: flex;
  align-items: center;
  gap: 10px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--field);
  padding: 4px;
  cursor: pointer;
  text-align: left;
  width: 100%;
}
.chosen:hover {
  border-color: var(--ink-3);
}
img,
.empty {
  width: 40px;
  height: 40px;
  border-radius: 4px;
  background: var(--well);
  display: block;
}
</style>
