<script setup lang="ts">
/**
 * A name that is cut where there is no room, but never at its end where copies and casts are counted: that is what
 * differs.
 */
import { computed } from 'vue';
import { partsOfName } from './partsOfName';

const props = defineProps<{ name: string }>();
const parts = computed(() => partsOfName(props.name));
</script>

<template>
  <span class="cut" :title="name"
    ><span class="stem">{{ parts.stem }}</span
    ><span v-if="parts.tail" class="tail">{{ parts.tail }}</span></span
  >
</template>

<style scoped>
.cut {
  display: inline-flex;
  max-width: 100%;
  min-width: 0;
  vertical-align: bottom;
}
.stem {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
.tail {
  flex: none;
  white-space: pre;
}
</style>
