<script setup lang="ts">
/** The brush was saved or deleted in another window meanwhile: both are kept, or the other is taken. */
import { useBrushBench } from '../stores/brushBench';
import PushButton from '../controls/PushButton.vue';
import DialogBox from '../controls/DialogBox.vue';

defineEmits<{ keep: [] }>();
const bench = useBrushBench();
</script>

<template>
  <DialogBox
    v-model:visible="bench.conflict"
    :title="bench.deleted ? 'Deleted in another window' : 'Changed in another window'"
    :width-px="420"
    :close-on-click-modal="false"
  >
    <p v-if="bench.deleted">
      “{{ bench.doc?.card.name }}” was deleted in another window since it was opened here. Your work is still here: keep
      it as a copy.
    </p>
    <p v-else>
      “{{ bench.doc?.card.name }}” was saved from another window since it was opened here. Nothing is overwritten: keep
      your work as a copy beside it, or load the other and leave yours.
    </p>
    <template #footer>
      <PushButton v-if="!bench.deleted" @click="bench.revert()">Load the other</PushButton>
      <PushButton look="main" @click="$emit('keep')">Keep mine as a copy</PushButton>
    </template>
  </DialogBox>
</template>
