<script setup lang="ts">
/**
 * Many alphas become brushes at once: which brush they work like, what they are called, author and tags. Closed, the
 * work goes on; what came of it is said, and can be taken back.
 */
import { computed, ref, watch } from 'vue';
import type { AlphaHead } from '#core/stored';
import { STAMP_BASE } from '#core/presets';
import type { Brush } from '#core/settings';
import BrushDisc from '../controls/BrushDisc.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SelectField from '../controls/SelectField.vue';
import { failNotice, undoNotice } from '../controls/undoNotice';
import { pictureUrl } from '../api/client';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import { useWork, type Work } from '../stores/work';
import { brushesFrom } from './brushFrom';
import PushButton from '../controls/PushButton.vue';
import DialogBox from '../controls/DialogBox.vue';
import TextField from '../controls/TextField.vue';
import TagsField from '../controls/TagsField.vue';
import ProgressLine from '../controls/ProgressLine.vue';
import { usePreferences } from '../stores/preferences';

const props = defineProps<{
  alphas: readonly AlphaHead[];
  /** Where they come from; its id stands for the work. */
  from: { id: string; name: string };
  /** Marks that are cast first, where there are any. */
  marks?: { count: number; casting: Work | null; cast: () => Promise<AlphaHead[]> };
}>();
const visible = defineModel<boolean>('visible', { required: true });
const library = useLibrary();
const work = useWork();
const SHOWN = 16;
const patternId = ref(STAMP_BASE.id);
const naming = ref<'alpha' | 'counted'>('alpha');
const stem = ref('');
const author = ref('');
const tags = ref<string[]>([]);
const of = ref<'alphas' | 'marks'>('alphas');
const workId = computed(() => `brushes of ${props.from.id}`);
const going = computed(() => work.find(workId.value) ?? props.marks?.casting ?? null);
const count = computed(() => (of.value === 'marks' ? (props.marks?.count ?? 0) : props.alphas.length));
const said = computed(() => `${count.value} ${count.value === 1 ? 'brush' : 'brushes'}`);
const patterns = computed(() => [...library.brushes].sort((a, b) => a.card.name.localeCompare(b.card.name)));
const sources = computed(() => [
  { value: 'alphas' as const, label: `${props.alphas.length} cast already` },
  { value: 'marks' as const, label: `${props.marks?.count ?? 0} marks, cast first` },
]);

watch(visible, (open) => {
  if (!open) return;
  if (!library.has('brushes', patternId.value)) patternId.value = patterns.value[0]?.id ?? '';
  of.value = props.alphas.length > 0 && props.alphas.length >= (props.marks?.count ?? 0) ? 'alphas' : 'marks';
  stem.value = props.from.name;
  author.value = props.alphas[0]?.card.author || usePreferences().author();
  const [first, ...others] = props.alphas.map(({ card }) => card.tags);
  tags.value = (first ?? []).filter((tag) => others.every((other) => other.includes(tag)));
});

/** All of them, or a sentence: a cast that was cancelled makes no brushes. */
async function castMarks(): Promise<readonly AlphaHead[]> {
  const wanted = count.value;
  const cast = await props.marks!.cast();
  if (cast.length < wanted)
    throw new Error(`${cast.length} of ${wanted} marks were cast; they are kept, and brushes can be made of them.`);
  return cast;
}

async function make(): Promise<void> {
  if (going.value) return;
  const made: Brush[] = [];
  const wish = {
    stem: naming.value === 'alpha' ? '' : stem.value.trim(),
    author: author.value.trim(),
    tags: tags.value.map((tag) => tag.trim().slice(0, 40)).filter(Boolean),
  };
  try {
    const pattern = await library.brush(patternId.value);
    if (!pattern) throw new Error('The brush whose settings they should take is gone. Choose another one.');
    const alphas = of.value === 'marks' ? await castMarks() : props.alphas;
    await work.run(`Making brushes of “${props.from.name}”`, workId.value, (hand) =>
      brushesFrom(alphas, { pattern, ...wish }, hand, made),
    );
    visible.value = false;
  } catch (error) {
    failNotice(`${made.length} of ${count.value} brushes were made. ${sentence(error)}`);
  }
  if (made.length > 0)
    undoNotice(`${made.length} ${made.length === 1 ? 'brush is' : 'brushes are'} in the rack.`, async () => {
      for (const { id } of made) await library.remove('brushes', id);
    });
}
</script>

<template>
  <DialogBox v-model:visible="visible" title="Make brushes" :width-px="460">
    <form id="brushes" class="form" @submit.prevent="make">
      <div v-if="marks && marks.count > 0 && alphas.length > 0" class="row">
        <span class="label">Of</span><ChoiceBar v-model="of" label="Of" :options="sources" />
      </div>
      <div v-if="of === 'alphas'" class="pictures" aria-hidden="true">
        <img
          v-for="alpha in alphas.slice(0, SHOWN)"
          :key="alpha.id"
          :src="pictureUrl('alphas', alpha.id, library.alpha(alpha.id)?.revision ?? 1)"
          alt=""
        />
        <span v-if="alphas.length > SHOWN" class="muted">and {{ alphas.length - SHOWN }} more</span>
      </div>
      <div class="row">
        <span class="label">Work like</span>
        <SelectField
          v-model="patternId"
          label="Work like"
          placeholder="Choose a brush"
          :choices="patterns.map((brush) => ({ value: brush.id, label: brush.card.name }))"
        >
          <template #picture="{ value }"><BrushDisc :brush="library.brushHead(value)!" :size="24" /></template>
        </SelectField>
      </div>
      <div class="row">
        <span class="label">Names</span>
        <ChoiceBar
          v-model="naming"
          label="Names"
          :options="[
            { value: 'alpha', label: 'As the alphas' },
            { value: 'counted', label: 'Counted' },
          ]"
        />
      </div>
      <div v-if="naming === 'counted'" class="row">
        <span class="label">Name</span>
        <TextField v-model="stem" maxlength="70" aria-label="Name" placeholder="The names of the alphas" />
      </div>
      <div class="row">
        <span class="label">Author</span><TextField v-model="author" maxlength="120" aria-label="Author" />
      </div>
      <div class="row">
        <span class="label">Tags</span>
        <TagsField v-model="tags" />
      </div>
      <div v-if="going" class="going" role="status">
        <ProgressLine :share="going.share" :label="going.what" /><span>{{ going.what }}, {{ going.detail }}</span>
      </div>
    </form>
    <template #footer>
      <PushButton v-if="going" @click="going.cancel()">Cancel</PushButton>
      <PushButton v-else @click="visible = false">Cancel</PushButton>
      <PushButton look="main" native-type="submit" form="brushes" :disabled="!!going || count === 0">
        Make {{ said }}
      </PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
.form {
  display: grid;
  gap: 8px;
}
.pictures {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
}
.pictures img {
  width: 44px;
  height: 44px;
  border-radius: 4px;
  background: #000;
}
.going {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 10px;
  align-items: center;
}
</style>
