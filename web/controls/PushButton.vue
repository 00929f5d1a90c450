<script setup lang="ts">
/** A button with words or a face of its own on it. Given `on`, it is one that stays pressed. */
import { ElButton } from 'element-plus';

withDefaults(
  defineProps<{
    /** `row` is a line of a list, `face` has no looks but its own. */
    look?: 'plain' | 'main' | 'quiet' | 'link' | 'row' | 'face';
    on?: boolean | undefined;
    small?: boolean;
  }>(),
  { look: 'plain', on: undefined, small: false },
);
</script>

<template>
  <ElButton
    :class="['push', `look-${look}`, { on, small }]"
    :type="look === 'main' ? 'primary' : 'default'"
    :aria-pressed="on"
  >
    <slot />
  </ElButton>
</template>

<style scoped>
.small {
  height: 24px;
  padding: 0 8px;
  font-size: 12px;
}
.on:not(.look-face) {
  --el-button-bg-color: var(--act-wash);
  --el-button-hover-bg-color: var(--act-wash);
  --el-button-border-color: var(--act);
  --el-button-hover-border-color: var(--act);
  --el-button-text-color: var(--act-deep);
  --el-button-hover-text-color: var(--act-deep);
}
.look-main {
  --el-button-hover-bg-color: var(--act-deep);
  --el-button-hover-border-color: var(--act-deep);
}
.look-quiet,
.look-row {
  --el-button-border-color: transparent;
  --el-button-hover-border-color: transparent;
  --el-button-disabled-border-color: transparent;
  --el-button-bg-color: transparent;
  --el-button-hover-bg-color: var(--well);
  --el-button-disabled-bg-color: transparent;
}
.look-row {
  --el-button-hover-bg-color: var(--act-wash);
  display: flex;
  height: auto;
  min-width: 0;
  padding: 5px 8px;
  font-weight: 400;
  line-height: 1.3;
  justify-content: flex-start;
  text-align: left;
}
.look-row.on {
  --el-button-border-color: transparent;
  --el-button-hover-border-color: transparent;
  font-weight: 600;
}
.look-link,
.look-face {
  height: auto;
  border: 0;
  padding: 0;
  background: none;
  white-space: normal;
  text-align: left;
  line-height: inherit;
  justify-content: flex-start;
}
.look-link {
  --el-button-text-color: var(--act-deep);
  --el-button-hover-text-color: var(--act-deep);
  font-weight: 600;
}
.look-link:hover {
  text-decoration: underline;
}
.look-face {
  font-weight: 400;
}
</style>
