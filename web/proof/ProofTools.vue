<script setup lang="ts">
/** What is done to the body and how it is looked at: mirror, undo, masks, clay and light. */
import { CircleDashed, House, Palette, Redo2, RotateCcw, Undo2 } from '@lucide/vue';
import { useProof } from '../stores/proof';
import { CLAYS, type ClayName } from './looks';
import GuidesMenu from '../controls/GuidesMenu.vue';
import PopMenu from '../controls/PopMenu.vue';
import type { GuideLook } from '../viewport/settling';
import SymmetryMenu from './SymmetryMenu.vue';
import PushButton from '../controls/PushButton.vue';
import TickBox from '../controls/TickBox.vue';
import ToolButton from '../controls/ToolButton.vue';
import ToolGroup from '../controls/ToolGroup.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import { inHint, keyOf } from '../keys/chosen';
import KeyCap from '../controls/KeyCap.vue';

defineProps<{ lit: boolean; axes: readonly [string, string]; hindered: string | null }>();
const guides = defineModel<GuideLook>('guides', { required: true });
const clay = defineModel<ClayName>('clay', { required: true });
const facets = defineModel<boolean>('facets', { required: true });
defineEmits<{ home: []; light: []; picture: []; cut: []; undo: []; stamp: [x: number, y: number] }>();
const proof = useProof();
</script>

<template>
  <ToolGroup label="View and clay" class="tools">
    <SymmetryMenu v-model="proof.symmetry" />
    <GuidesMenu v-model="guides" :axes="axes" :hindered="hindered" @stamp="(x, y) => $emit('stamp', x, y)" />
    <PopMenu placement="bottom" :width="206">
      <template #reference
        ><ToolButton look="round" :icon="CircleDashed" label="Mask" help="Mask: held, the key paints it" command="mask"
      /></template>
      <div class="menu">
        <p class="muted">
          Hold <KeyCap command="mask" /> to paint a mask, <KeyCap command="dig" /> with it to take it away.
        </p>
        <PushButton @click="proof.editMask('mask-invert')">Invert{{ inHint('invert') }}</PushButton>
        <PushButton @click="proof.editMask('mask-clear')">Clear{{ inHint('clearMask') }}</PushButton>
        <PushButton
          :disabled="proof.state.strokes === 0"
          title="Masks what the last stroke raised"
          @click="proof.sculptor.maskRaised()"
        >
          Mask what it raised{{ inHint('maskRaised') }}
        </PushButton>
        <PushButton
          title="What is masked comes off as a closed body of its own; the body is untouched where it was"
          @click="$emit('cut')"
        >
          Cut it off{{ inHint('cut') }}
        </PushButton>
      </div>
    </PopMenu>
    <PopMenu placement="bottom-end" :width="200">
      <template #reference
        ><ToolButton
          look="round"
          :icon="Palette"
          label="Clay and light"
          help="Clay, shading and light; held, the key turns the light"
          command="light"
      /></template>
      <div class="menu">
        <div class="heading">Clay</div>
        <ChoiceBar
          v-model="clay"
          label="Clay"
          :across="2"
          :options="CLAYS.map(({ name, label }) => ({ value: name, label }))"
        >
          <template #option="{ option }">
            <i class="dot" :style="{ background: CLAYS.find(({ name }) => name === option.value)!.clay }" />{{
              option.label
            }}
          </template>
        </ChoiceBar>
        <TickBox v-model="facets">Show the faces</TickBox>
        <PushButton
          :disabled="!lit"
          :title="`Hold ${keyOf('light')} and move the pointer to turn it`"
          @click="$emit('light')"
        >
          Light from the upper left
        </PushButton>
        <p class="muted">Hold <KeyCap command="light" /> and move the pointer to turn the light.</p>
        <PushButton title="The body alone, as it is seen, as a PNG of any size" @click="$emit('picture')">
          Save a picture…
        </PushButton>
      </div>
    </PopMenu>
    <ToolButton
      look="round"
      :icon="Undo2"
      label="Undo"
      help="Undo the last stroke"
      command="undo"
      :disabled="!proof.state.canUndo"
      @click="$emit('undo')"
    />
    <ToolButton
      look="round"
      :icon="Redo2"
      label="Redo"
      command="redo"
      :disabled="!proof.state.canRedo"
      @click="proof.sculptor.redo()"
    />
    <ToolButton
      look="round"
      :icon="RotateCcw"
      label="Back to the untouched body"
      :disabled="proof.state.strokes === 0"
      @click="proof.sculptor.clear()"
    />
    <ToolButton look="round" :icon="House" label="View from the front" command="whole" @click="$emit('home')" />
  </ToolGroup>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.menu {
  display: grid;
  gap: 8px;
}
.dot {
  width: 14px;
  height: 14px;
  border-radius: 50%;
  border: 1px solid rgb(0 0 0 / 18%);
  flex: none;
}
</style>
