<script setup lang="ts">
/** Names by a pattern, or tags, for the brushes that are chosen; what comes of it is shown before it is done. */
import { computed, ref, watch } from 'vue';
import { NAME_FIELDS, namesByPattern } from '#core/pack';
import { NameSchema } from '#core/settings';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';
import TagsField from '../controls/TagsField.vue';
import TextField from '../controls/TextField.vue';
import { orSay } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';
import { useManyBrushes } from '../stores/manyBrushes';
import { counted } from '../stores/packs';

const props = defineProps<{ chosen: readonly string[] }>();
const asked = defineModel<'names' | 'tags' | null>({ required: true });
const library = useLibrary();
const many = useManyBrushes();
/** What is done goes on with these, whatever is chosen meanwhile. */
const ids = ref<readonly string[]>([]);
const pattern = ref('{name}');
const adds = ref<string[]>([]);
const drops = ref<string[]>([]);
const visible = computed({ get: () => asked.value !== null, set: () => (asked.value = null) });
watch(asked, (now) => {
  if (now === null) return;
  ids.value = props.chosen;
  pattern.value = '{name}';
  [adds.value, drops.value] = [[], []];
});
const brushes = computed(() => ids.value.map((id) => library.brushHead(id)).filter((brush) => brush !== null));
const names = computed(() => {
  const own = new Set(ids.value);
  const others = [...library.brushes, ...library.drafts.map(({ doc }) => doc)].filter(({ id }) => !own.has(id));
  return namesByPattern(
    pattern.value,
    brushes.value.map(({ id, card }) => ({ id, name: card.name, maker: card.author })),
    others.map(({ card }) => card.name),
  );
});
const nameless = computed(() => names.value.some((name) => !NameSchema.safeParse(name).success));
const carried = computed(() => [...new Set(brushes.value.flatMap(({ card }) => card.tags))].sort());

function go(): void {
  const what = asked.value;
  asked.value = null;
  if (what === 'names') orSay(rename);
  if (what === 'tags') orSay(tag);
}

/** By way of names that nobody has, where two change theirs with each other. */
async function rename(): Promise<void> {
  const [all, wanted] = [brushes.value.map(({ id }) => id), names.value];
  const taken = new Map(brushes.value.map(({ id, card }) => [card.name.toLowerCase(), id]));
  const moved = all.filter((_, i) => brushes.value[i].card.name !== wanted[i]);
  const crossed = moved.some((id) => {
    const other = taken.get(wanted[all.indexOf(id)].toLowerCase());
    return other !== undefined && other !== id;
  });
  if (crossed)
    throw new Error('Some of these names belong to other chosen brushes. Rename in two steps, with another pattern.');
  await many.editCards(
    moved,
    (count) => `${count} renamed.`,
    (card, i) => (card.name = wanted[all.indexOf(moved[i])]),
  );
}

async function tag(): Promise<void> {
  const [on, off] = [[...adds.value], new Set(drops.value)];
  await many.editCards(
    brushes.value.map(({ id }) => id),
    (count) => `${count} tagged.`,
    (card) => (card.tags = [...new Set([...card.tags.filter((one) => !off.has(one)), ...on])]),
  );
}
function flip(name: string): void {
  drops.value = drops.value.includes(name) ? drops.value.filter((one) => one !== name) : [...drops.value, name];
}
</script>

<template>
  <DialogBox
    v-model:visible="visible"
    :title="
      asked === 'tags' ? `Tag ${counted(ids.length).toLowerCase()}` : `Rename ${counted(ids.length).toLowerCase()}`
    "
    :width-px="480"
  >
    <form v-if="asked === 'names'" @submit.prevent="go">
      <TextField v-model="pattern" aria-label="Pattern of the names" maxlength="120" autofocus />
      <div class="fields">
        <PushButton
          v-for="{ field, help } in NAME_FIELDS"
          :key="field"
          small
          :title="help"
          @click="pattern = `${pattern} ${field}`.trim()"
          >{{ field }}</PushButton
        >
      </div>
      <ol class="names" aria-label="New names">
        <li v-for="(brush, i) in brushes" :key="brush.id">
          <span class="was">{{ brush.card.name }}</span><span>{{ names[i] || 'no name' }}</span>
        </li>
      </ol>
      <p v-if="nameless" class="sentence-bad" role="alert">A name is needed for each of them.</p>
    </form>
    <form v-else @submit.prevent>
      <span>Add</span>
      <TagsField v-model="adds" />
      <template v-if="carried.length > 0">
        <span>Take off</span>
        <div class="fields">
          <PushButton v-for="name in carried" :key="name" small :on="drops.includes(name)" @click="flip(name)">{{
            name
          }}</PushButton>
        </div>
      </template>
    </form>
    <template #footer>
      <PushButton @click="asked = null">Cancel</PushButton>
      <PushButton look="main" :disabled="asked === 'names' ? nameless : adds.length + drops.length === 0" @click="go">{{
        asked === 'tags' ? 'Tag' : 'Rename all'
      }}</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
form {
  display: grid;
  gap: 9px;
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.names {
  display: grid;
  gap: 2px;
  max-height: 260px;
  margin: 0;
  padding: 8px 10px;
  overflow-y: auto;
  border-radius: var(--r);
  background: var(--leaf);
  list-style: none;
}
.names li {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.was {
  color: var(--ink-2);
}
</style>
