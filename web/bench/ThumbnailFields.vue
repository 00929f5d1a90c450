<script setup lang="ts">
/** The brush's picture: what its stroke is seen on, its light and how near; or a picture of one's own, cropped here. */
import { computed, ref, useTemplateRef } from 'vue';
import { settingAt, BrushSchema, setsParts, type Brush, type Thumbnail } from '#core/settings';
import BrushDisc from '../controls/BrushDisc.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import ColourField from '../controls/ColourField.vue';
import PushButton from '../controls/PushButton.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { usePickFiles } from '../controls/pickFiles';
import { orSay } from '../controls/undoNotice';
import { useFilesDropped } from '../controls/useFilesDropped';
import { pngOf, useProofPicture } from '../proof/proofPicture';
import CropDialog from './CropDialog.vue';

const props = defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const look = computed(() => props.brush.thumbnail);
const proof = useProofPicture();
const cropping = ref<Blob | null>(null);
const PROOF_SIDE = 1024;

function put(change: Partial<Thumbnail>): void {
  emit('edit', (b) => Object.assign(b.thumbnail, change));
}
const pick = usePickFiles({ accept: 'image/png,image/jpeg,image/webp' }, ([file]) => (cropping.value = file));
async function fromProof(): Promise<void> {
  if (proof.open.value) cropping.value = await pngOf(proof.open.value.picture(PROOF_SIDE, PROOF_SIDE, true));
}
const place = useTemplateRef<HTMLElement>('place');
useFilesDropped(place, ({ files }) => {
  const file = [...files].find(({ type }) => /^image\/(png|jpeg|webp)$/.test(type));
  if (file) cropping.value = file;
});
</script>

<template>
  <div class="heading">Picture</div>
  <div ref="place" class="picture">
    <BrushDisc :brush="brush" :size="104" square />
    <div class="ways">
      <ChoiceBar
        v-if="!look.own && !setsParts(brush)"
        label="Seen on"
        :model-value="look.body"
        :options="[
          { value: 'tile', label: 'Tile', help: 'A flat tile, from above' },
          { value: 'ball', label: 'Ball', help: 'A ball, from the front' },
        ]"
        @update:model-value="put({ body: $event })"
      />
      <PushButton small title="PNG, JPEG or WebP; it can be dropped here" @click="pick">From a file…</PushButton>
      <PushButton small title="As the body is seen now" @click="orSay(fromProof)">From the proof…</PushButton>
      <PushButton v-if="look.own" small title="Its own stroke again" @click="put({ own: null })"
        >Draw its stroke</PushButton
      >
    </div>
  </div>
  <template v-if="!look.own && !setsParts(brush)">
    <SettingSlider
      v-for="key in ['light', 'zoom'] as const"
      :key="key"
      :meta="settingAt(BrushSchema, `thumbnail.${key}`)"
      :model-value="look[key]"
      @update:model-value="put({ [key]: $event })"
    />
    <div class="row">
      <span class="label">On colour</span>
      <span class="colour">
        <ColourField
          label="The colour it is seen on; none is clay"
          :model-value="look.ground"
          :offers="[brush.colour.first, brush.colour.second]"
          @update:model-value="put({ ground: $event })"
        />
        <span class="muted">{{ look.ground ?? 'clay' }}</span>
        <PushButton v-if="look.ground" small look="quiet" @click="put({ ground: null })">Clay</PushButton>
      </span>
    </div>
  </template>
  <CropDialog v-model="cropping" @cropped="(own) => put({ own })" />
</template>

<style scoped>
.picture {
  display: flex;
  gap: 12px;
}
.picture :deep(.disc) {
  flex: none;
  border-radius: var(--r);
}
.colour {
  display: flex;
  gap: 8px;
  align-items: center;
}
.ways {
  display: grid;
  flex: 1;
  gap: 6px;
  align-content: start;
}
.ways :deep(.push) {
  margin: 0;
}
</style>
