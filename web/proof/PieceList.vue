<script setup lang="ts">
/** The pieces on the body, by their parts; what is done to the chosen ones, and what strokes go on. */
import {
  Combine,
  Copy,
  Download,
  Eye,
  EyeOff,
  FlipHorizontal2,
  Group,
  ListPlus,
  Minus,
  Move3d,
  PackagePlus,
  Plus,
  Replace,
  Rotate3d,
  RotateCcw,
  RotateCw,
  Scale3d,
  Trash2,
} from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import type { Piece } from '#core/scene';
import { spaced } from '#core/words';
import PartChooser from '../bench/PartChooser.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import ColourField from '../controls/ColourField.vue';
import MeshFileButtons from '../controls/MeshFileButtons.vue';
import NumberField from '../controls/NumberField.vue';
import PopMenu from '../controls/PopMenu.vue';
import WorkLine from '../controls/WorkLine.vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import type { StrokesOn } from '../stores/pieceChoice';
import type { GizmoHand } from '../viewport/gizmo';
import type { ProofPieces } from './useProofPieces';

const props = defineProps<{ desk: ProofPieces }>();
const desk = props.desk;
const { hands, strokes } = desk;
const pieces = desk.listed;
const chosen = hands.chosen;

/** By their parts, and by their names where they have names of their own. */
const rows = computed(() => {
  const out = new Map<string, { name: string; ids: string[]; chosen: number }>();
  for (const { id, partId, name } of pieces.value) {
    const key = `${partId} ${name}`;
    const row = out.get(key) ?? { name, ids: [], chosen: 0 };
    row.ids.push(id);
    if (chosen.value.has(id)) row.chosen++;
    out.set(key, row);
  }
  return [...out].map(([key, row]) => ({ key, ...row })).sort((a, b) => a.name.localeCompare(b.name));
});
function chooseRow(ids: readonly string[], e: MouseEvent): void {
  hands.choose(e.shiftKey ? [...chosen.value, ...ids] : ids);
}
/** The one that is chosen, where it is one alone. */
const only = computed<Piece | null>(() => {
  const [id, ...others] = chosen.value;
  return others.length === 0 ? (pieces.value.find((piece) => piece.id === id) ?? null) : null;
});
const typed = ref('');
watch(only, (piece) => (typed.value = piece?.name ?? ''), { immediate: true });
/** What a machine without much memory should hear of in time. */
const heavy = computed(() => {
  const count = pieces.value.length;
  const own = pieces.value.reduce((sum, { shape }) => sum + (shape?.byteLength ?? 0), 0);
  const roomy = (navigator as { deviceMemory?: number }).deviceMemory ?? 8;
  if (count < ROOMY_PIECES * Math.min(1, roomy / 8) && own < (roomy * 2 ** 30) / 32) return null;
  return `${spaced(count)} pieces are many for this machine. Merge some into the body, or delete what isn’t seen.`;
});
const hidden = computed(() => pieces.value.filter((piece) => piece.hidden).length);

const NUMBERS = [
  ...(['x', 'y', 'z'] as const).map((key) => ({
    key,
    label: key,
    unit: 'body units',
    min: -20,
    max: 20,
    step: 0.01,
    digits: 3,
  })),
  { key: 'turn', label: 'Turn', unit: '°', min: -360, max: 360, step: 1, digits: 1 },
  { key: 'size', label: 'Size', unit: 'body units', min: 0.001, max: 10, step: 0.005, digits: 3 },
] as const;
/** So many are drawn with ease by a machine of 8 GB. */
const ROOMY_PIECES = 2000;
const HANDLES: { hand: GizmoHand; label: string; icon: typeof Move3d; help: string }[] = [
  { hand: 'move', label: 'Move freely', icon: Move3d, help: 'Handles that move off the surface' },
  { hand: 'turn', label: 'Turn freely', icon: Rotate3d, help: 'Handles that turn any way' },
  { hand: 'size', label: 'Size freely', icon: Scale3d, help: 'Handles that stretch each way by itself' },
];
function pickHandles(hand: GizmoHand): void {
  hands.handles.value = hands.handles.value === hand ? null : hand;
  if (!hands.on.value) desk.toggle();
}

const ON: { value: StrokesOn; label: string; help: string }[] = [
  { value: 'body', label: 'Body', help: 'Strokes go on the body' },
  { value: 'chosen', label: 'Chosen', help: 'Strokes go on the chosen pieces, and on nothing else' },
  { value: 'all', label: 'All', help: 'Strokes go on all pieces, and not on the body' },
];
const OFFERS = ['#b5654a', '#c9a15a', '#7f8f5a', '#5d7f8a', '#7a6a8c', '#d9d2c4', '#4a4642'];
const colour = computed({
  get: () => {
    const all = new Set([...chosen.value].map((id) => pieces.value.find((piece) => piece.id === id)?.colour ?? null));
    return all.size === 1 ? [...all][0] : null;
  },
  set: (next: string | null) => hands.colour(next),
});
</script>

<template>
  <aside class="pieces" aria-label="Pieces on the body">
    <PushButton
      small
      :on="hands.on.value"
      title="A press chooses a piece, a drag moves it along the surface (G)"
      @click="desk.toggle()"
    >
      {{ pieces.length }} {{ pieces.length === 1 ? 'piece' : 'pieces' }}
    </PushButton>
    <ul>
      <li v-for="row in rows" :key="row.key">
        <PushButton
          look="row"
          :on="row.chosen > 0"
          :title="`Choose all ${row.ids.length} of ${row.name}; with Shift beside what is chosen`"
          @click="(e: MouseEvent) => chooseRow(row.ids, e)"
        >
          <span class="name">{{ row.name }}</span><small>{{
            row.chosen > 0 ? `${row.chosen} of ${row.ids.length}` : row.ids.length
          }}</small>
        </PushButton>
      </li>
    </ul>
    <TextField
      v-if="only"
      :key="only.id"
      v-model="typed"
      aria-label="Name of the piece"
      maxlength="80"
      @change="hands.rename(typed)"
    />
    <div v-if="only" class="numbers">
      <NumberField
        v-for="one in NUMBERS"
        :key="one.key"
        :label="one.label"
        :unit="one.unit"
        :min="one.min"
        :max="one.max"
        :step="one.step"
        :model-value="Number(hands.numbersOf(only)[one.key].toFixed(one.digits))"
        @update:model-value="(to: number) => hands.setNumber(one.key, to)"
      />
    </div>
    <ToolGroup v-if="chosen.size > 0" label="What is done to the chosen pieces" class="acts">
      <ToolButton
        v-for="one in HANDLES"
        :key="one.hand"
        :icon="one.icon"
        :label="one.label"
        :help="one.help"
        :on="hands.on.value && hands.handles.value === one.hand"
        @click="pickHandles(one.hand)"
      />
      <ToolButton :icon="Minus" label="Smaller" command="smaller" @click="hands.smaller()" />
      <ToolButton :icon="Plus" label="Larger" command="larger" @click="hands.larger()" />
      <ToolButton :icon="RotateCcw" label="Turn left" command="turnLeft" @click="hands.left()" />
      <ToolButton :icon="RotateCw" label="Turn right" command="turnRight" @click="hands.right()" />
      <ToolButton :icon="Copy" label="Copy" help="Copy beside" command="copy" @click="hands.copy()" />
      <ToolButton
        :icon="FlipHorizontal2"
        label="Mirror"
        help="A copy on the other side, left and right"
        @click="hands.mirror()"
      />
      <PartChooser @choose="([id]) => id && desk.replace(id)">
        <ToolButton :icon="Replace" label="Replace" help="Another part in their place" />
      </PartChooser>
      <ColourField v-model="colour" label="Colour of the piece" :offers="OFFERS" />
      <ToolButton
        v-if="only"
        :icon="PackagePlus"
        label="Keep as a part"
        help="Keep this piece as a part of its own"
        @click="desk.keepAsPart(only)"
      />
      <ToolButton
        v-if="only && desk.setsParts()"
        :icon="ListPlus"
        label="Add to the brush"
        help="As a part, into the set of the brush at hand"
        @click="desk.addToBrush(only)"
      />
      <PopMenu :width="190">
        <template #reference
          ><ToolButton :icon="Download" label="Download" help="The chosen pieces as a file, in millimetres"
        /></template>
        <MeshFileButtons @write="desk.download" />
      </PopMenu>
      <ToolButton :icon="EyeOff" label="Hide" command="hide" @click="hands.hide()" />
      <ToolButton :icon="Trash2" label="Delete" command="remove" @click="hands.remove()" />
    </ToolGroup>
    <p v-if="heavy" class="warn" role="status">{{ heavy }}</p>
    <PushButton v-if="hidden > 0" small @click="desk.showHidden()"
      ><Eye :size="14" /> Show {{ hidden }} hidden</PushButton
    >
    <WorkLine v-if="desk.merging.value" :work="desk.merging.value" />
    <template v-else>
      <PushButton
        small
        title="A boolean union: one closed mesh. Strokes made before are no longer replayed"
        @click="desk.merge('merge')"
      >
        <Combine :size="14" /> {{ chosen.size > 0 ? 'Merge the chosen' : 'Merge all' }}
      </PushButton>
      <PushButton
        small
        title="Their faces become the body’s as they are, open ones too: to be painted with it, on one texture"
        @click="desk.merge('join')"
      >
        <Group :size="14" /> {{ chosen.size > 0 ? 'Join the chosen' : 'Join all' }}
      </PushButton>
    </template>
    <div class="target">
      <span class="label">Strokes on</span>
      <ChoiceBar v-model="strokes.wanted.value" label="What strokes go on" :options="ON" />
      <p v-if="strokes.wanted.value === 'chosen' && chosen.size === 0" class="muted">
        None is chosen, so strokes go on the body.
      </p>
      <p v-else-if="desk.paints() && strokes.on.value" class="warn" role="status">
        Paint goes on the body’s texture. Join these pieces to the body, and they are painted with it.
      </p>
    </div>
  </aside>
</template>

<style scoped>
.pieces {
  position: absolute;
  left: 12px;
  top: 42px;
  z-index: 2;
  width: 176px;
  max-height: calc(100% - 108px);
  overflow: auto;
  display: grid;
  gap: 6px;
  padding: 8px;
  border-radius: var(--r);
  background: color-mix(in srgb, var(--page) 94%, transparent);
}
li :deep(button) {
  width: 100%;
  flex-wrap: nowrap;
  gap: 6px;
}
.name {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
small {
  margin-left: auto;
  color: var(--ink-2);
  white-space: nowrap;
}
.numbers {
  --name: 28px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
}
.numbers > :last-child {
  grid-column: 1 / -1;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
.warn {
  color: var(--warn);
  font-size: var(--small);
}
.target {
  display: grid;
  gap: 4px;
}
</style>
