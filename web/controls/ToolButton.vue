<script setup lang="ts">
/** A tool: a picture of what it does, its name and its key in the hint. Given `on`, it is one that stays pressed. */
import { ElButton } from 'element-plus';
import { computed, type Component } from 'vue';
import { inHint } from '../keys/chosen';
import type { CommandId } from '../keys/commands';

const props = withDefaults(
  defineProps<{
    icon: Component;
    /** What it is called, to whom can't see the picture too. */
    label: string;
    /** What a key does as well; the hint names that key. */
    command?: CommandId | undefined;
    /** The hint, where more is to be said than the name. */
    help?: string | undefined;
    on?: boolean | undefined;
    /** `round` lies on a view, `bare` stands in a line of words. */
    look?: 'round' | 'bare';
  }>(),
  { on: undefined, look: 'bare' },
);
const hint = computed(() => `${props.help ?? props.label}${props.command ? inHint(props.command) : ''}`);
</script>

<template>
  <ElButton :class="['tool-button', `look-${look}`, { on }]" :title="hint" :aria-label="label" :aria-pressed="on">
    <component :is="icon" :size="look === 'round' ? 16 : 15" />
  </ElButton>
</template>

<style scoped>
.tool-button {
  flex: none;
}
.look-round {
  --el-button-bg-color: var(--page);
  --el-button-hover-bg-color: var(--field);
  --el-button-disabled-bg-color: var(--page);
  --el-button-disabled-text-color: color-mix(in srgb, var(--ink-3) 60%, var(--page));
  --el-button-hover-border-color: var(--line);
  width: 30px;
  padding: 0;
  border-radius: 50%;
}
.look-round:disabled {
  opacity: 1;
}
.look-round.on {
  --el-button-bg-color: var(--act);
  --el-button-border-color: var(--act);
  --el-button-text-color: var(--on-act);
  --el-button-hover-bg-color: var(--act-deep);
  --el-button-hover-border-color: var(--act-deep);
  --el-button-hover-text-color: var(--on-act);
}
.look-bare {
  --el-button-bg-color: transparent;
  --el-button-hover-bg-color: var(--well);
  --el-button-disabled-bg-color: transparent;
  --el-button-text-color: var(--ink-2);
  height: auto;
  border: 0;
  border-radius: 4px;
  padding: 5px;
  line-height: 0;
}
.look-bare:disabled {
  opacity: 0.35;
}
.look-bare.on {
  --el-button-bg-color: var(--act-wash);
  --el-button-hover-bg-color: var(--act-wash);
  --el-button-text-color: var(--act-deep);
  --el-button-hover-text-color: var(--act-deep);
}
</style>
