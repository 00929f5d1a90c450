<script setup lang="ts">
/** Settings of a cast in tabs: tones, what the source adds (its frame), and output. */
import { ref } from 'vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import CastOutput from './CastOutput.vue';
import CastTones from './CastTones.vue';

const tab = ref<'tones' | 'frame' | 'output'>('tones');
</script>

<template>
  <ChoiceBar
    v-model="tab"
    label="Settings of the cast"
    :options="[
      { value: 'tones', label: 'Tones' },
      { value: 'frame', label: 'Frame' },
      { value: 'output', label: 'Output' },
    ]"
  />
  <CastTones v-if="tab === 'tones'" />
  <slot v-else-if="tab === 'frame'" />
  <CastOutput v-else />
</template>
