<script setup lang="ts">
/** Chooses one of the kept alphas, or none. The slot is what is clicked. */
import { ElPopover } from 'element-plus';
import { ref } from 'vue';
import type { Alpha } from '#core/settings';
import { pictureUrl } from '../api/client';
import { useLibrary } from '../stores/library';

defineProps<{ chosen: string | null; none: string }>();
const emit = defineEmits<{ choose: [alpha: Alpha | null] }>();
const library = useLibrary();
const open = ref(false);

function choose(alpha: Alpha | null): void {
  open.value = false;
  emit('choose', alpha);
}
</script>

<template>
  <ElPopover v-model:visible="open" trigger="click" placement="right-start" :width="316">
    <template #reference><slot /></template>
    <div class="alphas">
      <button type="button" :class="{ on: !chosen }" @click="choose(null)"><span class="none" />{{ none }}</button>
      <button v-for="kept in library.alphas" :key="kept.doc.id" type="button" :class="{ on: kept.doc.id === chosen }" @click="choose(kept.doc)">
        <img :src="pictureUrl('alphas', kept.doc.id, kept.revision)" alt="" />{{ kept.doc.card.name }}
      </button>
    </div>
  </ElPopover>
</template>

<style scoped>
.alphas { display: grid; grid-template-columns: repeat(3, 1fr); gap: 8px; max-height: 330px; overflow: auto; }
button { border: 1px solid transparent; border-radius: var(--r); background: none; padding: 4px; cursor: pointer; font-size: var(--small); }
button:hover { background: var(--leaf); }
button.on { border-color: var(--act); }
img, .none { display: block; width: 100%; aspect-ratio: 1; border-radius: 4px; background: #000; margin-bottom: 3px; }
.none { background: #fff; border: 1px solid var(--line); border-radius: 50%; }
</style>
