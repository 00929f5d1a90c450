<script setup lang="ts">
/** Undo, redo and the history of the brush's settings, apart from the strokes on the body. */
import { Archive, History, Redo, Undo } from '@lucide/vue';
import { useShortcuts } from '../keys/shortcuts';
import { useBrushBench } from '../stores/brushBench';
import { ref } from 'vue';
import SavesDialog from './SavesDialog.vue';
import PopMenu from '../controls/PopMenu.vue';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';

const bench = useBrushBench();
const saves = ref(false);
useShortcuts([
  { command: 'settingUndo', run: () => bench.undo() },
  { command: 'settingRedo', run: () => bench.redo() },
]);
</script>

<template>
  <div class="history">
    <ToolButton
      :icon="Undo"
      label="Undo a setting"
      help="Undo the last change of a setting"
      command="settingUndo"
      :disabled="!bench.past.length"
      @click="bench.undo()"
    />
    <ToolButton
      :icon="Redo"
      label="Redo a setting"
      help="Redo a change of a setting"
      command="settingRedo"
      :disabled="!bench.future.length"
      @click="bench.redo()"
    />
    <PopMenu placement="bottom-end" :width="240">
      <template #reference
        ><ToolButton :icon="History" label="History of the settings" :disabled="!bench.past.length"
      /></template>
      <ol>
        <li v-for="(step, i) in [...bench.steps].reverse()" :key="bench.steps.length - i">
          <PushButton
            look="row"
            class="step"
            title="Back to before this change"
            @click="bench.goBack(bench.steps.length - 1 - i)"
          >
            <span>{{ step.label }}</span><b>{{ step.value }}</b>
          </PushButton>
        </li>
      </ol>
    </PopMenu>
    <ToolButton
      :icon="Archive"
      label="Earlier saves"
      help="Earlier saves of this brush: compare, name, restore"
      :disabled="!bench.saved || bench.base"
      @click="saves = true"
    />
    <SavesDialog v-model:visible="saves" />
  </div>
</template>

<style scoped>
.history {
  display: flex;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 300px;
  overflow: auto;
  display: grid;
}
.step {
  width: 100%;
  justify-content: space-between;
  gap: 12px;
}
li span {
  color: var(--ink-2);
}
</style>
