<script setup lang="ts">
/** One earlier save in a list: its picture, its name, until when it stood, and what differs. */
import type { Past } from '../api/client';
import TextField from './TextField.vue';
import { when } from './when';

defineProps<{ save: Past; picture: string; differs: string; problem: string | null }>();
const emit = defineEmits<{ name: [name: string] }>();
</script>

<template>
  <li class="save">
    <img v-if="picture" :src="picture" width="72" height="72" alt="" />
    <span v-else class="picture" />
    <div class="about">
      <TextField
        :model-value="save.name"
        class="name"
        maxlength="80"
        :placeholder="`Revision ${save.revision}`"
        :aria-label="`Name of revision ${save.revision}`"
        title="With a name it stays for good; without, older ones are thinned out"
        @change="(name: string) => emit('name', name)"
      />
      <span class="muted">until {{ when(save.savedAt) }}</span>
      <span v-if="problem" class="sentence-bad">{{ problem }}</span>
      <span v-else class="muted">{{ differs }}</span>
    </div>
    <div class="acts"><slot /></div>
  </li>
</template>

<style scoped>
.save {
  display: flex;
  gap: 12px;
  align-items: center;
}
img,
.picture {
  flex: none;
  width: 72px;
  height: 72px;
  border-radius: var(--r);
  background: var(--clay);
}
.about {
  display: grid;
  flex: 1;
  gap: 2px;
  min-width: 0;
}
.name {
  max-width: 260px;
}
.acts {
  display: grid;
  gap: 5px;
}
.acts :deep(.push) {
  margin: 0;
}
</style>
