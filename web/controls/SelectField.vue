<script setup lang="ts">
/** Chooses one of a list, which can be searched by typing. Each choice may have a picture before its name. */
import { ElOption, ElSelect } from 'element-plus';
import type { Component } from 'vue';

interface Choice {
  value: string;
  label: string;
}

defineProps<{ label: string; choices: readonly Choice[]; placeholder?: string }>();
const chosen = defineModel<string>({ required: true });
// Their types name the definitions of their properties where the values belong.
const Select = ElSelect as Component;
const Option = ElOption as Component;
</script>

<template>
  <Select v-model="chosen" filterable :aria-label="label" :placeholder="placeholder">
    <Option v-for="choice in choices" :key="choice.value" :value="choice.value" :label="choice.label">
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
