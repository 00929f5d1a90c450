<script setup lang="ts">
/** Before something is deleted that others name: what would break, and what would only lose where it came from. */
import { computed } from 'vue';
import { SINGULAR } from '#core/stored';
import type { User } from '../api/client';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';
import { orSay } from '../controls/undoNotice';
import { useStoredThings } from '../stores/storedThings';
import { useLibrary } from '../stores/library';

const things = useStoredThings();
const library = useLibrary();
const asked = computed(() => things.asked);
const visible = computed({ get: () => asked.value !== null, set: () => void things.answer(false) });
const need = computed(() => (asked.value?.users ?? []).filter(({ needed }) => needed));
const made = computed(() => (asked.value?.users ?? []).filter(({ needed }) => !needed));

/** Where it is opened; null where it has no bench of its own. */
function bench({ collection, id }: User): string | null {
  switch (collection) {
    case 'brushes':
      return `/bench/brush/${id}`;
    case 'alphas':
      return `/bench/alpha/${id}`;
    case 'parts':
      return `/bench/part/${id}`;
    case 'sources':
      return `/bench/${library.source(id)?.kind ?? 'slab'}/${id}`;
    case 'packs':
      return `/?shelf=${id}`;
    default:
      return null;
  }
}
const lists = computed(() => [
  { users: need.value, says: 'These can’t do without it. Give them another first, or delete them:' },
  {
    users: made.value,
    says:
      asked.value?.collection === 'brushes'
        ? 'Packs that lose it. Taken back out of the trash, it stands in its place again:'
        : 'Made from it. They stay as they are, but can’t be cast anew without it:',
  },
]);
</script>

<template>
  <DialogBox v-model:visible="visible" :title="`Delete ${asked?.name ?? ''}?`" :width-px="440">
    <template v-for="{ users, says } in lists" :key="says">
      <section v-if="users.length">
        <p>{{ says }}</p>
        <ul>
          <li v-for="user in users" :key="user.id">
            <RouterLink v-if="bench(user)" :to="bench(user)!" @click="things.answer(false)">{{ user.name }}</RouterLink>
            <span v-else>{{ user.name }}</span>
            <small>{{ SINGULAR[user.collection] }}</small>
          </li>
        </ul>
      </section>
    </template>
    <template #footer>
      <PushButton @click="things.answer(false)">Cancel</PushButton>
      <PushButton v-if="need.length === 0" look="main" @click="orSay(() => things.answer(true))">Delete</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
section + section {
  margin-top: 12px;
}
ul {
  max-height: 200px;
  margin: 6px 0 0;
  padding: 6px 12px;
  overflow-y: auto;
  border-radius: var(--r);
  background: var(--leaf);
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 3px 0;
}
a {
  color: var(--act);
}
small {
  color: var(--ink-2);
}
</style>
