<script setup lang="ts" generic="T extends string | number">
/** Chooses one of a list; a long one can be searched by typing. Each choice may have a picture before its name. */
import { ElOption, ElSelect } from 'element-plus';
import { computed, inject, ref, type Component } from 'vue';
import { holds, wordsOf } from './finding';
import { IN_MENU } from './inMenu';

interface Choice {
  value: T;
  label: string;
  /** It is found by these as well; then even a short list can be searched. */
  words?: string;
}

const props = defineProps<{ label: string; choices: readonly Choice[]; placeholder?: string }>();
const chosen = defineModel<T>({ required: true });
const LONG_LIST = 8;
const wanted = ref('');
const open = ref(false);
/** The control keeps Esc to itself even while its list is closed; then it belongs to what the control stands in. */
function escape(e: KeyboardEvent): void {
  if (e.key !== 'Escape' || open.value) return;
  e.stopPropagation();
  const { key, code } = e;
  (e.currentTarget as HTMLElement).parentElement?.dispatchEvent(
    new KeyboardEvent('keydown', { key, code, bubbles: true, cancelable: true }),
  );
}
const searched = computed(() => props.choices.length > LONG_LIST || props.choices.some(({ words }) => words));
const shown = computed(() => {
  const words = wordsOf(wanted.value);
  return props.choices.filter((one) => holds(`${one.label} ${one.words ?? ''}`.toLowerCase(), words));
});
// Their types name the definitions of their properties where the values belong.
const Select = ElSelect as Component;
const Option = ElOption as Component;
/** Nothing is a choice only where it stands among them. */
const empty = (): unknown[] => (props.choices.some((c) => c.value === '') ? [null, undefined] : [null, undefined, '']);
// A list that hung outside an open menu would close the menu when it is pressed.
const inMenu = inject(IN_MENU, false);
</script>

<template>
  <Select
    v-model="chosen"
    :filterable="searched"
    :filter-method="(typed: string) => (wanted = typed)"
    :aria-label="label"
    :placeholder="placeholder"
    :empty-values="empty()"
    :teleported="!inMenu"
    :show-arrow="false"
    :offset="4"
    @visible-change="
      (now: boolean) => {
        open = now;
        wanted = '';
      }
    "
    @keydown.capture="escape"
  >
    <Option v-for="choice in shown" :key="choice.value" :value="choice.value" :label="choice.label">
      <span class="choice"><slot name="picture" :value="choice.value" />{{ choice.label }}</span>
    </Option>
  </Select>
</template>

<style scoped>
.choice {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
