<script setup lang="ts">
/** What the brush stamps: alpha, fit, turn, ground, depth, footprint, falloff. */
import { ElPopover } from 'element-plus';
import { computed, ref, watch } from 'vue';
import { bestFit, checkRingLoss } from '#core/checks';
import { BrushSchema, settingAt, type Alpha, type Brush } from '#core/settings';
import { pictureUrl } from '../api/client';
import AlphaRing from '../parts/AlphaRing.vue';
import { shownAlpha } from '../parts/alphaPictures';
import CheckNote from '../parts/CheckNote.vue';
import ChoiceBar from '../parts/ChoiceBar.vue';
import FalloffEditor from '../parts/FalloffEditor.vue';
import SettingSlider from '../parts/SettingSlider.vue';
import { useLibrary } from '../stores/library';

const props = defineProps<{ brush: Brush; alpha: Alpha | null }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const library = useLibrary();
const choosing = ref(false);

const NUMBERS = ['fit', 'turn', 'ground', 'depth'] as const;
const missing = computed(() => props.brush.form.alphaId !== null && !props.alpha && library.loaded);

function choose(alpha: Alpha | null): void {
  choosing.value = false;
  emit('edit', (brush) => {
    brush.form.alphaId = alpha?.id ?? null;
    if (alpha) brush.form.ground = alpha.ground;
  });
}

/** Ring loss at this fit, and the fit that would lose nothing. Only a round ring cuts corners. */
const loss = ref<{ sentence: string; fit: number } | null>(null);
watch(() => [props.alpha?.blob, props.brush.form.fit, props.brush.form.footprint, props.brush.form.ground] as const, async () => {
  loss.value = null;
  const { alpha, brush } = props;
  if (!alpha || brush.form.footprint !== 'round') return;
  const shown = await shownAlpha(alpha).catch(() => null);
  if (!shown || alpha !== props.alpha) return;
  const picture = { width: shown.size, height: shown.size, data: shown.heights };
  const check = checkRingLoss(picture, brush.form.fit, brush.form.ground);
  loss.value = check.ok ? null : { sentence: check.sentence, fit: bestFit(picture, brush.form.ground) };
}, { immediate: true });
</script>

<template>
  <div class="column">
    <ElPopover v-model:visible="choosing" trigger="click" placement="right-start" :width="316">
      <template #reference>
        <button class="picture" type="button" title="Choose another alpha"><AlphaRing :alpha="alpha" :form="brush.form" /></button>
      </template>
      <div class="alphas">
        <button type="button" :class="{ on: !brush.form.alphaId }" @click="choose(null)"><span class="none" />Plain form</button>
        <button v-for="kept in library.alphas" :key="kept.doc.id" type="button" :class="{ on: kept.doc.id === brush.form.alphaId }" @click="choose(kept.doc)">
          <img :src="pictureUrl('alphas', kept.doc.id, kept.revision)" alt="" />{{ kept.doc.card.name }}
        </button>
      </div>
    </ElPopover>
    <CheckNote v-if="missing" sentence="The alpha of this brush is gone; it stamps the plain form." />
    <CheckNote v-if="loss" :sentence="loss.sentence" :mend="`Set fit to ${loss.fit.toFixed(2)}`" @mend="emit('edit', (b) => { b.form.fit = loss!.fit; })" />
    <div class="heading">Form <small v-if="alpha">relief {{ alpha.relief.toFixed(3) }}</small></div>
    <SettingSlider
      v-for="name in NUMBERS" :key="name" style="--label: 46px" :meta="settingAt(BrushSchema, `form.${name}`)" :model-value="brush.form[name]"
      @update:model-value="(v) => emit('edit', (b) => { b.form[name] = v; })"
    />
    <ChoiceBar
      label="Footprint" :model-value="brush.form.footprint" :options="[{ value: 'round', label: 'Round' }, { value: 'square', label: 'Square' }]"
      @update:model-value="(v) => emit('edit', (b) => { b.form.footprint = v; })"
    />
    <FalloffEditor :model-value="brush.touch.falloff" @update:model-value="(v) => emit('edit', (b) => { b.touch.falloff = v; })" />
  </div>
</template>

<style scoped>
.column { display: grid; gap: 8px; align-content: start; padding: 12px; overflow: auto; border-right: 1px solid var(--line-soft); }
.picture { border: 0; padding: 0; background: none; cursor: pointer; width: 100%; border-radius: var(--r); }
.alphas { display: grid; grid-template-columns: repeat(3, 1fr); gap: 8px; max-height: 330px; overflow: auto; }
.alphas button { border: 1px solid transparent; border-radius: var(--r); background: none; padding: 4px; cursor: pointer; font-size: var(--small); }
.alphas button:hover { background: var(--leaf); }
.alphas button.on { border-color: var(--act); }
.alphas img, .none { display: block; width: 100%; aspect-ratio: 1; border-radius: 4px; background: #000; margin-bottom: 3px; }
.none { background: #fff; border: 1px solid var(--line); border-radius: 50%; }
</style>
