<script setup lang="ts">
/** Compares the brush with a pinned version, or with the saved one while none is pinned. */
import { Columns2, Pin, PinOff } from '@lucide/vue';
import { computed } from 'vue';
import { useShortcuts } from '../controls/shortcuts';
import { useCompare } from '../stores/compare';

const compare = useCompare();
const name = computed(() => (compare.isPinned ? 'pinned' : 'saved'));
useShortcuts([
  { keys: 'A', what: 'The pinned, or the saved, version on the proof, and back', run: compare.toggle },
  { keys: 'P', what: 'Pin this version to compare with', run: compare.pin },
]);
</script>

<template>
  <div class="compare">
    <button
      type="button"
      :title="
        compare.isPinned ? 'Pin the brush as it is now instead (P)' : 'Pin the brush as it is now, to compare with (P)'
      "
      aria-label="Pin this version"
      @click="compare.pin()"
    >
      <Pin :size="15" />
    </button>
    <button
      v-if="compare.isPinned"
      type="button"
      title="Take the pin away"
      aria-label="Take the pin away"
      @click="compare.unpin()"
    >
      <PinOff :size="15" />
    </button>
    <template v-if="compare.other">
      <div class="pair" role="radiogroup" aria-label="Version on the proof">
        <button
          type="button"
          role="radio"
          :aria-checked="!compare.showing"
          :class="{ on: !compare.showing }"
          title="The brush as it is now (A)"
          @click="compare.showing = false"
        >
          now
        </button>
        <button
          type="button"
          role="radio"
          :aria-checked="compare.showing"
          :class="{ on: compare.showing }"
          :disabled="!compare.differs"
          :title="compare.differs ? `The ${name} version (A)` : `The ${name} version is the same`"
          @click="compare.showing = true"
        >
          {{ name }}
        </button>
      </div>
      <button
        type="button"
        :class="{ on: compare.beside }"
        :aria-pressed="compare.beside"
        :title="`Now and ${name} side by side`"
        aria-label="Side by side"
        @click="compare.beside = !compare.beside"
      >
        <Columns2 :size="15" />
      </button>
      <button v-if="compare.showing && compare.differs" class="btn link" type="button" @click="compare.takeOther()">
        Take it
      </button>
    </template>
  </div>
</template>

<style scoped>
.compare {
  display: flex;
  align-items: center;
  gap: 2px;
  background: rgb(243 241 237 / 94%);
  border-radius: var(--r);
  padding: 2px 5px;
  height: 32px;
}
.compare > button:not(.btn) {
  border: 0;
  background: none;
  padding: 6px 5px;
  line-height: 0;
  cursor: pointer;
  border-radius: 4px;
  color: var(--ink-2);
}
.compare > button:not(.btn):hover {
  background: var(--well);
  color: var(--ink);
}
.compare > .on {
  color: var(--act-deep) !important;
  background: var(--act-wash) !important;
}
.pair {
  display: flex;
  border: 1px solid var(--line);
  border-radius: 12px;
  overflow: hidden;
  margin: 0 2px;
}
.pair button {
  border: 0;
  background: none;
  padding: 2px 9px;
  font-size: 12px;
  cursor: pointer;
  color: var(--ink-2);
}
.pair .on {
  background: var(--act-wash);
  color: var(--act-deep);
  font-weight: 600;
}
.pair button:disabled {
  opacity: 0.4;
  cursor: default;
}
.btn {
  margin-left: 4px;
}
</style>
