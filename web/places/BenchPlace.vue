<script setup lang="ts">
/** The bench with nothing on it: ways to begin, and what was worked on last. */
import { computed } from 'vue';
import type { BrushHead } from '#core/stored';
import { pictureUrl } from '../api/client';
import BrushDisc from '../controls/BrushDisc.vue';
import ScrollArea from '../controls/ScrollArea.vue';
import TopBar from '../controls/TopBar.vue';
import { useBelts } from '../stores/belts';
import { useLibrary } from '../stores/library';
import WaysIn from './WaysIn.vue';

const library = useLibrary();
const belts = useBelts();
void library.ready();
const MOST = 12;

interface Card {
  id: string;
  name: string;
  to: string;
  src?: string;
  brush?: BrushHead;
}
const brushes = computed<Card[]>(() => {
  const ids = [...new Set([...belts.recent, ...library.beltIds])];
  return ids
    .flatMap((id) => library.brushHead(id) ?? [])
    .slice(0, MOST)
    .map((brush) => ({
      id: brush.id,
      name: brush.card.name,
      to: `/bench/brush/${brush.id}`,
      brush,
    }));
});
const sources = computed<Card[]>(() =>
  library.sources
    .slice(-MOST)
    .reverse()
    .map(({ id, kind, card, revision }) => ({
      id,
      name: card.name,
      to: `/bench/${kind}/${id}`,
      src: pictureUrl('sources', id, revision),
    })),
);
const alphas = computed<Card[]>(() =>
  library.alphas
    .slice(-MOST)
    .reverse()
    .map(({ id, card, revision }) => ({
      id,
      name: card.name,
      to: `/bench/alpha/${id}`,
      src: pictureUrl('alphas', id, revision),
    })),
);
const rows = computed(() =>
  [
    { title: 'Brushes', cards: brushes.value },
    { title: 'Sources', cards: sources.value },
    { title: 'Alphas', cards: alphas.value },
  ].filter(({ cards }) => cards.length > 0),
);
</script>

<template>
  <div class="place">
    <TopBar />
    <ScrollArea>
      <p class="head">Nothing is on the bench. Begin something, or open one of these.</p>
      <WaysIn />
      <section v-for="row in rows" :key="row.title">
        <h2>{{ row.title }}</h2>
        <div class="cards">
          <RouterLink v-for="card in row.cards" :key="card.id" :to="card.to" class="card">
            <BrushDisc v-if="card.brush" :brush="card.brush" :size="104" square />
            <img v-else :src="card.src" alt="" loading="lazy" />
            <span>{{ card.name }}</span>
          </RouterLink>
        </div>
      </section>
    </ScrollArea>
  </div>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}
.head {
  margin-bottom: 14px;
  color: var(--ink-2);
}
h2 {
  margin: 18px 0 8px;
  font-size: 14px;
  font-weight: 600;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  gap: 12px;
}
.card {
  display: grid;
  gap: 4px;
  color: var(--ink);
  text-decoration: none;
}
.card img {
  width: 100%;
  aspect-ratio: 1;
  border-radius: var(--r);
  background: var(--clay);
}
.card:hover img {
  box-shadow: 0 0 0 2px var(--act);
}
</style>
