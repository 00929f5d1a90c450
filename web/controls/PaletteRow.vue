<script setup lang="ts">
/** The palette over the belt: a press takes a colour as the first one, with Shift as the second; a drag orders them. */
import { MoreHorizontal, Plus } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { cssOf, hexOf, readCss, readStrip, readTokens, srgbOfHex, stripOf, tokensOf, type Palette } from '#core/colour';
import { usePalettes } from '../stores/palettes';
import PalettePicture from './PalettePicture.vue';
import PopMenu from './PopMenu.vue';
import PushButton from './PushButton.vue';
import SelectField from './SelectField.vue';
import TextField from './TextField.vue';
import ToolButton from './ToolButton.vue';
import { usePickFiles } from './pickFiles';
import { pngStrip, stripOfPicture } from './paletteStrip';
import { saveFile } from './saveFile';
import { orSay, trying, undoNotice } from './undoNotice';

const props = defineProps<{
  first: string;
  second: string;
  /** What is painted now, as a picture to take colours from. */
  painted?: (() => Promise<File | null>) | undefined;
}>();
const emit = defineEmits<{ first: [colour: string]; second: [colour: string] }>();
const palettes = usePalettes();
const menu = ref(false);
const fromPicture = ref(false);
type Groups = NonNullable<typeof palettes.open>['groups'];
/** As they are dragged; what is dropped is kept. */
const groups = ref<Groups>([]);
watch(
  () => palettes.open,
  (now) => (groups.value = toPlain(now?.groups ?? [])),
  { immediate: true },
);
function toPlain<T>(of: T): T {
  return JSON.parse(JSON.stringify(of)) as T;
}
/** Found by the names of their colours and groups too. */
const choices = computed(() =>
  palettes.all.map(({ id, card, groups: own }) => ({
    value: id,
    label: card.name,
    words: own.flatMap(({ name, colours }) => [name, ...colours.flatMap((one) => [one.name, one.colour])]).join(' '),
  })),
);
const has = computed(() => palettes.colours.some(({ colour }) => colour === props.first));

function pick(colour: string, e: MouseEvent): void {
  palettes.chose(colour);
  if (e.shiftKey) emit('second', colour);
  else emit('first', colour);
}
function ordered(): void {
  trying(() => palettes.edit((palette) => (palette.groups = toPlain(groups.value))));
}
function addFirst(): void {
  trying(() => palettes.edit(({ groups: all }) => all.at(-1)!.colours.push({ colour: props.first, name: '' })));
}
function takeAway(group: number, index: number): void {
  const before = toPlain(palettes.open?.groups ?? []);
  const { colour } = before[group].colours[index];
  trying(() => palettes.edit(({ groups: all }) => all[group].colours.splice(index, 1)));
  undoNotice(`${colour} removed from the palette.`, () => {
    palettes.edit((palette) => (palette.groups = before));
    return Promise.resolve();
  });
}
function rename(name: string): void {
  if (!name.trim() || !palettes.open) return;
  const free = palettes.freeName(name, palettes.open.id);
  trying(() => palettes.edit(({ card }) => (card.name = free)));
}
function nameFirst(name: string): void {
  trying(() =>
    palettes.edit(({ groups: all }) => {
      for (const one of all.flatMap((group) => group.colours)) if (one.colour === props.first) one.name = name.trim();
    }),
  );
}
function newGroup(): void {
  trying(() => palettes.edit(({ groups: all }) => all.push({ name: `Group ${all.length + 1}`, colours: [] })));
}
async function remove(): Promise<void> {
  const name = palettes.open?.card.name ?? '';
  undoNotice(`“${name}” deleted.`, await palettes.remove());
  menu.value = false;
}

const asPalette = (): Palette => ({
  name: palettes.open?.card.name ?? 'Palette',
  colours: (palettes.open?.groups ?? []).flatMap((group) =>
    group.colours.map(({ colour, name }) => ({ name: name || colour, colour: srgbOfHex(colour)!, group: group.name })),
  ),
});
async function write(kind: 'json' | 'css' | 'png'): Promise<void> {
  const palette = asPalette();
  if (palette.colours.length === 0) throw new Error('There is no colour in this palette yet.');
  const file =
    kind === 'json'
      ? new Blob([tokensOf(palette)], { type: 'application/json' })
      : kind === 'css'
        ? new Blob([cssOf(palette)], { type: 'text/css' })
        : await pngStrip(stripOf(palette, 32));
  saveFile(`${palette.name}.${kind === 'json' ? 'tokens.json' : kind}`, file);
}
async function read(file: File): Promise<void> {
  const name = file.name.replace(/(\.tokens)?\.[^.]+$/, '');
  const picture = file.type.startsWith('image/');
  const found = picture
    ? readStrip(await stripOfPicture(file))
    : /\.css$/i.test(file.name)
      ? readCss(await file.text())
      : readTokens(await file.text());
  palettes.add(
    found.name === 'Palette' ? name : found.name,
    found.colours.map((one) => ({
      name: picture ? '' : one.name.trim(),
      colour: hexOf(one.colour),
      group: one.group,
    })),
  );
}
const open = usePickFiles({ accept: '.json,.css,.png' }, ([file]) => file && orSay(() => read(file)));
const FILES = [
  { kind: 'json', label: 'Tokens', help: 'Design tokens, JSON as the W3C group writes them' },
  { kind: 'css', label: 'CSS', help: 'Custom properties' },
  { kind: 'png', label: 'PNG', help: 'A strip of squares, one a colour' },
] as const;
</script>

<template>
  <div class="palette" aria-label="Palette">
    <SelectField
      v-if="palettes.all.length > 0"
      class="which"
      label="Palette"
      :choices="choices"
      :model-value="palettes.open?.id ?? ''"
      @update:model-value="(id) => (palettes.openId = id)"
    />
    <span v-else class="muted">Palette</span>
    <div class="wells">
      <template v-for="(group, g) in groups" :key="g">
        <span v-if="group.name" class="group">{{ group.name }}</span>
        <VueDraggable v-model="group.colours" class="row" group="colours" :animation="120" @end="ordered">
          <PushButton
            v-for="(one, i) in group.colours"
            :key="`${one.colour} ${i}`"
            look="face"
            class="well"
            :class="{ first: one.colour === first, second: one.colour === second }"
            :style="{ background: one.colour }"
            :title="`${one.name || one.colour}: the first colour; with Shift the second. Alt removes it`"
            :aria-label="one.name || one.colour"
            @click="(e: MouseEvent) => (e.altKey ? takeAway(g, i) : pick(one.colour, e))"
          />
        </VueDraggable>
      </template>
      <ToolButton
        :icon="Plus"
        label="Add the first colour"
        :help="has ? 'The first colour is in the palette' : 'Put the first colour into the palette'"
        :disabled="has"
        @click="addFirst"
      />
    </div>
    <div v-if="palettes.history.length > 0" class="history" aria-label="Recent colours">
      <PushButton
        v-for="colour in palettes.history.slice(0, 8)"
        :key="colour"
        look="face"
        class="well small"
        :style="{ background: colour }"
        :title="`${colour}, recent`"
        :aria-label="`Recent: ${colour}`"
        @click="(e: MouseEvent) => pick(colour, e)"
      />
    </div>
    <PopMenu v-model:visible="menu" placement="top-end" :width="270">
      <template #reference><ToolButton :icon="MoreHorizontal" label="Palettes" /></template>
      <div class="menu">
        <TextField
          v-if="palettes.open"
          aria-label="Name of the palette"
          maxlength="74"
          :model-value="palettes.open.card.name"
          @change="rename"
        />
        <TextField
          v-if="has"
          aria-label="Name of the first colour"
          maxlength="80"
          :placeholder="`Name of ${first}`"
          :model-value="palettes.colours.find(({ colour }) => colour === first)?.name ?? ''"
          @change="nameFirst"
        />
        <div class="two">
          <PushButton small @click="trying(() => palettes.add('Palette', []))">New palette</PushButton>
          <PushButton small @click="newGroup">New group</PushButton>
          <PushButton small title="A few colours of a photograph, or those you click" @click="fromPicture = true">
            From a picture…
          </PushButton>
          <PushButton small title="Design tokens, CSS, or a PNG strip of squares" @click="open"
            >Open a file…</PushButton
          >
        </div>
        <div class="three">
          <PushButton
            v-for="file in FILES"
            :key="file.kind"
            small
            :title="file.help"
            @click="orSay(() => write(file.kind))"
          >
            {{ file.label }}
          </PushButton>
        </div>
        <PushButton v-if="palettes.open" small @click="orSay(remove)">Delete this palette</PushButton>
      </div>
    </PopMenu>
    <PalettePicture
      v-model:visible="fromPicture"
      :painted="painted"
      @add="(name, own) => trying(() => palettes.add(name, own))"
    />
  </div>
</template>

<style scoped>
.palette {
  display: flex;
  align-items: center;
  gap: 10px;
  height: 38px;
  padding: 0 14px;
  border-top: 1px solid var(--line);
  background: var(--leaf);
}
.which {
  width: 150px;
  flex: none;
}
.wells {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 0 5px;
  height: 100%;
  overflow-x: auto;
}
.row {
  display: flex;
  gap: 5px;
  min-width: 12px;
  min-height: 24px;
}
.group {
  font-size: var(--small);
  color: var(--ink-2);
}
.well {
  flex: none;
  width: 24px;
  height: 24px;
  border-radius: 4px;
  border: 1px solid rgb(0 0 0 / 22%);
}
.well.small {
  width: 16px;
  height: 16px;
  border-radius: 50%;
}
.well.first {
  box-shadow:
    0 0 0 2px var(--field),
    0 0 0 4px var(--act);
}
.well.second {
  box-shadow:
    0 0 0 2px var(--field),
    0 0 0 3px var(--ink-2);
}
.history {
  display: flex;
  gap: 3px;
  flex: none;
}
.menu {
  display: grid;
  gap: 8px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px;
}
@media (pointer: coarse) {
  .palette {
    height: 54px;
  }
  .well {
    width: 44px;
    height: 44px;
  }
}
</style>
