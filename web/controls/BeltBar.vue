<script setup lang="ts">
/** The brushes at hand: on one of several belts, dragged into order, gone along by keys. */
import { ChevronUp } from '@lucide/vue';
import { computed, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import type { BrushHead } from '#core/stored';
import { FIRST, useBelts } from '../stores/belts';
import { useLibrary } from '../stores/library';
import BrushDisc from './BrushDisc.vue';
import CutName from './CutName.vue';
import PopMenu from './PopMenu.vue';
import PushButton from './PushButton.vue';
import ToolGroup from './ToolGroup.vue';
import TextField from './TextField.vue';
import { inHint } from '../keys/chosen';
import { useBeltKeys } from '../keys/beltKeys';
import { useShortcuts } from '../keys/shortcuts';
import { orSay, undoNotice } from './undoNotice';

const props = defineProps<{ openId: string }>();
const emit = defineEmits<{ pick: [id: string] }>();
const library = useLibrary();
const belts = useBelts();
const menu = ref(false);
/** The open brush stands on the belt even before it is saved. */
const shown = computed<BrushHead[]>(() => {
  const on = belts.open.ids.map((id) => library.brushHead(id)).filter((brush) => brush !== null);
  const open = library.brushHead(props.openId);
  return open && !belts.open.ids.includes(props.openId) ? [open, ...on] : on;
});
/** As they are dragged; what is dropped is kept. */
const list = ref<BrushHead[]>([]);
watch(shown, (now) => (list.value = [...now]), { immediate: true });
const unsaved = (id: string): boolean => library.drafts.some((d) => d.doc.id === id);
const onIt = computed(() => belts.open.ids.includes(props.openId));

function dropped(): void {
  const ids = list.value.map(({ id }) => id).filter((id) => belts.open.ids.includes(id));
  orSay(() => belts.order(belts.open.id, ids));
}
function take(id: string): void {
  belts.wanted = id;
  menu.value = false;
}
async function remove(): Promise<void> {
  const { id, name } = belts.open;
  undoNotice(`The belt “${name}” is deleted; its brushes stay.`, await belts.remove(id));
  menu.value = false;
}
useBeltKeys({
  ids: () => shown.value.map(({ id }) => id),
  open: () => props.openId,
  pick: (id) => emit('pick', id),
});
useShortcuts([
  { command: 'nextBelt', run: () => belts.turn(1) },
  { command: 'lastBelt', run: () => belts.turn(-1) },
]);
</script>

<template>
  <footer class="belt" aria-label="Belt">
    <PopMenu v-model:visible="menu" placement="top-start" :width="250">
      <template #reference>
        <PushButton
          look="quiet"
          class="about"
          :title="`Belts: the brushes at hand, one belt a task${inHint('nextBelt')}`"
        >
          <span class="which"><CutName :name="belts.open.name" /><ChevronUp :size="13" /></span>
          <small>{{ shown.length }} {{ shown.length === 1 ? 'brush' : 'brushes' }}</small>
        </PushButton>
      </template>
      <div class="menu" aria-label="Belts">
        <PushButton
          v-for="belt in belts.all"
          :key="belt.id"
          look="row"
          :on="belt.id === belts.open.id"
          @click="take(belt.id)"
        >
          <CutName :name="belt.name" /> <small>{{ belt.ids.length }}</small>
        </PushButton>
        <TextField
          v-if="belts.open.id !== FIRST"
          aria-label="Name of the belt"
          maxlength="74"
          :model-value="belts.open.name"
          @change="(name: string) => belts.rename(belts.open.id, name)"
        />
        <div class="two">
          <PushButton small @click="belts.create('Belt', openId ? [openId] : [])">New belt</PushButton>
          <PushButton small title="A new belt with these brushes" @click="belts.create(belts.open.name, belts.open.ids)"
            >Copy this one</PushButton
          >
        </div>
        <PushButton v-if="openId" small @click="orSay(() => belts.toggle(belts.open.id, openId))">
          {{ onIt ? 'Take this brush off the belt' : 'Put this brush on the belt' }}
        </PushButton>
        <PushButton v-if="belts.open.id !== FIRST" small @click="orSay(remove)">Delete this belt</PushButton>
        <p v-if="belts.problem" class="sentence-bad" role="alert">{{ belts.problem }}</p>
      </div>
    </PopMenu>
    <ToolGroup label="Brushes on the belt"
      ><VueDraggable
        v-model="list"
        class="row"
        :animation="120"
        :delay="180"
        :delay-on-touch-only="true"
        @end="dropped"
      >
        <PushButton
          v-for="brush in list"
          :key="brush.id"
          look="face"
          class="at-hand"
          :title="brush.card.name"
          :on="brush.id === openId"
          @click="emit('pick', brush.id)"
        >
          <span class="ring"><BrushDisc :brush="brush" :size="48" /></span>
          <span class="name"
            ><CutName :name="brush.card.name || 'no name'" /><b v-if="unsaved(brush.id)" title="Not saved yet">
              •</b
            ></span
          >
        </PushButton>
      </VueDraggable></ToolGroup
    >
    <p v-if="shown.length === 0" class="muted">
      Nothing is on this belt. Put brushes on it on the rack, or by its menu.
    </p>
    <slot />
  </footer>
</template>

<style scoped>
.belt {
  height: 92px;
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 0 14px;
  border-top: 1px solid var(--line);
  background: var(--leaf);
  overflow-x: auto;
  overflow-y: hidden;
}
.about {
  --el-button-text-color: var(--ink-2);
  display: grid;
  flex: none;
  width: 92px;
  height: auto;
  margin-left: -8px;
  padding: 6px 8px;
  font-size: var(--small);
  font-weight: 400;
  line-height: 1.4;
  text-align: left;
}
.about :deep(> span) {
  display: grid;
  width: 100%;
  min-width: 0;
}
.which {
  display: flex;
  gap: 3px;
  align-items: center;
  min-width: 0;
  color: var(--ink);
  font-weight: 500;
}
.at-hand :deep(img) {
  -webkit-user-drag: none;
}
.row {
  display: flex;
  gap: 2px;
}
.menu {
  display: grid;
  gap: 6px;
}
.menu small {
  margin-left: auto;
  padding-left: 8px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px;
}
.at-hand {
  display: flex;
  flex-direction: column;
  gap: 4px;
  width: 88px;
  flex: none;
  padding: 4px 2px;
}
.ring {
  border-radius: 50%;
  padding: 3px;
  border: 1px solid var(--line);
  background: var(--field);
}
.at-hand:hover .ring {
  border-color: var(--ink-3);
}
.on .ring {
  border-color: var(--act);
  box-shadow: 0 0 0 2px var(--act);
}
.name {
  display: flex;
  font-size: var(--small);
  max-width: 86px;
  white-space: pre;
}
.on .name {
  font-weight: 600;
}
b {
  color: var(--warn);
}
</style>
