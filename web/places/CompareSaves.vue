<script setup lang="ts">
/** Two saves of a source, an alpha or a part side by side: their pictures, and every setting that differs. */
import { computed, ref, watch } from 'vue';
import { settingsThatDiffer } from '#core/settings';
import { SCHEMAS, type Documents } from '#core/stored';
import DialogBox from '../controls/DialogBox.vue';
import DifferenceTable from '../controls/DifferenceTable.vue';
import SelectField from '../controls/SelectField.vue';
import type { StoredShelf } from '../stores/storedThings';

export interface State {
  /** 0 is how it is now. */
  revision: number;
  label: string;
  doc: Documents[StoredShelf] | null;
  picture: string;
}

const props = defineProps<{ name: string; collection: StoredShelf; states: readonly State[] }>();
/** The revision that is compared first; null while nothing is. */
const of = defineModel<number | null>({ required: true });
const sides = ref<[number, number]>([0, 0]);
watch(of, (now) => {
  if (now !== null) sides.value = [now, 0];
});
const stateOf = (revision: number): State | undefined => props.states.find((one) => one.revision === revision);
const choices = computed(() =>
  props.states.filter(({ doc }) => doc !== null).map(({ revision, label }) => ({ value: revision, label })),
);
const differences = computed(() => {
  const [a, b] = sides.value.map((revision) => stateOf(revision)?.doc);
  return a && b ? settingsThatDiffer(SCHEMAS[props.collection], a, b) : [];
});
const SIDES = [
  { at: 0, label: 'Left' },
  { at: 1, label: 'Right' },
] as const;
</script>

<template>
  <DialogBox
    :visible="of !== null"
    :title="`Saves of “${name}” side by side`"
    :width-px="680"
    @update:visible="of = null"
  >
    <div class="pair">
      <figure v-for="side in SIDES" :key="side.at">
        <SelectField v-model="sides[side.at]" :label="side.label" :choices="choices" />
        <img :src="stateOf(sides[side.at])?.picture" :alt="stateOf(sides[side.at])?.label ?? ''" />
      </figure>
    </div>
    <DifferenceTable :differences="differences" />
  </DialogBox>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  margin-bottom: 14px;
}
figure {
  display: grid;
  gap: 8px;
  margin: 0;
}
img {
  width: 100%;
  max-width: 312px;
  aspect-ratio: 1;
  border-radius: var(--r);
  background: var(--clay);
}
</style>
