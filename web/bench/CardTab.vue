<script setup lang="ts">
/** The brush's card: name, credit, tags and notes. */
import { ElInputTag } from 'element-plus';
import type { Brush } from '#core/settings';

defineProps<{ brush: Brush; nameProblem: string | null; base: boolean }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
</script>

<template>
  <div class="tab">
    <p v-if="base" class="muted">A base brush: the first change makes a copy.</p>
    <label class="row"
      ><span class="label">Author</span
      ><input
        class="field"
        maxlength="120"
        :value="brush.card.author"
        @input="
          (e) =>
            edit((b) => {
              b.card.author = (e.target as HTMLInputElement).value;
            })
        "
    /></label>
    <div class="row">
      <span class="label">Tags</span
      ><ElInputTag
        :model-value="brush.card.tags"
        :max="24"
        placeholder="Enter adds a tag"
        aria-label="Tags"
        @update:model-value="
          (v) =>
            edit((b) => {
              b.card.tags = (v ?? []).map((t) => t.trim().slice(0, 40)).filter((t) => t !== '');
            })
        "
      />
    </div>
    <label class="row notes"
      ><span class="label">Notes</span
      ><textarea
        class="field"
        rows="2"
        maxlength="4000"
        :value="brush.card.notes"
        @input="
          (e) =>
            edit((b) => {
              b.card.notes = (e.target as HTMLTextAreaElement).value;
            })
        "
      />
    </label>
  </div>
</template>

<style scoped src="./tab.css"></style>
<style scoped>
.notes {
  align-items: start;
}
.notes textarea {
  height: 72px;
  padding: 4px 8px;
  resize: vertical;
}
</style>
