<script setup lang="ts">
/** A picture that the server has by its content; nothing where it can’t be had. */
import { computedAsync, useObjectUrl } from '@vueuse/core';
import { getBlob } from '../api/client';

const props = defineProps<{ blob: string; type: string; alt: string }>();
const bytes = computedAsync(async () => {
  const { blob, type } = props;
  const got = await getBlob(blob).catch(() => null);
  return got && new Blob([got], { type });
}, null);
const url = useObjectUrl(bytes);
</script>

<template>
  <img :src="url" :alt="alt" />
</template>
