<script setup lang="ts">
/** The brush was saved from another window meanwhile: both are kept, or the other is taken. */
import { ElDialog } from 'element-plus';
import { useBrushBench } from '../stores/brushBench';

defineEmits<{ keep: [] }>();
const bench = useBrushBench();
</script>

<template>
  <ElDialog v-model="bench.conflict" title="Changed in another window" width="420px" :close-on-click-modal="false">
    <p>“{{ bench.doc?.card.name }}” was saved from another window since it was opened here. Nothing is overwritten: keep your work as a copy beside it, or load the other and leave yours.</p>
    <template #footer>
      <button class="btn" type="button" @click="bench.revert()">Load the other</button>
      <button class="btn main" type="button" @click="$emit('keep')">Keep mine as a copy</button>
    </template>
  </ElDialog>
</template>
