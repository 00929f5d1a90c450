<script setup lang="ts">
/** The rack: every brush, its picture and card. Opens, copies, renames, deletes; drafts wear a mark. */
import ScrollArea from '../controls/ScrollArea.vue';
import { Search } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { BASE_BRUSHES } from '#core/presets';
import type { BrushHead } from '#core/stored';
import { NameSchema } from '#core/settings';
import RackCard from '../bench/RackCard.vue';
import TopBar from '../controls/TopBar.vue';
import { failNotice, undoNotice } from '../controls/undoNotice';
import { useBrushBench } from '../stores/brushBench';
import { sentence } from '../stores/connection';
import { useLibrary } from '../stores/library';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import DialogBox from '../controls/DialogBox.vue';

const router = useRouter();
const library = useLibrary();
const bench = useBrushBench();
const wanted = ref('');
const tag = ref('');
const renaming = ref<BrushHead | null>(null);
const newName = ref('');
const nameProblem = ref<string | null>(null);

void library.ready().then(() => library.loadDrafts());

interface Entry {
  brush: BrushHead;
  base: boolean;
  unsaved: boolean;
  waiting: boolean;
}
const entries = computed<Entry[]>(() => {
  const drafts = new Map(library.drafts.map((d) => [d.doc.id, d]));
  const saved = library.brushes.map((k) => {
    const draft = drafts.get(k.id);
    return { brush: draft?.doc ?? k, base: k.base, unsaved: draft !== undefined, waiting: draft?.waiting ?? false };
  });
  const fresh = library.drafts
    .filter((d) => !library.has('brushes', d.doc.id))
    .map((d) => ({ brush: d.doc, base: false, unsaved: true, waiting: d.waiting }));
  return [...fresh.reverse(), ...saved];
});
const tags = computed(() => [...new Set(entries.value.flatMap((e) => e.brush.card.tags))].sort());
const shown = computed(() => {
  const words = wanted.value.trim().toLowerCase();
  return entries.value.filter(
    ({ brush: { card } }) =>
      (tag.value === '' || card.tags.includes(tag.value)) &&
      (words === '' || `${card.name} ${card.author} ${card.tags.join(' ')}`.toLowerCase().includes(words)),
  );
});
const own = computed(() => shown.value.filter((e) => !e.base));
const base = computed(() => shown.value.filter((e) => e.base));
/** Cards that are laid out: more as one comes to the end of them. */
const CARDS = 120;
const count = ref(CARDS);
const laid = computed(() => own.value.slice(0, count.value));
const all = computed(() => laid.value.length === own.value.length);
watch([wanted, tag], () => (count.value = CARDS));
function more(): void {
  if (!all.value) count.value += CARDS;
}

function open(brush: { id: string }): void {
  void router.push(`/bench/brush/${brush.id}`);
}

async function fresh(): Promise<void> {
  open(await library.copyBrush(BASE_BRUSHES[0], 'New brush'));
}

async function copy({ id, card }: BrushHead): Promise<void> {
  try {
    const brush = await library.brush(id);
    if (brush) open(await library.copyBrush(brush));
    else
      failNotice(`“${card.name}” can’t be copied: the server can’t be reached, or it was deleted in another window.`);
  } catch (error) {
    failNotice(sentence(error));
  }
}

function askName(brush: BrushHead): void {
  renaming.value = brush;
  newName.value = brush.card.name;
  nameProblem.value = null;
}

/** A saved brush is renamed at once; a draft's name goes on being a draft's. */
async function rename(): Promise<void> {
  const brush = renaming.value;
  if (!brush) return;
  const name = NameSchema.safeParse(newName.value);
  if (!name.success) {
    nameProblem.value = name.error.issues[0].message;
    return;
  }
  const old = brush.card.name;
  try {
    await putName(brush.id, name.data);
    renaming.value = null;
    if (old !== name.data) undoNotice(`“${old}” is now “${name.data}”.`, () => putName(brush.id, old));
  } catch (error) {
    nameProblem.value = sentence(error);
  }
}

async function putName(id: string, name: string): Promise<void> {
  await bench.open(id);
  const stored = bench.saved;
  await bench.edit((brush) => {
    brush.card.name = name;
  });
  await bench.keepDraft();
  if (!stored) return;
  const hadDraft =
    JSON.stringify({ ...bench.doc, card: { ...bench.doc?.card, name: stored.doc.card.name } }) !==
    JSON.stringify(stored.doc);
  if (hadDraft) return;
  if (!(await bench.save()) && bench.nameProblem) {
    const message = bench.nameProblem;
    await bench.revert();
    throw new Error(message);
  }
}

async function remove(entry: Entry): Promise<void> {
  const { brush } = entry;
  const belt = [...library.beltIds];
  try {
    if (library.has('brushes', brush.id)) {
      await library.remove('brushes', brush.id);
      undoNotice(`“${brush.card.name}” deleted.`, async () => {
        await library.restore('brushes', brush.id);
        await library.setBelt(belt);
      });
    } else {
      const draft = library.drafts.find((d) => d.doc.id === brush.id);
      await library.dropDraft(brush.id);
      undoNotice(`Draft “${brush.card.name}” thrown away.`, async () => {
        if (draft) await library.keepDraft(draft);
      });
    }
  } catch (error) {
    failNotice(sentence(error));
  }
}

async function toBelt(brush: BrushHead): Promise<void> {
  const on = library.beltIds.includes(brush.id);
  try {
    await library.setBelt(on ? library.beltIds.filter((id) => id !== brush.id) : [...library.beltIds, brush.id]);
  } catch (error) {
    failNotice(sentence(error));
  }
}
</script>

<template>
  <div class="place">
    <TopBar
      ><template #end><PushButton look="main" @click="fresh">New brush</PushButton></template></TopBar
    >
    <ScrollArea @near-end="more">
      <div class="head">
        <h1>Rack</h1>
        <TextField
          v-model="wanted"
          class="search"
          :prefix-icon="Search"
          type="search"
          placeholder="Name, author or tag"
          aria-label="Search the rack"
        />
        <div class="tags">
          <PushButton v-for="t in tags" :key="t" class="tag" :on="tag === t" @click="tag = tag === t ? '' : t">
            {{ t }}
          </PushButton>
        </div>
      </div>
      <p v-if="library.failed" class="note">{{ library.failed }}</p>
      <div v-for="row in library.skipped" :key="row.id" class="note" role="alert">
        “{{ row.name }}” is left out. {{ row.reason }}
      </div>
      <p v-if="!library.loaded" class="muted">Loading the rack…</p>
      <template v-else>
        <p v-if="shown.length === 0" class="none">
          {{
            entries.length === 0
              ? 'The rack is empty. Sculpt a slab and cast it, or begin with a new brush.'
              : 'No brush fits this search.'
          }}
        </p>
        <ul v-if="own.length" class="grid">
          <RackCard
            v-for="entry in laid"
            :key="entry.brush.id"
            :brush="entry.brush"
            :base="false"
            :unsaved="entry.unsaved"
            :waiting="entry.waiting"
            :belted="library.beltIds.includes(entry.brush.id)"
            @open="open(entry.brush)"
            @copy="copy(entry.brush)"
            @rename="askName(entry.brush)"
            @remove="remove(entry)"
            @belt="toBelt(entry.brush)"
          />
        </ul>
        <p v-if="!all" class="none">{{ own.length - laid.length }} more below</p>
        <template v-else-if="base.length">
          <h2>Base brushes <small>stay as they are; the first change makes a copy</small></h2>
          <ul class="grid">
            <RackCard
              v-for="entry in base"
              :key="entry.brush.id"
              :brush="entry.brush"
              base
              :unsaved="false"
              :waiting="false"
              :belted="library.beltIds.includes(entry.brush.id)"
              @open="open(entry.brush)"
              @copy="copy(entry.brush)"
              @belt="toBelt(entry.brush)"
            />
          </ul>
        </template>
      </template>
    </ScrollArea>
    <DialogBox :visible="renaming !== null" title="Rename" :width-px="380" @update:visible="renaming = null">
      <form @submit.prevent="rename">
        <TextField v-model="newName" :bad="!!nameProblem" maxlength="80" aria-label="New name" autofocus />
        <p v-if="nameProblem" class="sentence-bad" role="alert">{{ nameProblem }}</p>
      </form>
      <template #footer>
        <PushButton @click="renaming = null">Cancel</PushButton>
        <PushButton look="main" @click="rename">Rename</PushButton>
      </template>
    </DialogBox>
  </div>
</template>

<style scoped src="./rack.css"></style>
