<script setup lang="ts">
/**
 * Whether what is open is saved, kept as a draft or waiting for the server, how far its baking is; and the buttons for
 * it.
 */
import { ElButton, ElProgress } from 'element-plus';
import { computed } from 'vue';
import type { OpenState } from '../stores/openWays';

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
  const { unsaved, saving, waiting, keptAt, base } = props.open;
  if (share.value !== null) return `baking, ${Math.round(share.value * 100)} %`;
  if (saving) return 'saving…';
  if (waiting) return 'kept here, sent when the server is back';
  if (unsaved) return keptAt ? `not saved · draft kept ${time(keptAt)}` : 'not saved';
  return base ? 'base brush' : 'saved';
});
</script>

<template>
  <span class="state" :class="{ unsaved: open.unsaved }" role="status">{{ state }}</span>
  <template v-if="share !== null">
    <ElProgress
      class="share"
      :percentage="Math.round(share * 100)"
      :show-text="false"
      :stroke-width="6"
      aria-label="Baking"
    />
    <ElButton @click="$emit('cancel')">Cancel</ElButton>
  </template>
  <template v-else>
    <ElButton v-if="reverts && open.unsaved && open.saved" text title="Back to the saved one" @click="$emit('revert')"
      >Revert</ElButton
    >
    <ElButton
      type="primary"
      :disabled="!open.unsaved || open.saving || open.vector === true"
      title="Save (Ctrl+S)"
      @click="$emit('save')"
      >Save</ElButton
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
.share {
  width: 90px;
}
</style>
