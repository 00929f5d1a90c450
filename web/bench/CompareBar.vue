<script setup lang="ts">
/** Compares the brush with a pinned version, or with the saved one while none is pinned. */
import { Columns2, Pin, PinOff } from '@lucide/vue';
import { computed } from 'vue';
import { useShortcuts } from '../keys/shortcuts';
import { useCompare } from '../stores/compare';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';
import { inHint } from '../keys/chosen';

const compare = useCompare();
const name = computed(() => (compare.isPinned ? 'pinned' : 'saved'));
const showing = computed({
  get: () => (compare.showing ? 'other' : 'now'),
  set: (version) => (compare.showing = version === 'other'),
});
const versions = computed(() => [
  { value: 'now', label: 'now', help: `The brush as it is now${inHint('compare')}` },
  {
    value: 'other',
    label: name.value,
    help: compare.differs ? `The ${name.value} version${inHint('compare')}` : `The ${name.value} version is the same`,
    disabled: !compare.differs,
  },
]);
useShortcuts([
  { command: 'compare', what: 'The pinned, or the saved, version on the proof, and back', run: compare.toggle },
  { command: 'pin', run: () => compare.pin() },
]);
</script>

<template>
  <div class="compare">
    <ToolButton
      :icon="Pin"
      label="Pin this version"
      :help="compare.isPinned ? 'Pin the brush as it is now instead' : 'Pin the brush as it is now, to compare with'"
      command="pin"
      @click="compare.pin()"
    />
    <ToolButton v-if="compare.isPinned" :icon="PinOff" label="Take the pin away" @click="compare.unpin()" />
    <template v-if="compare.other">
      <ChoiceBar v-model="showing" class="pair" label="Version on the proof" :options="versions" />
      <ToolButton
        :icon="Columns2"
        label="Side by side"
        :help="`Now and ${name} side by side`"
        :on="compare.beside"
        @click="compare.beside = !compare.beside"
      />
      <PushButton v-if="compare.showing && compare.differs" look="link" class="take" @click="compare.takeOther()">
        Use this version
      </PushButton>
    </template>
  </div>
</template>

<style scoped>
.compare {
  display: flex;
  align-items: center;
  gap: 2px;
  background: color-mix(in srgb, var(--page) 94%, transparent);
  border-radius: var(--r);
  padding: 2px 5px;
  height: 32px;
}
.take {
  margin-left: 4px;
}
.pair {
  margin: 0 2px;
  border-radius: 12px;
}
</style>
