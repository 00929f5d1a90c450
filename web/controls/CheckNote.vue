<script setup lang="ts">
/** A check that found something: what, with its number, and the click that mends it. */
import { TriangleAlert } from '@lucide/vue';
import PushButton from './PushButton.vue';

defineProps<{ sentence: string; mend?: string }>();
defineEmits<{ mend: [] }>();
</script>

<template>
  <div class="note" role="status">
    <TriangleAlert :size="15" />
    <span>{{ sentence }}</span>
    <PushButton v-if="mend" look="link" @click="$emit('mend')">{{ mend }}</PushButton>
  </div>
</template>

<style scoped>
.note {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 3px 8px;
  padding: 7px 10px;
  border-radius: var(--r);
  background: var(--warn-wash);
  color: var(--warn);
  font-size: 12.5px;
}
.note span {
  flex: 1 1 120px;
}
.note svg {
  flex: none;
}
</style>
