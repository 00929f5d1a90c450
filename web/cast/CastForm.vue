<script setup lang="ts">
/** The name of a new cast, and the button that makes it, or gives it up while it runs. */
import { ref } from 'vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';

const props = defineProps<{
  /** The name it gets where none is typed. */
  suggested: string;
  /** Share of the cast that is done; null while none runs. */
  share: number | null;
  ready: boolean;
  /** Casts under this name; whether it is kept. */
  cast: (name: string) => Promise<boolean>;
}>();
defineEmits<{ cancel: [] }>();
const typed = ref('');

async function make(): Promise<void> {
  if (await props.cast(typed.value.trim() || props.suggested)) typed.value = '';
}
</script>

<template>
  <form class="row" @submit.prevent="make">
    <span class="label">Name</span>
    <span class="go">
      <TextField v-model="typed" maxlength="80" :placeholder="suggested" aria-label="Name of the alpha" />
      <PushButton v-if="share === null" look="main" native-type="submit" :disabled="!ready">Cast</PushButton>
      <PushButton v-else @click="$emit('cancel')">Cancel · {{ (share * 100).toFixed(0) }} %</PushButton>
    </span>
  </form>
</template>

<style scoped>
.row {
  grid-template-columns: 50px 1fr;
}
.go {
  display: flex;
  gap: 8px;
}
</style>
