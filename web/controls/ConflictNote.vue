<script setup lang="ts">
/** What is open was saved or deleted in another window meanwhile: both are kept, or the other is taken. */
import { useRouter } from 'vue-router';
import PushButton from './PushButton.vue';

const props = defineProps<{
  name: string;
  /** There is no other: it was deleted. */
  deleted: boolean;
  /** The bench it is on: “slab”, “alpha”. */
  bench: string;
  /** Keeps the work beside the other; answers the id of the copy. */
  keepAsCopy: () => Promise<string | null>;
}>();
defineEmits<{ revert: [] }>();
const router = useRouter();

async function keep(): Promise<void> {
  const id = await props.keepAsCopy();
  if (id) await router.push(`/bench/${props.bench}/${id}`);
}
</script>

<template>
  <p class="conflict" role="alert">
    <template v-if="deleted"
      >“{{ name }}” was deleted in another window. What you see is your work, kept in this browser.</template
    >
    <template v-else
      >“{{ name }}” was saved from another window since this work was begun. Nothing is overwritten.</template
    >
    <PushButton v-if="!deleted" @click="$emit('revert')">Load the other</PushButton>
    <PushButton @click="keep">Keep mine as a copy</PushButton>
  </p>
</template>

<style scoped>
.conflict {
  position: absolute;
  z-index: 5;
  left: 12px;
  bottom: 12px;
  max-width: 60%;
  margin: 0;
  padding: 8px 12px;
  border-radius: var(--r);
  background: var(--warn-wash);
  color: var(--warn);
  display: flex;
  gap: 10px;
  align-items: center;
}
.conflict .push {
  flex: none;
}
</style>
