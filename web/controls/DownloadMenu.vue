<script setup lang="ts">
/** The files an alpha can be downloaded as, behind one button: the slot. */
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus';
import { computed } from 'vue';

const props = defineProps<{
  id: string;
  vector: boolean;
  /** It has colours beside its heights. */
  colours?: boolean;
}>();
const files = computed(() => [
  ...(props.vector
    ? [{ ending: 'exr', label: 'EXR, float vectors' }]
    : [
        { ending: 'png', label: 'PNG, 16 bit' },
        { ending: 'tiff', label: 'TIFF, 32-bit float' },
        { ending: 'exr', label: 'EXR, float' },
      ]),
  ...(props.colours ? [{ ending: 'colours', label: 'Colours, PNG' }] : []),
]);
</script>

<template>
  <ElDropdown trigger="click">
    <slot />
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem v-for="file in files" :key="file.ending">
          <a :href="`/api/alphas/${id}/${file.ending}`" download>{{ file.label }}</a>
        </ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
a {
  color: inherit;
  text-decoration: none;
}
</style>
