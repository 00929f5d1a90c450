<script setup lang="ts">
/**
 * Whether what is open is saved, kept as a draft or waiting for the server, how far its baking is; and the buttons for
 * it.
 */
import { computed } from 'vue';
import type { OpenState } from '../stores/openOptions';
import PushButton from './PushButton.vue';
import ProgressLine from './ProgressLine.vue';

const props = defineProps<{
  open: OpenState;
  /** Whether the saved one can be gone back to. */
  reverts?: boolean;
}>();
defineEmits<{ save: []; revert: []; cancel: [] }>();
const share = computed(() => props.open.share ?? null);
const time = (at: number): string =>
  new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false });
const state = computed(() => {
  const { unsaved, saving, pending, base } = props.open;
  if (share.value !== null) return `baking, ${Math.round(share.value * 100)} %`;
  if (saving) return 'saving…';
  if (pending) return 'kept here, sent when the server is back';
  if (unsaved) return 'not saved';
  return base ? 'base brush' : 'saved';
});
/** Goes on from that where there is room. */
const draft = computed(() => {
  const { unsaved, saving, pending, keptAt } = props.open;
  return share.value === null && unsaved && !saving && !pending && keptAt ? ` · draft kept ${time(keptAt)}` : '';
});
</script>

<template>
  <span class="state" :class="{ unsaved: open.unsaved }" role="status" :title="state + draft"
    >{{ state }}<span class="draft">{{ draft }}</span></span
  >
  <template v-if="share !== null">
    <ProgressLine class="share" :share="share" label="Baking" />
    <PushButton @click="$emit('cancel')">Cancel</PushButton>
  </template>
  <template v-else>
    <PushButton
      v-if="reverts && open.unsaved && open.saved"
      look="quiet"
      title="Back to the saved one"
      @click="$emit('revert')"
      >Revert</PushButton
    >
    <PushButton
      look="main"
      :disabled="!open.unsaved || open.saving || open.vector === true"
      title="Save (Ctrl+S)"
      @click="$emit('save')"
      >Save</PushButton
    >
  </template>
</template>

<style scoped>
.state {
  color: var(--ink-2);
  font-size: 12px;
  white-space: nowrap;
}
.unsaved {
  color: var(--warn);
}
@media (max-width: 1400px) {
  .draft {
    display: none;
  }
}
.share {
  width: 90px;
}
</style>
