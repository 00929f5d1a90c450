<script setup lang="ts">
/** Where other programs may write files so that they arrive by themselves, and what is the matter with those there. */
import { Inbox as InboxIcon } from '@lucide/vue';
import { useInbox } from '../stores/inbox';

const inbox = useInbox();
const size = (bytes: number): string =>
  bytes >= 2 ** 20 ? `${Math.round(bytes / 2 ** 20)} MB` : `${Math.max(1, Math.round(bytes / 1024))} kB`;
</script>

<template>
  <section v-if="inbox.state" class="inbox" aria-label="Inbox">
    <p>
      <InboxIcon :size="15" />
      <span
        >What scanners, cameras and other programs write into <code>{{ inbox.state.folder }}</code> arrives here by
        itself.</span
      >
    </p>
    <p v-if="inbox.state.problem" class="sentence-bad" role="alert">{{ inbox.state.problem }}</p>
    <p v-for="file in inbox.growing" :key="file.id" class="muted" role="status">
      {{ file.name }} is still being written, {{ size(file.bytes) }} so far.
    </p>
    <p v-for="file in inbox.refused" :key="file.id" class="sentence-bad">{{ file.why }}</p>
  </section>
</template>

<style scoped>
.inbox {
  display: grid;
  gap: 4px;
  margin-bottom: 18px;
  color: var(--ink-2);
}
p {
  display: flex;
  align-items: center;
  gap: 8px;
}
code {
  font-size: 12px;
  user-select: all;
  overflow-wrap: anywhere;
}
</style>
