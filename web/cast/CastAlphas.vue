<script setup lang="ts">
/** The alphas that were cast from a source: downloaded, cast anew, made into brushes. */
import { Download, RefreshCw } from '@lucide/vue';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import type { AlphaHead } from '#core/stored';
import { pictureUrl } from '../api/client';
import { brushFrom } from '../bench/brushFrom';
import { alphaFacts } from '../controls/alphaFacts';
import CutName from '../controls/CutName.vue';
import { useLibrary } from '../stores/library';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';
import DownloadMenu from '../controls/DownloadMenu.vue';

const props = defineProps<{
  sourceId: string;
  /** E.g. "this slab". */
  from: string;
  fresh: string | null;
  /** It can be cast. */
  ready: boolean;
  /** What casting anew does, in a sentence. */
  again: string;
  /** Those that can be cast anew; all where it is left out. */
  castable?: (alpha: AlphaHead) => boolean;
}>();
defineEmits<{ again: [alpha: AlphaHead] }>();
const library = useLibrary();
const router = useRouter();
const kept = computed(() => library.alphas.filter((a) => a.lineage.sourceId === props.sourceId).reverse());

async function makeBrush(alpha: AlphaHead): Promise<void> {
  await router.push(`/bench/brush/${await brushFrom(alpha)}`);
}
</script>

<template>
  <div class="heading part">
    Cast from {{ from }} <small>{{ kept.length || 'none yet' }}</small>
  </div>
  <ul>
    <li v-for="doc in kept" :key="doc.id" :class="{ fresh: doc.id === fresh }">
      <RouterLink :to="`/bench/alpha/${doc.id}`" :aria-label="`Open ${doc.card.name}`"
        ><img :src="pictureUrl('alphas', doc.id, doc.revision)" alt=""
      /></RouterLink>
      <span
        ><CutName :name="doc.card.name" /><small>{{ alphaFacts(doc) }}</small></span
      >
      <ToolButton
        :icon="RefreshCw"
        :label="`Cast ${doc.card.name} anew`"
        :help="again"
        :disabled="!ready || castable?.(doc) === false"
        @click="$emit('again', doc)"
      />
      <DownloadMenu :id="doc.id" :vector="doc.format === 'vector32f'" :colours="doc.lineage.colours !== null">
        <ToolButton :icon="Download" :label="`Download ${doc.card.name}`" help="Download" />
      </DownloadMenu>
      <PushButton @click="makeBrush(doc)">Make brush</PushButton>
    </li>
  </ul>
</template>

<style scoped>
.part {
  margin-top: 6px;
  padding-top: 8px;
  border-top: 1px solid var(--line-soft);
}
li {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 4px;
  border-radius: var(--r);
}
li.fresh {
  background: var(--act-wash);
}
li img {
  width: 40px;
  height: 40px;
  border-radius: 4px;
  margin-right: 6px;
}
li > span {
  flex: 1;
  min-width: 0;
  font-weight: 500;
}
li small {
  display: block;
  font-weight: 400;
  color: var(--ink-2);
}
</style>
