<script setup lang="ts">
/** The pieces on the body, by their parts; what is done to the chosen ones. */
import {
  Copy,
  Eye,
  EyeOff,
  FlipHorizontal2,
  Minus,
  PackagePlus,
  Plus,
  Replace,
  RotateCcw,
  RotateCw,
  Trash2,
} from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import type { Piece } from '#core/scene';
import PushButton from '../controls/PushButton.vue';
import PartChooser from '../bench/PartChooser.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';

const props = defineProps<{ pieces: readonly Piece[]; chosen: ReadonlySet<string>; on: boolean }>();
defineEmits<{
  toggle: [];
  choose: [partId: string];
  smaller: [];
  larger: [];
  left: [];
  right: [];
  copy: [];
  mirror: [];
  replace: [partId: string];
  rename: [name: string];
  part: [piece: Piece];
  hide: [];
  show: [];
  remove: [];
}>();
const rows = computed(() => {
  const out = new Map<string, { partId: string; name: string; count: number; chosen: number; hidden: number }>();
  for (const { id, partId, name, hidden } of props.pieces) {
    const row = out.get(partId) ?? { partId, name, count: 0, chosen: 0, hidden: 0 };
    row.count++;
    if (props.chosen.has(id)) row.chosen++;
    if (hidden) row.hidden++;
    out.set(partId, row);
  }
  return [...out.values()];
});
/** The one that is chosen, where it is one alone. */
const only = computed(() => {
  const [id, ...others] = props.chosen;
  return others.length === 0 ? (props.pieces.find((piece) => piece.id === id) ?? null) : null;
});
const typed = ref('');
watch(only, (piece) => (typed.value = piece?.name ?? ''), { immediate: true });
const hidden = computed(() => props.pieces.filter((piece) => piece.hidden).length);
</script>

<template>
  <aside class="pieces" aria-label="Pieces on the body">
    <PushButton
      small
      :on="on"
      title="A press chooses a piece, a drag moves it along the surface (G)"
      @click="$emit('toggle')"
    >
      {{ pieces.length }} {{ pieces.length === 1 ? 'piece' : 'pieces' }}
    </PushButton>
    <ul>
      <li v-for="row in rows" :key="row.partId">
        <PushButton
          look="row"
          :on="row.chosen > 0"
          :title="`Choose all ${row.count} of ${row.name}`"
          @click="$emit('choose', row.partId)"
        >
          <span class="name">{{ row.name }}</span><small>{{
            row.chosen > 0 ? `${row.chosen} of ${row.count}` : row.count
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
      @change="$emit('rename', typed)"
    />
    <div v-if="chosen.size > 0" class="acts">
      <ToolButton :icon="Minus" label="Smaller" keys="[" @click="$emit('smaller')" />
      <ToolButton :icon="Plus" label="Larger" keys="]" @click="$emit('larger')" />
      <ToolButton :icon="RotateCcw" label="Turn left" keys="," @click="$emit('left')" />
      <ToolButton :icon="RotateCw" label="Turn right" keys="." @click="$emit('right')" />
      <ToolButton :icon="Copy" label="Copy" help="Copy beside" keys="Ctrl+D" @click="$emit('copy')" />
      <ToolButton
        :icon="FlipHorizontal2"
        label="Mirror"
        help="A copy on the other side, left and right"
        @click="$emit('mirror')"
      />
      <PartChooser @choose="([id]) => id && $emit('replace', id)">
        <ToolButton :icon="Replace" label="Replace" help="Another part in their place" />
      </PartChooser>
      <ToolButton
        v-if="only"
        :icon="PackagePlus"
        label="Keep as a part"
        help="Keep this piece as a part of its own"
        @click="$emit('part', only)"
      />
      <ToolButton :icon="EyeOff" label="Hide" keys="Shift+G" @click="$emit('hide')" />
      <ToolButton :icon="Trash2" label="Take away" keys="Delete" @click="$emit('remove')" />
    </div>
    <PushButton v-if="hidden > 0" small @click="$emit('show')"><Eye :size="14" /> Show {{ hidden }} hidden</PushButton>
  </aside>
</template>

<style scoped>
.pieces {
  position: absolute;
  right: 12px;
  top: 214px;
  z-index: 2;
  width: 164px;
  max-height: calc(100% - 330px);
  overflow: auto;
  display: grid;
  gap: 6px;
  padding: 8px;
  border-radius: var(--r);
  background: rgb(243 241 237 / 94%);
}
li :deep(span) {
  width: 100%;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
}
small {
  margin-left: auto;
  color: var(--ink-2);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
}
</style>
