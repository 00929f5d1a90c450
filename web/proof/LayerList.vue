<script setup lang="ts">
/** The layers of the painting, the topmost first; what is done to the one that strokes go on. */
import {
  ArrowDownToLine,
  Copy,
  Eye,
  EyeOff,
  Layers2,
  Lock,
  LockOpen,
  Pencil,
  Plus,
  SquareDashed,
  Trash2,
} from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed, nextTick, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { BLEND_MODES, type BlendMode } from '#core/colour';
import { PaintLayerSchema, settingAt } from '#core/settings';
import PushButton from '../controls/PushButton.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import SelectField from '../controls/SelectField.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import { orSay } from '../controls/undoNotice';
import { usePainting } from '../stores/painting';
import LayerPicture from './LayerPicture.vue';
import TextureMenu from './TextureMenu.vue';

const painting = usePainting();
const open = useLocalStorage('proof-layers-open', true);
/** Topmost first, as they lie. */
const rows = ref<{ id: string }[]>([]);
watch(
  () => painting.layers,
  (layers) => (rows.value = layers.map(({ id }) => ({ id })).reverse()),
  { immediate: true },
);
const of = (id: string) => painting.layers.find((layer) => layer.id === id);
const active = computed(() => painting.active);
const OPACITY = settingAt(PaintLayerSchema, 'opacity');
/** What a drag of the slider is one step of. */
const gesture = ref(painting.nextGesture());
const BLENDS = BLEND_MODES.map((value) => ({ value, label: nameOf(value) }));

function nameOf(mode: BlendMode): string {
  const words = mode.replace('color', 'colour').replace('-', ' ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function moved(e: { newDraggableIndex?: number | undefined; oldDraggableIndex?: number | undefined }): void {
  const { newDraggableIndex: now, oldDraggableIndex: before } = e;
  const data = now === undefined ? undefined : rows.value[now];
  if (now === undefined || now === before || !data) return;
  const to = painting.layers.length - 1 - now;
  void orSay(() => painting.edit({ kind: 'move', id: data.id, to }));
}
/** The layer whose name is being typed. */
const naming = ref<string | null>(null);
const field = ref<InstanceType<typeof TextField>[]>([]);
watch(naming, () => void nextTick(() => field.value[0]?.$el.querySelector('input')?.select()));
function rename(id: string, name: string): void {
  naming.value = null;
  if (name.trim()) orSay(() => painting.set(id, { name: name.trim() }));
}
function remove(): void {
  if (active.value) void orSay(() => painting.edit({ kind: 'remove', id: active.value!.id }));
}
function mergeDown(): void {
  if (active.value) void orSay(() => painting.edit({ kind: 'merge', id: active.value!.id }));
}
const lowest = computed(() => active.value?.id === painting.layers[0]?.id);
</script>

<template>
  <aside class="layers" aria-label="Layers">
    <div class="head">
      <PushButton small :title="open ? 'Fold the layers away' : 'Show the layers'" @click="open = !open">
        {{ painting.layers.length }} {{ painting.layers.length === 1 ? 'layer' : 'layers' }}
      </PushButton>
      <TextureMenu v-if="open" class="texture" />
      <ToolButton v-if="open" :icon="Plus" label="Add a layer" @click="orSay(painting.add)" />
    </div>
    <template v-if="open && active">
      <VueDraggable v-model="rows" tag="ul" :animation="120" handle=".strip" @update="moved">
        <li v-for="row in rows" :key="row.id" :class="{ on: row.id === active.id, hidden: of(row.id)?.hidden }">
          <TextField
            v-if="naming === row.id"
            ref="field"
            class="naming"
            aria-label="Name of the layer"
            maxlength="80"
            :model-value="of(row.id)?.name ?? ''"
            @change="(name: string) => rename(row.id, name)"
            @blur="naming = null"
            @keydown.esc.stop="naming = null"
          />
          <PushButton
            v-else
            look="row"
            class="strip"
            :on="row.id === active.id && !active.onMask"
            :title="`Paint on ${of(row.id)?.name}; drag to order, click twice to name`"
            @click="painting.choose(row.id)"
            @dblclick="naming = row.id"
          >
            <LayerPicture :id="row.id" :size="26" />
            <span class="name">{{ of(row.id)?.name }}</span>
          </PushButton>
          <PushButton
            v-if="of(row.id)?.masked"
            look="face"
            small
            class="mask"
            :on="row.id === active.id && active.onMask"
            title="Paint on its mask: paint hides, erasing shows again"
            @click="painting.choose(row.id, true)"
            ><LayerPicture :id="row.id" mask :size="22"
          /></PushButton>
          <ToolButton
            :icon="of(row.id)?.hidden ? EyeOff : Eye"
            :label="`${of(row.id)?.hidden ? 'Show' : 'Hide'} ${of(row.id)?.name}`"
            @click="orSay(() => painting.set(row.id, { hidden: !of(row.id)?.hidden }))"
          />
        </li>
      </VueDraggable>
      <div class="own">
        <SelectField
          label="How it blends"
          :choices="BLENDS"
          :model-value="active.blend"
          @update:model-value="(blend) => orSay(() => painting.set(active!.id, { blend }))"
        />
        <SettingSlider
          :meta="OPACITY"
          :model-value="Math.round(active.opacity * 100)"
          @update:model-value="(value) => orSay(() => painting.set(active!.id, { opacity: value / 100 }, gesture))"
          @pointerdown="gesture = painting.nextGesture()"
          @keydown="gesture = painting.nextGesture()"
        />
        <ToolGroup label="The layer" class="tools-row">
          <ToolButton
            :icon="active.locked ? Lock : LockOpen"
            label="Lock transparency"
            help="What is clear stays clear: paint only where the layer is painted"
            :on="active.locked"
            @click="orSay(() => painting.set(active!.id, { locked: !active!.locked }))"
          />
          <ToolButton
            :icon="Layers2"
            label="Clip to the layer below"
            help="Seen only where the layer below covers"
            :on="active.clipped"
            :disabled="lowest"
            @click="orSay(() => painting.set(active!.id, { clipped: !active!.clipped }))"
          />
          <ToolButton
            :icon="SquareDashed"
            label="Mask"
            :help="active.masked ? 'Take its mask off' : 'Give it a mask: paint hides, erasing shows again'"
            :on="active.masked"
            @click="
              orSay(async () => {
                const { id, masked } = active!;
                await painting.edit({ kind: 'mask', id, on: !masked });
                painting.choose(id, !masked);
              })
            "
          />
          <ToolButton
            :icon="ArrowDownToLine"
            label="Merge down"
            help="One layer of this and the one below, as they look"
            :disabled="lowest"
            @click="mergeDown"
          />
          <ToolButton :icon="Pencil" label="Name the layer" @click="naming = active.id" />
          <ToolButton :icon="Copy" label="Duplicate the layer" @click="orSay(() => painting.copy(active!))" />
          <ToolButton :icon="Trash2" label="Delete the layer" :disabled="painting.layers.length < 2" @click="remove" />
        </ToolGroup>
      </div>
    </template>
  </aside>
</template>

<style scoped>
.layers {
  position: absolute;
  right: 12px;
  top: 152px;
  max-height: calc(100% - 152px - 98px);
  width: 186px;
  display: flex;
  flex-direction: column;
  gap: 6px;
  pointer-events: none;
}
.layers > * {
  pointer-events: auto;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 3px;
  flex: 0 1 auto;
  min-height: 38px;
  max-height: 170px;
  overflow: auto;
  background: color-mix(in srgb, var(--page) 94%, transparent);
  border-radius: var(--r);
}
li {
  display: flex;
  align-items: center;
  gap: 2px;
}
li.hidden .name {
  color: var(--ink-3);
}
.naming {
  flex: 1;
}
.strip {
  flex: 1;
  min-width: 0;
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 2px 4px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: var(--small);
}
.own {
  --label: 48px;
  display: grid;
  gap: 5px;
  padding: 6px;
  background: color-mix(in srgb, var(--page) 94%, transparent);
  border-radius: var(--r);
}
.tools-row {
  display: flex;
  justify-content: space-between;
}
@media (pointer: coarse) {
  .layers {
    width: 212px;
  }
  .own {
    grid-template-columns: minmax(0, 1fr);
  }
  .tools-row {
    flex-wrap: wrap;
    justify-content: start;
  }
}
/* In a low window they stand beside the sides to look from, and scroll. */
@media (height < 640px), (pointer: coarse) {
  .layers {
    left: 12px;
    right: auto;
    top: 92px;
    max-height: calc(100% - 92px - 52px);
    overflow-y: auto;
  }
  .layers > * {
    flex: none;
  }
}
/* The tools under the body are higher under a finger. */
@media (pointer: coarse) {
  .layers {
    max-height: calc(100% - 92px - 74px);
  }
}
</style>
