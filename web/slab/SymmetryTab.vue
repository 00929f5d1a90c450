<script setup lang="ts">
/** Symmetry: mirrors, radial copies, and the point they go about. */
import { SymmetrySchema, settingAt, type Symmetry } from '#core/settings';
import NumberField from '../controls/NumberField.vue';
import SettingSlider from '../controls/SettingSlider.vue';
import { useSlabBench } from '../stores/slabBench';
import { useSlabTools } from '../stores/slabTools';
import PushButton from '../controls/PushButton.vue';

const bench = useSlabBench();
const tools = useSlabTools();
const put = (change: Partial<Symmetry>): void => bench.edit((slab) => Object.assign(slab.symmetry, change));
</script>

<template>
  <div v-if="bench.doc" class="tab">
    <div class="two">
      <PushButton
        title="Mirror left and right (X)"
        :on="bench.doc.symmetry.mirrorX"
        @click="put({ mirrorX: !bench.doc.symmetry.mirrorX })"
      >
        Mirror X
      </PushButton>
      <PushButton
        title="Mirror up and down (Y)"
        :on="bench.doc.symmetry.mirrorY"
        @click="put({ mirrorY: !bench.doc.symmetry.mirrorY })"
      >
        Mirror Y
      </PushButton>
    </div>
    <SettingSlider
      :meta="settingAt(SymmetrySchema, 'copies')"
      :model-value="bench.doc.symmetry.copies"
      @update:model-value="(v) => put({ copies: v })"
    />
    <div class="heading">About</div>
    <div class="two">
      <NumberField
        label="X"
        unit="body"
        :model-value="bench.doc.symmetry.x"
        :min="-1"
        :max="1"
        :step="0.01"
        @update:model-value="(v) => put({ x: v })"
      />
      <NumberField
        label="Y"
        unit="body"
        :model-value="bench.doc.symmetry.y"
        :min="-1"
        :max="1"
        :step="0.01"
        @update:model-value="(v) => put({ y: v })"
      />
    </div>
    <div class="two">
      <PushButton :on="tools.pickingPoint" @click="tools.pickingPoint = !tools.pickingPoint">
        {{ tools.pickingPoint ? 'Click the slab' : 'Pick a point' }}
      </PushButton>
      <PushButton :disabled="bench.doc.symmetry.x === 0 && bench.doc.symmetry.y === 0" @click="put({ x: 0, y: 0 })">
        Centre
      </PushButton>
    </div>
    <p class="muted">Strokes and mask shapes are repeated on every copy.</p>
  </div>
</template>
