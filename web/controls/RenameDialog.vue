<script setup lang="ts">
/** Asks for a new name; why it can’t be had is said beside it. */
import { ref, watch } from 'vue';
import DialogBox from './DialogBox.vue';
import PushButton from './PushButton.vue';
import TextField from './TextField.vue';

/** The name as it is; null while nothing is renamed. `rename` throws a sentence where it can’t. */
const props = defineProps<{ name: string | null; rename: (name: string) => Promise<void> }>();
const emit = defineEmits<{ close: [] }>();
const wanted = ref('');
const problem = ref<string | null>(null);
watch(
  () => props.name,
  (name) => {
    wanted.value = name ?? '';
    problem.value = null;
  },
);

async function go(): Promise<void> {
  const { name } = props;
  try {
    await props.rename(wanted.value);
    // What was asked meanwhile stays open.
    if (props.name === name) emit('close');
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error);
  }
}
</script>

<template>
  <DialogBox :visible="name !== null" title="Rename" :width-px="380" @update:visible="emit('close')">
    <form @submit.prevent="go">
      <TextField v-model="wanted" :bad="!!problem" maxlength="80" aria-label="New name" autofocus />
      <p v-if="problem" class="sentence-bad" role="alert">{{ problem }}</p>
    </form>
    <template #footer>
      <PushButton @click="emit('close')">Cancel</PushButton>
      <PushButton look="main" @click="go">Rename</PushButton>
    </template>
  </DialogBox>
</template>
