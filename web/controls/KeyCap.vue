<script setup lang="ts">
/** The key of a command within a sentence, or the command’s place in Settings where it has none. */
import { computed } from 'vue';
import { keyOf } from '../keys/chosen';
import type { CommandId } from '../keys/commands';

const props = defineProps<{ command: CommandId }>();
const key = computed(() => keyOf(props.command) || 'its key (none is set)');
</script>

<template>
  <kbd>{{ key }}</kbd>
</template>

<style scoped>
kbd {
  font: inherit;
  font-weight: 600;
  border: 1px solid var(--line);
  border-radius: 4px;
  background: var(--leaf);
  padding: 0 5px;
  white-space: nowrap;
}
</style>
