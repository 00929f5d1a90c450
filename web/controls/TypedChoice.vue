<script setup lang="ts">
/** Chooses one of a list, or takes what is typed instead. */
import { ElOption, ElSelect } from 'element-plus';
import type { Component } from 'vue';

defineProps<{
  label: string;
  choices: readonly { value: string; label: string; help?: string }[];
  placeholder: string;
}>();
// Their types name the definitions of their properties where the values belong.
const Select = ElSelect as Component;
const Option = ElOption as Component;
const chosen = defineModel<string>({ required: true });
</script>

<template>
  <Select
    :model-value="chosen"
    filterable
    allow-create
    clearable
    default-first-option
    :aria-label="label"
    :placeholder="placeholder"
    :empty-values="['']"
    :value-on-clear="''"
    :offset="4"
    @update:model-value="(value: string | undefined) => (chosen = value ?? '')"
  >
    <Option v-for="choice in choices" :key="choice.value" :value="choice.value" :label="choice.label">
      <span class="choice"
        >{{ choice.label }}<small v-if="choice.help">{{ choice.help }}</small></span
      >
    </Option>
  </Select>
</template>

<style scoped>
.choice {
  display: flex;
  justify-content: space-between;
  gap: 16px;
}
small {
  color: var(--ink-2);
}
</style>
