<script setup lang="ts">
/** Guides over the clay: centre lines and a grid that stamps settle on, and a stamp at a typed place. */
import TickBox from './TickBox.vue';
import { Grid3x3 } from '@lucide/vue';
import { ref } from 'vue';
import type { GuideLook } from '../viewport/settling';
import NumberField from './NumberField.vue';
import PopMenu from './PopMenu.vue';
import PushButton from './PushButton.vue';
import ToolButton from './ToolButton.vue';
import KeyCap from './KeyCap.vue';

defineProps<{
  /** What the two places are called, as the view lies. */
  axes: readonly [string, string];
  /** Why no stamp can be laid at a typed place; null where one can. */
  hindered: string | null;
}>();
const guides = defineModel<GuideLook>({ required: true });
const emit = defineEmits<{ stamp: [x: number, y: number] }>();
const x = ref(0);
const y = ref(0);
const put = (change: Partial<GuideLook>): void => {
  guides.value = { ...guides.value, ...change };
};
</script>

<template>
  <PopMenu placement="bottom" :width="272">
    <template #reference>
      <ToolButton
        look="round"
        :icon="Grid3x3"
        label="Guides"
        help="Guides: centre lines, grid, and a stamp at a typed place"
        :on="guides.centre || guides.grid"
      />
    </template>
    <div class="menu">
      <TickBox :model-value="guides.centre" @update:model-value="(centre) => put({ centre })">Centre lines</TickBox>
      <TickBox :model-value="guides.grid" @update:model-value="(grid) => put({ grid })">Grid</TickBox>
      <NumberField
        label="Every"
        unit="body units"
        :model-value="guides.step"
        :min="0.02"
        :max="1"
        :step="0.01"
        @update:model-value="(step) => put({ step })"
      />
      <p class="muted">
        Hold <KeyCap command="settle" />: Press, Grow and Pull settle on them, and on the line through the last two
        stamps.
      </p>
      <div class="heading">Stamp at</div>
      <div class="two">
        <NumberField v-model="x" :label="axes[0]" unit="body units" :min="-4" :max="4" :step="0.01" />
        <NumberField v-model="y" :label="axes[1]" unit="body units" :min="-4" :max="4" :step="0.01" />
      </div>
      <PushButton :disabled="hindered !== null" :title="hindered ?? ''" @click="emit('stamp', x, y)"
        >Stamp there</PushButton
      >
      <p class="muted">{{ hindered ?? 'At the brush’s own size and turn.' }}</p>
    </div>
  </PopMenu>
</template>

<style scoped>
.menu {
  display: grid;
  gap: 6px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
