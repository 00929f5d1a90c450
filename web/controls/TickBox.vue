<script setup lang="ts">
/** Something that is so or isn't. */
import { ElCheckbox } from 'element-plus';

const ticked = defineModel<boolean>({ required: true });
</script>

<template>
  <ElCheckbox v-model="ticked"><slot /></ElCheckbox>
</template>
