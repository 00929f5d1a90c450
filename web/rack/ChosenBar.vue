<script setup lang="ts">
/** What can be done to the brushes that are chosen. */
import { ClipboardPaste, Copy, Download, PackageMinus, PackagePlus, Pencil, Tags, Trash2, X } from '@lucide/vue';
import { ref } from 'vue';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import ToolButton from '../controls/ToolButton.vue';
import { useCopiedSettings } from '../stores/copiedSettings';
import { useManyBrushes } from '../stores/manyBrushes';
import { usePacks } from '../stores/packs';

defineProps<{
  count: number;
  /** Some of them are in packs that are shown. */
  packed: boolean;
  /** How many are base brushes, which stay as they are. */
  bases: number;
}>();
const emit = defineEmits<{
  putIn: [pack: string | null];
  takeOut: [];
  names: [];
  tags: [];
  copy: [];
  paste: [];
  write: [];
  remove: [];
  none: [];
}>();
const packs = usePacks();
const copied = useCopiedSettings();
const many = useManyBrushes();
const menu = ref(false);
function put(pack: string | null): void {
  menu.value = false;
  emit('putIn', pack);
}
</script>

<template>
  <ToolGroup class="bar" label="Brushes that are chosen">
    <template v-if="many.progress">
      <span class="count" role="status">{{ many.progress.done }} of {{ many.progress.of }}…</span>
      <PushButton small @click="many.cancel">Cancel</PushButton>
    </template>
    <template v-else>
      <span class="count" role="status">{{ count }} chosen</span>
      <PopMenu v-model:visible="menu" placement="top" :width="230">
        <template #reference>
          <PushButton small><PackagePlus :size="15" /> Put in a pack</PushButton>
        </template>
        <div class="packs">
          <PushButton v-for="pack in packs.all" :key="pack.id" look="row" @click="put(pack.id)">{{
            pack.card.name
          }}</PushButton>
          <PushButton look="row" @click="put(null)">New pack…</PushButton>
        </div>
      </PopMenu>
      <PushButton v-if="packed" small @click="emit('takeOut')"><PackageMinus :size="15" /> Take out</PushButton>
      <template v-if="bases < count">
        <PushButton small @click="emit('names')"><Pencil :size="15" /> Rename…</PushButton>
        <PushButton small @click="emit('tags')"><Tags :size="15" /> Tag…</PushButton>
      </template>
      <PushButton
        v-if="bases < count && copied.told"
        small
        :title="`They take ${copied.told}; it can be undone`"
        @click="emit('paste')"
        ><ClipboardPaste :size="15" /> Paste settings</PushButton
      >
      <PushButton small @click="emit('copy')"><Copy :size="15" /> Copy</PushButton>
      <PushButton small title="As a pack file or as plain folders" @click="emit('write')"
        ><Download :size="15" /> Write…</PushButton
      >
      <PushButton
        v-if="bases < count"
        small
        :title="bases > 0 ? 'Base brushes stay' : 'They stay in the trash for 30 days'"
        @click="emit('remove')"
        ><Trash2 :size="15" /> Delete</PushButton
      >
      <ToolButton :icon="X" label="Choose none" command="cancel" @click="emit('none')" />
    </template>
  </ToolGroup>
</template>

<style scoped>
.bar {
  position: absolute;
  left: 50%;
  bottom: 18px;
  z-index: 5;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  width: max-content;
  max-width: calc(100% - 32px);
  padding: 7px 10px 7px 14px;
  transform: translateX(-50%);
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--field);
  box-shadow: 0 6px 22px rgb(28 36 40 / 22%);
  white-space: nowrap;
}
.count {
  font-weight: 600;
}
.bar :deep(svg) {
  margin-right: 5px;
}
.packs {
  display: grid;
  max-height: 300px;
  overflow-y: auto;
}
</style>
