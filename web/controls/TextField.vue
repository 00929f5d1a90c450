<script setup lang="ts">
/** Typed words, in one line or in several. What falls through (maxlength, placeholder) reaches the field itself. */
import { ElInput } from 'element-plus';

withDefaults(
  defineProps<{
    /** Lines it shows; more than one make it a field that wraps and grows by its corner. */
    rows?: number;
    bad?: boolean;
  }>(),
  { rows: 1, bad: false },
);
const typed = defineModel<string>({ required: true });
</script>

<template>
  <ElInput v-model="typed" :class="{ bad }" :type="rows > 1 ? 'textarea' : 'text'" :rows="rows" />
</template>

<style scoped>
.bad {
  --el-input-border-color: var(--bad);
  --el-input-hover-border-color: var(--bad);
}
</style>
