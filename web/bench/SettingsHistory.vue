<script setup lang="ts">
/** Undo, redo and the history of the brush's settings, apart from the strokes on the body. */
import { History, Redo, Undo } from '@lucide/vue';
import { useShortcuts } from '../controls/shortcuts';
import { useBrushBench } from '../stores/brushBench';
import PopMenu from '../controls/PopMenu.vue';

const bench = useBrushBench();
useShortcuts([
  { keys: 'Ctrl+Alt+Z', what: 'Undo the last change of a setting', run: () => bench.undo() },
  { keys: 'Ctrl+Alt+Y', what: 'Redo a change of a setting', run: () => bench.redo() },
]);
</script>

<template>
  <div class="history">
    <button
      type="button"
      :disabled="!bench.past.length"
      title="Undo the last change of a setting (Ctrl+Alt+Z)"
      aria-label="Undo a setting"
      @click="bench.undo()"
    >
      <Undo :size="15" />
    </button>
    <button
      type="button"
      :disabled="!bench.future.length"
      title="Redo a change of a setting (Ctrl+Alt+Y)"
      aria-label="Redo a setting"
      @click="bench.redo()"
    >
      <Redo :size="15" />
    </button>
    <PopMenu placement="bottom-end" :width="240">
      <template #reference
        ><button
          type="button"
          :disabled="!bench.past.length"
          title="History of the settings"
          aria-label="History of the settings"
        >
          <History :size="15" /></button
      ></template>
      <ol>
        <li v-for="(step, i) in [...bench.steps].reverse()" :key="bench.steps.length - i">
          <button type="button" :title="`Back to before this change`" @click="bench.goBack(bench.steps.length - 1 - i)">
            <span>{{ step.label }}</span><b>{{ step.value }}</b>
          </button>
        </li>
      </ol>
    </PopMenu>
  </div>
</template>

<style scoped>
.history {
  display: flex;
}
.history > button,
.history :deep(button) {
  border: 0;
  background: none;
  padding: 6px 5px;
  line-height: 0;
  cursor: pointer;
  border-radius: 4px;
  color: var(--ink-2);
}
button:hover:not(:disabled) {
  background: var(--well);
  color: var(--ink);
}
button:disabled {
  opacity: 0.35;
  cursor: default;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 300px;
  overflow: auto;
  display: grid;
}
li button {
  display: flex;
  width: 100%;
  justify-content: space-between;
  gap: 12px;
  border: 0;
  background: none;
  padding: 5px 8px;
  cursor: pointer;
  border-radius: 4px;
  text-align: left;
}
li button:hover {
  background: var(--act-wash);
}
li span {
  color: var(--ink-2);
}
</style>
