<script setup lang="ts">
/** The alphas that were cast from this slab: downloaded, cast anew, made into brushes. */
import { Download, RefreshCw } from '@lucide/vue';
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import type { AlphaHead } from '#core/kept';
import { pictureUrl } from '../api/client';
import { brushFrom } from '../bench/brushFrom';
import { alphaFacts } from '../controls/alphaFacts';
import CutName from '../controls/CutName.vue';
import { useLibrary } from '../stores/library';
import { useSlabBench } from '../stores/slabBench';

/** `ready` once the slab can be cast. */
defineProps<{ fresh: string | null; ready: boolean }>();
defineEmits<{ again: [alpha: AlphaHead] }>();
const bench = useSlabBench();
const library = useLibrary();
const router = useRouter();
const kept = computed(() => library.alphas.filter((a) => a.lineage.sourceId === bench.doc?.id).reverse());
const files = (a: AlphaHead): readonly { ending: string; label: string }[] => [
  ...(a.format === 'vector32f'
    ? []
    : [
        { ending: 'png', label: 'PNG, 16 bit' },
        { ending: 'tiff', label: 'TIFF, 32-bit float' },
      ]),
  { ending: 'exr', label: a.format === 'vector32f' ? 'EXR, float vectors' : 'EXR, float' },
];

async function makeBrush(alpha: AlphaHead): Promise<void> {
  await router.push(`/bench/brush/${await brushFrom(alpha)}`);
}
</script>

<template>
  <div class="heading part">
    Cast from this slab <small>{{ kept.length || 'none yet' }}</small>
  </div>
  <ul>
    <li v-for="doc in kept" :key="doc.id" :class="{ fresh: doc.id === fresh }">
      <RouterLink :to="`/bench/alpha/${doc.id}`" :aria-label="`Open ${doc.card.name}`"
        ><img :src="pictureUrl('alphas', doc.id, doc.revision)" alt=""
      /></RouterLink>
      <span
        ><CutName :name="doc.card.name" /><small>{{ alphaFacts(doc) }}</small></span
      >
      <button
        class="btn quiet"
        type="button"
        title="Cast it anew as the clay is now; brushes follow"
        :disabled="!ready"
        :aria-label="`Cast ${doc.card.name} anew`"
        @click="$emit('again', doc)"
      >
        <RefreshCw :size="15" />
      </button>
      <ElDropdown trigger="click">
        <button class="btn quiet" type="button" title="Download" :aria-label="`Download ${doc.card.name}`">
          <Download :size="15" />
        </button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem v-for="f in files(doc)" :key="f.ending"
              ><a :href="`/api/alphas/${doc.id}/${f.ending}`" download>{{ f.label }}</a></ElDropdownItem
            >
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <button class="btn" type="button" @click="makeBrush(doc)">Make brush</button>
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
.quiet {
  padding: 0 8px;
}
a {
  color: inherit;
  text-decoration: none;
}
</style>
