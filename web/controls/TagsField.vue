<script setup lang="ts">
/** Tags: Enter adds one, Backspace takes the last away. */
import { ElInputTag } from 'element-plus';

const MOST_TAGS = 24;
const tags = defineModel<string[]>({ required: true });
</script>

<template>
  <ElInputTag
    :model-value="tags"
    :max="MOST_TAGS"
    placeholder="Enter adds a tag"
    aria-label="Tags"
    @update:model-value="tags = $event ?? []"
  />
</template>
