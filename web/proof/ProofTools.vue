<script setup lang="ts">
/** What is done to the body and how it is looked at: mirror, undo, masks, clay and light. */
import { CircleDashed, House, Palette, Redo2, RotateCcw, Undo2 } from '@lucide/vue';
import { useProof } from '../stores/proof';
import { CLAYS, type ClayName } from './looks';
import GuidesMenu from '../controls/GuidesMenu.vue';
import PopMenu from '../controls/PopMenu.vue';
import type { GuideLook } from '../viewport/settling';
import SymmetryMenu from './SymmetryMenu.vue';

defineProps<{ lit: boolean; axes: readonly [string, string]; hindered: string | null }>();
const guides = defineModel<GuideLook>('guides', { required: true });
const clay = defineModel<ClayName>('clay', { required: true });
const facets = defineModel<boolean>('facets', { required: true });
defineEmits<{ home: []; light: []; cut: []; undo: []; stamp: [x: number, y: number] }>();
const proof = useProof();
</script>

<template>
  <div class="tools">
    <SymmetryMenu v-model="proof.symmetry" />
    <GuidesMenu v-model="guides" :axes="axes" :hindered="hindered" @stamp="(x, y) => $emit('stamp', x, y)" />
    <PopMenu placement="bottom" :width="206">
      <template #reference
        ><button type="button" title="Mask: hold M to paint it, D with it to take it away" aria-label="Mask">
          <CircleDashed :size="16" /></button
      ></template>
      <div class="menu">
        <p class="muted">Hold M to paint a mask, D with it to take it away.</p>
        <button class="btn" type="button" @click="proof.editMask('mask-invert')">Invert (I)</button>
        <button class="btn" type="button" @click="proof.editMask('mask-clear')">Clear (U)</button>
        <button
          class="btn"
          type="button"
          :disabled="proof.state.strokes === 0"
          title="Masks what the last stroke raised"
          @click="proof.sculptor.maskRaised()"
        >
          Mask what it raised (R)
        </button>
        <button
          class="btn"
          type="button"
          title="What is masked comes off as a closed body of its own; the body is untouched where it was"
          @click="$emit('cut')"
        >
          Cut it off (Shift+C)
        </button>
      </div>
    </PopMenu>
    <PopMenu placement="bottom-end" :width="200">
      <template #reference
        ><button type="button" title="Clay, shading and light (hold L to turn the light)" aria-label="Clay and light">
          <Palette :size="16" /></button
      ></template>
      <div class="menu">
        <div class="heading">Clay</div>
        <div class="clays" role="radiogroup" aria-label="Clay">
          <button
            v-for="c in CLAYS"
            :key="c.name"
            type="button"
            role="radio"
            :aria-checked="clay === c.name"
            :class="{ on: clay === c.name }"
            @click="clay = c.name"
          >
            <i :style="{ background: c.clay }" />{{ c.label }}
          </button>
        </div>
        <label class="check"><input v-model="facets" type="checkbox" /> Show the faces</label>
        <button
          class="btn"
          type="button"
          :disabled="!lit"
          title="Hold L and move the pointer to turn it"
          @click="$emit('light')"
        >
          Light from the upper left
        </button>
        <p class="muted">Hold L and move the pointer to turn the light.</p>
      </div>
    </PopMenu>
    <button
      type="button"
      :disabled="!proof.state.canUndo"
      title="Undo the last stroke (Ctrl+Z)"
      aria-label="Undo"
      @click="$emit('undo')"
    >
      <Undo2 :size="16" />
    </button>
    <button
      type="button"
      :disabled="!proof.state.canRedo"
      title="Redo (Ctrl+Shift+Z)"
      aria-label="Redo"
      @click="proof.sculptor.redo()"
    >
      <Redo2 :size="16" />
    </button>
    <button
      type="button"
      :disabled="proof.state.strokes === 0"
      title="Back to the untouched body"
      aria-label="Back to the untouched body"
      @click="proof.sculptor.clear()"
    >
      <RotateCcw :size="16" />
    </button>
    <button type="button" title="View from the front (H)" aria-label="View from the front" @click="$emit('home')">
      <House :size="16" />
    </button>
  </div>
</template>

<style scoped src="../controls/view.css"></style>
<style scoped>
.menu {
  display: grid;
  gap: 8px;
}
.menu .btn {
  justify-content: center;
  height: 28px;
}
.clays {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.clays button {
  display: flex;
  align-items: center;
  gap: 6px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--field);
  padding: 4px 6px;
  cursor: pointer;
  font-size: 12px;
}
.clays button.on {
  border-color: var(--act);
  box-shadow: 0 0 0 1px var(--act);
}
.clays i {
  width: 14px;
  height: 14px;
  border-radius: 50%;
  border: 1px solid rgb(0 0 0 / 18%);
  flex: none;
}
.check {
  display: flex;
  gap: 8px;
  align-items: center;
}
.check input {
  accent-color: var(--act);
  width: 16px;
  height: 16px;
  margin: 0;
}
</style>
