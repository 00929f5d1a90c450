<script setup lang="ts">
import { useEventListener, useTitle } from '@vueuse/core';
import { computed, watch } from 'vue';
import { usePlaceName } from './placeName';
import { useBrushBench } from './stores/brushBench';
import { useLibrary } from './stores/library';
import { useSlabBench } from './stores/slabBench';
import { useInbox } from './stores/inbox';
import { holdDrafts } from './stores/holds';
import { useWork } from './stores/work';
import TourGuide from './controls/TourGuide.vue';
import KeysDialog from './controls/KeysDialog.vue';
import { failNotice, tellNotice } from './controls/undoNotice';
import { useTouch } from './stores/touch';

const place = usePlaceName();
useTitle(computed(() => [place.value.thing, place.value.kind, 'Mold Stamp'].filter(Boolean).join(' – ')));
const brushBench = useBrushBench();
const slabBench = useSlabBench();
const library = useLibrary();
void library.ready().then(() => brushBench.sendWaiting());
const work = useWork();
holdDrafts();
useInbox().follow();
useTouch().watchPens();
// Closed, the page would take with it what it is still working on, and saves would wait for its next start: the browser
// asks first.
useEventListener(window, 'beforeunload', (e: BeforeUnloadEvent) => {
  if (work.running.length > 0 || library.drafts.some(({ waiting }) => waiting)) e.preventDefault();
});
watch(
  () => work.said,
  (said) => said && (said.failed ? failNotice : tellNotice)(said.message),
);
// A page that is put away writes down what is still on its way.
useEventListener(document, 'visibilitychange', () => {
  if (document.visibilityState !== 'hidden') return;
  void brushBench.flush();
  void slabBench.flush();
});
</script>

<template>
  <RouterView v-slot="{ Component, route }">
    <component :is="Component" :key="route.name" />
  </RouterView>
  <KeysDialog />
  <TourGuide />
</template>
