<script setup lang="ts">
/** Floor or crown: found from the form, or set by hand in body units. */
import NumberField from '../controls/NumberField.vue';
import PushButton from '../controls/PushButton.vue';

defineProps<{ label: string; /** Null when it is found. */ value: number | null; found: number }>();
const emit = defineEmits<{ put: [value: number | null] }>();
const FARTHEST = 4;
</script>

<template>
  <NumberField
    class="height"
    :label="label"
    unit="body units"
    :model-value="value ?? found"
    :min="-FARTHEST"
    :max="FARTHEST"
    :step="0.005"
    @update:model-value="emit('put', $event)"
  >
    <PushButton
      class="auto"
      :on="value === null"
      :title="value === null ? 'Found from the form' : 'Find it from the form again'"
      @click.prevent="emit('put', value === null ? found : null)"
    >
      auto
    </PushButton>
  </NumberField>
</template>

<style scoped>
.height {
  --name: 40px;
}
.auto {
  width: 40px;
  height: 26px;
  padding: 0;
  font-weight: 400;
}
</style>
