<script setup lang="ts">
import { useEventListener, useTitle } from '@vueuse/core';
import { computed, watch } from 'vue';
import { usePlaceName } from './placeName';
import { useBrushBench } from './stores/brushBench';
import { useLibrary } from './stores/library';
import { useInbox } from './stores/inbox';
import { holdDrafts } from './stores/holds';
import { useUnkept } from './stores/unkept';
import { useWork } from './stores/work';
import FocusHint from './controls/FocusHint.vue';
import TourGuide from './controls/TourGuide.vue';
import KeysDialog from './controls/KeysDialog.vue';
import { failNotice, tellNotice } from './controls/undoNotice';
import { useNoStrayFiles } from './controls/useFilesDropped';
import { useTouch } from './stores/touch';

const place = usePlaceName();
useTitle(computed(() => [place.value.thing, place.value.kind, 'Mold Stamp'].filter(Boolean).join(' – ')));
const brushBench = useBrushBench();
const library = useLibrary();
void library.ready().then(() => brushBench.sendPending());
const work = useWork();
const unkept = useUnkept();
holdDrafts();
useInbox().follow();
useTouch().watchPens();
useNoStrayFiles();
// The browser's own drag of text, a link or a picture takes the pointer from whoever has it.
useEventListener(document, 'dragstart', (e: DragEvent) => {
  if (!(e.target instanceof Element) || !e.target.closest('[draggable="true"]')) e.preventDefault();
});
// Closed, the page would take with it what it is still working on, and saves would wait for its next start: the browser
// asks first. What can be written down is.
useEventListener(window, 'beforeunload', (e: BeforeUnloadEvent) => {
  unkept.keepAll();
  if (unkept.anyAtRisk() || work.running.length > 0 || library.drafts.some(({ pending }) => pending))
    e.preventDefault();
});
watch(
  () => work.said,
  (said) => said && (said.failed ? failNotice : tellNotice)(said.message),
);
useEventListener(window, 'pagehide', unkept.keepAll);
useEventListener(document, 'visibilitychange', () => document.visibilityState === 'hidden' && unkept.keepAll());
</script>

<template>
  <RouterView v-slot="{ Component, route }">
    <component :is="Component" :key="route.name" />
  </RouterView>
  <KeysDialog />
  <FocusHint />
  <TourGuide />
</template>
