<script setup lang="ts">
/** How this hand likes to work: looks, lengths, pen and touch, keys, storage. The open tab stands in the address. */
import { Hand, HardDrive, Info, Keyboard } from '@lucide/vue';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ScrollArea from '../controls/ScrollArea.vue';
import TabBar from '../controls/TabBar.vue';
import TopBar from '../controls/TopBar.vue';
import AboutSettings from '../settings/AboutSettings.vue';
import HandSettings from '../settings/HandSettings.vue';
import KeySettings from '../settings/KeySettings.vue';
import StorageSettings from '../settings/StorageSettings.vue';

const TABS = [
  { value: 'hand', label: 'Your hand', icon: Hand },
  { value: 'keys', label: 'Keys', icon: Keyboard },
  { value: 'storage', label: 'Storage', icon: HardDrive },
  { value: 'about', label: 'About', icon: Info },
] as const;
type Tab = (typeof TABS)[number]['value'];

const route = useRoute();
const router = useRouter();
const tab = computed<Tab>({
  get: () => TABS.find(({ value }) => value === route.query['tab'])?.value ?? 'hand',
  set: (value) => void router.replace({ query: value === 'hand' ? {} : { tab: value } }),
});
</script>

<template>
  <div class="place">
    <TopBar />
    <TabBar v-model="tab" class="tabs" label="Settings" :tabs="TABS" rail>
      <ScrollArea class="page">
        <h1>{{ TABS.find(({ value }) => value === tab)!.label }}</h1>
        <HandSettings v-if="tab === 'hand'" />
        <KeySettings v-else-if="tab === 'keys'" />
        <StorageSettings v-else-if="tab === 'storage'" />
        <AboutSettings v-else />
      </ScrollArea>
    </TabBar>
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}
.tabs {
  min-height: 0;
}
.tabs :deep(.el-tabs__header.is-left) {
  padding: 14px 6px 0 12px;
}
.tabs :deep(.el-tabs__content),
.tabs :deep(.el-tab-pane) {
  height: 100%;
  min-width: 0;
}
.tabs :deep(.el-tabs__content) {
  flex: 1;
}
h1 {
  font-size: 19px;
  font-weight: 600;
  margin-bottom: 18px;
}
</style>
