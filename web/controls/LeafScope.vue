<script setup lang="ts">
/** A leaf whose keys work while the hand is on it: two leaves may have views with the same keys. */
import { provide } from 'vue';
import { KEYS_HERE } from '../keys/shortcuts';

const props = defineProps<{ here: boolean }>();
provide(KEYS_HERE, () => props.here);
</script>

<template><slot /></template>
