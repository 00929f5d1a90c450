<script setup lang="ts">
/** Takes back what was done among what is kept, and does it again. */
import { Redo2, Undo2 } from '@lucide/vue';
import { useRackSteps } from '../stores/rackSteps';
import ToolButton from './ToolButton.vue';

const steps = useRackSteps();
</script>

<template>
  <ToolButton :icon="Undo2" label="Undo" command="undo" :disabled="!steps.canUndo" @click="steps.undo" />
  <ToolButton :icon="Redo2" label="Redo" command="redo" :disabled="!steps.canRedo" @click="steps.redo" />
</template>
