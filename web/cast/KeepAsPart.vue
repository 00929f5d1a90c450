<script setup lang="ts">
/** The form in the frame as a part: captured at a click, and opened on its bench. */
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import PushButton from '../controls/PushButton.vue';
import { sentence, useConnection } from '../stores/connection';
import { useNewPart, type Captured } from '../stores/newPart';

const props = defineProps<{ ready: boolean; capture: () => Promise<Captured> }>();
const emit = defineEmits<{ failed: [why: string] }>();
const router = useRouter();
const connection = useConnection();
const fresh = useNewPart();
const busy = ref(false);

async function keep(): Promise<void> {
  const from = router.currentRoute.value.fullPath;
  busy.value = true;
  try {
    const id = await fresh.add(await props.capture());
    if (router.currentRoute.value.fullPath === from) await router.push(`/bench/part/${id}`);
  } catch (error) {
    connection.noticed(error);
    emit('failed', `No part was captured. ${sentence(error)}`);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <PushButton
    :disabled="!ready || busy"
    title="What stands out of the ground in the frame becomes a light mesh with a flat back"
    @click="keep"
  >
    {{ busy ? 'Capturing…' : 'Capture as a part' }}
  </PushButton>
</template>
