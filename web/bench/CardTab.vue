<script setup lang="ts">
/** The brush's card: name, credit, tags and notes. */
import type { Brush } from '#core/settings';
import TextField from '../controls/TextField.vue';
import TagsField from '../controls/TagsField.vue';
import ThumbnailFields from './ThumbnailFields.vue';

defineProps<{ brush: Brush; nameProblem: string | null; base: boolean }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const edit = (change: (brush: Brush) => void): void => emit('edit', change);
const MOST_LETTERS = 40;
function takeTags(tags: string[]): void {
  edit((b) => (b.card.tags = tags.map((t) => t.trim().slice(0, MOST_LETTERS)).filter((t) => t !== '')));
}
</script>

<template>
  <div class="tab">
    <p v-if="base" class="muted">A base brush: the first change makes a copy.</p>
    <label class="row"
      ><span class="label">Author</span
      ><TextField
        maxlength="120"
        :model-value="brush.card.author"
        @update:model-value="edit((b) => (b.card.author = $event))"
    /></label>
    <div class="row">
      <span class="label">Tags</span><TagsField :model-value="brush.card.tags" @update:model-value="takeTags" />
    </div>
    <label class="row notes"
      ><span class="label">Notes</span
      ><TextField
        :rows="2"
        maxlength="4000"
        :model-value="brush.card.notes"
        @update:model-value="edit((b) => (b.card.notes = $event))"
      />
    </label>
    <ThumbnailFields :brush="brush" @edit="edit" />
  </div>
</template>

<style scoped>
.notes {
  align-items: start;
}
</style>
