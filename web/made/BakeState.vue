<script setup lang="ts">
/** Whether the open thing is saved; while it is baked, how far it is, and Cancel. */
import { computed } from 'vue';

const props = defineProps<{ unsaved: boolean; keptAt: number | null; share: number | null; disabled?: boolean }>();
defineEmits<{ save: []; cancel: []; revert: [] }>();
const state = computed(() => {
  if (props.share !== null) return `baking, ${Math.round(props.share * 100)} %`;
  if (!props.unsaved) return 'saved';
  return props.keptAt ? `not saved · draft kept ${new Date(props.keptAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}` : 'not saved';
});
</script>

<template>
  <span class="state" :class="{ unsaved }" role="status">{{ state }}</span>
  <template v-if="share !== null">
    <progress :value="share" max="1" aria-label="Baking" />
    <button class="btn" type="button" @click="$emit('cancel')">Cancel</button>
  </template>
  <template v-else>
    <button v-if="unsaved" class="btn quiet" type="button" title="Back to the saved one" @click="$emit('revert')">Revert</button>
    <button class="btn main" type="button" :disabled="!unsaved || disabled" title="Save (Ctrl+S)" @click="$emit('save')">Save</button>
  </template>
</template>

<style scoped>
.state { color: var(--ink-2); font-size: 12px; white-space: nowrap; }
.unsaved { color: var(--warn); }
progress { width: 90px; accent-color: var(--act); }
</style>
