<script setup lang="ts">
/** Source › cast › brush of the open thing, with small pictures. */
import { Waypoints } from '@lucide/vue';
import { computed } from 'vue';
import { headOfSource, type AlphaHead, type BrushHead, type SourceHead } from '#core/stored';
import type { Part, Source } from '#core/settings';
import { spaced } from '#core/words';
import { pictureUrl } from '../api/client';
import { useLibrary } from '../stores/library';
import BrushDisc from './BrushDisc.vue';
import CutName from './CutName.vue';

const props = defineProps<{
  source?: Source | null;
  alpha?: AlphaHead | null;
  part?: Part | null;
  brush?: BrushHead | null;
  open: 'source' | 'alpha' | 'part' | 'brush';
}>();
const library = useLibrary();

const from = computed(() =>
  props.source
    ? headOfSource(props.source)
    : library.source(props.alpha?.lineage.sourceId ?? props.part?.made.sourceId ?? null),
);
/** What is open, once it is kept. */
const here = computed(() => {
  switch (props.open) {
    case 'source':
      return library.source(props.source?.id ?? null)?.id;
    case 'alpha':
      return library.alpha(props.alpha?.id ?? null)?.id;
    case 'part':
      return library.part(props.part?.id ?? null)?.id;
    case 'brush':
      return library.listedBrush(props.brush?.id ?? '')?.id;
  }
  return undefined;
});
const brushRevision = computed(() => library.listedBrush(props.brush?.id ?? '')?.revision ?? 0);
const count = (n: number): string => (n >= 1e6 ? `${(n / 1e6).toFixed(2)} M` : `${Math.round(n / 1000)} k`);
function kindOf(s: SourceHead): string {
  switch (s.kind) {
    case 'slab':
      return `slab · ${count((s.cells + 1) ** 2)}`;
    case 'sheet':
      return `sheet · ${s.width} × ${s.height}`;
    case 'scan':
      return `scan · ${count(s.triangles)} faces`;
    case 'lettering':
      return 'lettering';
    case 'pattern':
      return `pattern · ${s.form}`;
  }
}
</script>

<template>
  <div class="trail" aria-label="Lineage">
    <RouterLink v-if="from" class="stop" :class="{ on: open === 'source' }" :to="`/bench/${from.kind}/${from.id}`">
      <img :src="pictureUrl('sources', from.id, library.source(from.id)?.revision ?? 0)" alt="" />
      <span
        ><small>{{ kindOf(from) }}</small
        ><CutName :name="from.card.name"
      /></span>
    </RouterLink>
    <i v-if="from && alpha" />
    <RouterLink v-if="alpha" class="stop" :class="{ on: open === 'alpha' }" :to="`/bench/alpha/${alpha.id}`">
      <img :src="pictureUrl('alphas', alpha.id, library.alpha(alpha.id)?.revision ?? 0)" alt="" />
      <span
        ><small>alpha · {{ alpha.size }}</small
        ><CutName :name="alpha.card.name"
      /></span>
    </RouterLink>
    <i v-if="from && part" />
    <RouterLink v-if="part" class="stop" :class="{ on: open === 'part' }" :to="`/bench/part/${part.id}`">
      <img :src="pictureUrl('parts', part.id, library.part(part.id)?.revision ?? 0)" alt="" />
      <span
        ><small>part · {{ spaced(part.triangles) }} faces</small><CutName :name="part.card.name"
      /></span>
    </RouterLink>
    <i v-if="alpha && brush" />
    <RouterLink v-if="brush" class="stop" :class="{ on: open === 'brush' }" :to="`/bench/brush/${brush.id}`">
      <BrushDisc :brush="brush" :size="28" />
      <span
        ><small>brush · {{ brushRevision ? `revision ${brushRevision}` : 'new' }}</small
        ><CutName :name="brush.card.name || 'no name'"
      /></span>
    </RouterLink>
    <RouterLink
      v-if="here"
      class="all"
      :to="`/lineage/${here}`"
      title="Its whole lineage: what it was made from, and what was made from it"
      aria-label="Its whole lineage"
      ><Waypoints :size="17"
    /></RouterLink>
  </div>
</template>

<style scoped>
.trail {
  display: flex;
  align-items: center;
  min-width: 0;
}
.trail i {
  width: 12px;
  height: 1px;
  background: var(--ink-3);
  flex: none;
}
.stop {
  display: flex;
  align-items: center;
  gap: 7px;
  height: 34px;
  padding: 0 12px 0 3px;
  border-radius: 17px;
  border: 1px solid var(--line);
  background: var(--leaf);
  color: var(--ink);
  text-decoration: none;
  font-weight: 500;
  cursor: pointer;
  min-width: 0;
  text-align: left;
  line-height: 1.2;
}
.all {
  display: flex;
  flex: none;
  margin-left: 6px;
  padding: 6px;
  border-radius: var(--r);
  color: var(--ink-2);
}
.all:hover {
  background: var(--well);
  color: var(--ink);
}
.stop:hover {
  border-color: var(--ink-3);
}
.stop.on {
  background: var(--act-wash);
  border-color: var(--act);
}
.stop img {
  width: 28px;
  height: 28px;
  border-radius: 50%;
  flex: none;
}
.stop > span {
  max-width: 110px;
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
}
.stop small {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  font-size: 10.5px;
  color: var(--ink-2);
  font-weight: 400;
}
@media (pointer: coarse) {
  .stop {
    height: 44px;
    border-radius: 22px;
  }
  .all {
    padding: 13px;
  }
}
</style>
