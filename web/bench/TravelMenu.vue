<script setup lang="ts">
/** Copies groups of this brush's settings, and pastes those that were copied from another. */
import { ClipboardPaste } from '@lucide/vue';
import { ref, watch } from 'vue';
import { SETTING_GROUPS, type Brush, type SettingGroup } from '#core/settings';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import TickBox from '../controls/TickBox.vue';
import ToolButton from '../controls/ToolButton.vue';
import { tellNotice } from '../controls/undoNotice';
import { useCopiedSettings } from '../stores/copiedSettings';

const props = defineProps<{ brush: Brush; /** The group whose tab is open. */ open: SettingGroup | null }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const copied = useCopiedSettings();
const shown = ref(false);
const chosen = ref<ReadonlySet<SettingGroup>>(new Set());
watch(shown, (now) => {
  if (now) chosen.value = new Set(props.open ? [props.open] : SETTING_GROUPS);
});
const LABELS: Record<SettingGroup, string> = {
  touch: 'Touch',
  stroke: 'Stroke',
  drift: 'Drift',
  pen: 'Pen',
  tooth: 'Tooth',
  colour: 'Colour',
};

function tick(group: SettingGroup, on: boolean): void {
  const next = new Set(chosen.value);
  if (on) next.add(group);
  else next.delete(group);
  chosen.value = next;
}
function copy(): void {
  copied.copy(
    props.brush,
    SETTING_GROUPS.filter((group) => chosen.value.has(group)),
  );
  shown.value = false;
  tellNotice(`Copied: ${copied.told}. Paste them on another brush, or on those chosen in the rack.`);
}
function paste(): void {
  emit('edit', (brush) => copied.paste(brush));
  shown.value = false;
}
</script>

<template>
  <PopMenu v-model:visible="shown" placement="bottom-end" :width="230">
    <template #reference
      ><ToolButton :icon="ClipboardPaste" label="Copy or paste settings" help="Copy or paste groups of settings"
    /></template>
    <div class="menu">
      <div class="heading">Copy from this brush</div>
      <div class="groups">
        <TickBox
          v-for="group in SETTING_GROUPS"
          :key="group"
          :model-value="chosen.has(group)"
          @update:model-value="(on) => tick(group, on)"
          >{{ LABELS[group] }}</TickBox
        >
      </div>
      <PushButton :disabled="chosen.size === 0" @click="copy">Copy</PushButton>
      <div class="heading">Paste onto this brush</div>
      <p class="muted">{{ copied.told ? `It takes ${copied.told}.` : 'Nothing is copied yet.' }}</p>
      <PushButton :disabled="!copied.told" @click="paste">Paste</PushButton>
    </div>
  </PopMenu>
</template>

<style scoped>
.menu {
  display: grid;
  gap: 8px;
}
.groups {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
</style>
