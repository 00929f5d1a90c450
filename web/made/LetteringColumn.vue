<script setup lang="ts">
/** The blocks of lettering, and the settings of the chosen one. */
import { Copy, Plus, Trash2 } from '@lucide/vue';
import { computed, ref } from 'vue';
import {
  BlockSchema,
  MOST_BLOCK_TEXT,
  MOST_BLOCKS,
  settingsIn,
  SHIPPED_FONTS,
  type Block,
  type Lettering,
} from '#core/settings';
import { postFont } from '../api/fonts';
import { UploadCancelled } from '../api/upload';
import ChoiceBar from '../controls/ChoiceBar.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { sentence } from '../stores/connection';
import { useMadeBench } from '../stores/madeBench';
import { useWork } from '../stores/work';
import { plain } from '../api/plain';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';
import SelectField from '../controls/SelectField.vue';
import WorkLine from '../controls/WorkLine.vue';
import { usePickFiles } from '../controls/pickFiles';

const props = defineProps<{ chosen: string | null }>();
const emit = defineEmits<{ choose: [id: string | null] }>();
const bench = useMadeBench();
const work = useWork();
const doc = computed(() => bench.doc as Lettering);
const block = computed(() => doc.value.blocks.find((b) => b.id === props.chosen) ?? null);
const numbers = settingsIn(BlockSchema);
const pickFont = usePickFiles({ accept: '.ttf,.otf,.woff' }, ([file]) => void takeFont(file));
const fontProblem = ref<string | null>(null);

const own = computed(() => [
  ...new Map(doc.value.blocks.flatMap((b) => (b.font.kind === 'own' ? [[b.font.blob, b.font.name] as const] : []))),
]);
const fonts = computed(() => [
  ...SHIPPED_FONTS.map(({ key, label }) => ({ value: key as string, label: label as string })),
  ...own.value.map(([blob, name]) => ({ value: `own:${blob}`, label: name })),
  { value: 'file', label: 'Font from a file…' },
]);
const fontValue = computed(() =>
  block.value ? (block.value.font.kind === 'own' ? `own:${block.value.font.blob}` : block.value.font.key) : '',
);
const canBold = computed(
  () =>
    block.value?.font.kind === 'shipped' &&
    SHIPPED_FONTS.some((f) => 'bold' in f && block.value!.font.kind === 'shipped' && f.key === block.value!.font.key),
);

function edit(label: string, change: (block: Block) => void, id = props.chosen): void {
  bench.edit(`${label} ${id}`, (made) => {
    const at = made.kind === 'lettering' ? made.blocks.find((b) => b.id === id) : undefined;
    if (at) change(at);
  });
}
function add(of: Block | null): void {
  if (doc.value.blocks.length >= MOST_BLOCKS) return;
  const made = BlockSchema.parse({
    ...(of ? plain(of) : {}),
    id: crypto.randomUUID(),
    ...(of ? { y: Math.min(150, of.y + 8) } : { text: 'New block' }),
  });
  bench.edit(`add ${made.id}`, (m) => {
    if (m.kind === 'lettering') m.blocks.push(made);
  });
  emit('choose', made.id);
}
function remove(id: string): void {
  if (doc.value.blocks.length === 1) return;
  bench.edit(`remove ${id}`, (m) => {
    if (m.kind === 'lettering') m.blocks = m.blocks.filter((b) => b.id !== id);
  });
  emit('choose', doc.value.blocks[0]?.id ?? null);
}
function chooseFont(value: string): void {
  if (value === 'file') return pickFont();
  const found = own.value.find(([blob]) => `own:${blob}` === value);
  edit(
    'font',
    (b) =>
      (b.font = found ? { kind: 'own', blob: found[0], name: found[1] } : { kind: 'shipped', key: value as 'oswald' }),
  );
}
const fontOf = (id: string | null): string => `font of ${id}`;
const reading = computed(() => work.find(fontOf(props.chosen)));
/** The block that was chosen gets it, whichever is when it has been read; of two for one block the later counts. */
async function takeFont(file: File | undefined): Promise<void> {
  const id = props.chosen;
  if (!file || !id) return;
  fontProblem.value = null;
  work.find(fontOf(id))?.cancel();
  try {
    // The server reads and tries it where it can be ended: a damaged font may keep its reader for ever.
    const { blob, name } = await work.run(`Reading “${file.name}”`, fontOf(id), (hand) => postFont(file, hand));
    const here = bench.doc?.kind === 'lettering' && bench.doc.blocks.some((b) => b.id === id);
    if (here) edit('font', (b) => (b.font = { kind: 'own', blob, name }), id);
  } catch (error) {
    if (!(error instanceof UploadCancelled)) fontProblem.value = sentence(error);
  }
}
defineExpose({ takeFont });
</script>

<template>
  <div class="column">
    <div class="heading">
      Blocks
      <ToolButton :icon="Plus" label="Another block" :disabled="doc.blocks.length >= MOST_BLOCKS" @click="add(null)" />
    </div>
    <p v-if="doc.blocks.length >= MOST_BLOCKS" class="muted" role="status">
      {{ MOST_BLOCKS }} blocks are the most a lettering holds; take one away, or begin another lettering.
    </p>
    <ul>
      <li v-for="b in doc.blocks" :key="b.id" :class="{ on: b.id === chosen }">
        <PushButton look="row" class="name" :on="b.id === chosen" @click="emit('choose', b.id)">
          {{ b.text.split('\n')[0] || 'empty' }}
        </PushButton>
        <ToolButton :icon="Copy" :label="`Copy ${b.text}`" help="Copy" @click="add(b)" />
        <ToolButton
          :icon="Trash2"
          :label="`Take ${b.text} away`"
          help="Take it away"
          :disabled="doc.blocks.length === 1"
          @click="remove(b.id)"
        />
      </li>
    </ul>
    <template v-if="block">
      <TextField
        class="text"
        :rows="3"
        aria-label="Text"
        :maxlength="MOST_BLOCK_TEXT"
        :model-value="block.text"
        @update:model-value="edit('text', (b) => (b.text = $event))"
      />
      <p v-if="block.text.length >= MOST_BLOCK_TEXT" class="muted" role="status">
        A block holds {{ MOST_BLOCK_TEXT }} characters; go on in another block.
      </p>
      <SelectField label="Font" :choices="fonts" :model-value="fontValue" @update:model-value="chooseFont" />
      <WorkLine v-if="reading" :work="reading" />
      <p v-if="fontProblem" class="sentence-bad" role="alert">{{ fontProblem }}</p>
      <p v-if="bench.answer?.missing.length" class="sentence-bad" role="alert">
        The font has no
        {{
          bench.answer.missing
            .slice(0, 8)
            .map((c) => `“${c}”`)
            .join(', ')
        }}; left out.
      </p>
      <ChoiceBar
        v-if="canBold"
        label="Weight"
        :model-value="block.weight"
        :options="[
          { value: 'regular', label: 'Regular' },
          { value: 'bold', label: 'Bold' },
        ]"
        @update:model-value="edit('weight', (b) => (b.weight = $event))"
      />
      <ChoiceBar
        label="Alignment"
        :model-value="block.align"
        :options="[
          { value: 'left', label: 'Left' },
          { value: 'centre', label: 'Centre' },
          { value: 'right', label: 'Right' },
        ]"
        @update:model-value="edit('align', (b) => (b.align = $event))"
      />
      <SettingSlider
        v-for="[key, meta] in numbers"
        :key="key"
        :meta="meta"
        :model-value="(block as unknown as Record<string, number>)[key]"
        @update:model-value="(v) => edit(key, (b) => Object.assign(b, { [key]: v }))"
      />
    </template>
    <div class="heading part">Source</div>
    <label class="row"
      ><span class="label">Name</span
      ><TextField
        maxlength="80"
        :model-value="doc.card.name"
        @update:model-value="bench.edit('name', (m) => (m.card.name = $event))"
    /></label>
  </div>
</template>

<style scoped>
.column {
  display: grid;
  grid-auto-rows: max-content;
  gap: 7px;
  align-content: start;
  padding: 12px;
  overflow: auto;
  border-right: 1px solid var(--line-soft);
  --label: 74px;
}
.column .row {
  grid-template-columns: 74px 1fr;
}
li {
  display: flex;
  align-items: center;
  border-radius: var(--r);
}
li.on {
  background: var(--act-wash);
}
li .name {
  flex: 1;
  min-width: 0;
  text-align: left;
  line-height: 1.3;
  color: var(--ink);
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.part {
  margin-top: 6px;
  padding-top: 10px;
  border-top: 1px solid var(--line-soft);
}
</style>
