<script setup lang="ts">
/** What is done to the alpha inside this brush’s form; the alpha itself stays as others have it. */
import { computed } from 'vue';
import { BrushSchema, INSIDE_DEFAULTS, type Brush } from '#core/settings';
import PopMenu from '../controls/PopMenu.vue';
import SettingList from '../controls/SettingList.vue';
import PushButton from '../controls/PushButton.vue';
import TickBox from '../controls/TickBox.vue';

const props = defineProps<{ brush: Brush }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const SWITCHES = [
  { key: 'invert', label: 'Invert', help: 'What stood up goes down, by as much' },
  { key: 'mirrorAcross', label: 'Mirror left and right', help: 'Each repeat by itself' },
  { key: 'mirrorDown', label: 'Mirror up and down', help: 'Each repeat by itself' },
] as const;
const summary = computed(() => {
  const { across, down, fade, invert, mirrorAcross, mirrorDown } = props.brush.form;
  return [
    across > 1 || down > 1 ? `${across} × ${down}` : '',
    fade > 0 ? 'faded' : '',
    invert ? 'inverted' : '',
    mirrorAcross || mirrorDown ? 'mirrored' : '',
  ]
    .filter(Boolean)
    .join(', ');
});
</script>

<template>
  <PopMenu placement="right-start" :width="300">
    <template #reference>
      <PushButton
        small
        :class="{ set: summary }"
        :title="`Repeat, fade, invert or mirror the alpha in this brush alone. Now: ${summary || 'as it is'}`"
        >Inside…</PushButton
      >
    </template>
    <div class="menu">
      <SettingList
        :schema="BrushSchema"
        :of="brush"
        :paths="['form.across', 'form.down', 'form.fade']"
        @edit="(change) => emit('edit', change)"
      />
      <TickBox
        v-for="{ key, label, help } in SWITCHES"
        :key="key"
        :model-value="brush.form[key]"
        :title="help"
        @update:model-value="(on) => emit('edit', (b) => (b.form[key] = on))"
      >
        {{ label }}
      </TickBox>
      <p class="muted">
        Repeated, it is as much shallower as it is smaller. Other brushes of this alpha stay as they are.
      </p>
      <PushButton
        :disabled="summary === ''"
        @click="
          emit('edit', (b) => {
            Object.assign(b.form, INSIDE_DEFAULTS);
          })
        "
        >As it is</PushButton
      >
    </div>
  </PopMenu>
</template>

<style scoped>
.menu {
  display: grid;
  gap: 6px;
  --label: 82px;
}
</style>
