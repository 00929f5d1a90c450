<script setup lang="ts">
/** Levels: finer and coarser, what each costs before it is made, and back to the untouched clay. */
import { computed } from 'vue';
import { SLAB_SIDE } from '#core/settings';
import { levelAt, levelBytes, type LevelDirection } from '#core/slab';
import { spaced } from '#core/words';
import { useSlabBench } from '../stores/slabBench';
import PushButton from '../controls/PushButton.vue';
import WorkLine from '../controls/WorkLine.vue';

const bench = useSlabBench();
/** A vertex's place, normal, mask and triangles on the graphics card. */
const CARD_BYTES = 52;
/** What a page may take before it is sure to fail, where the browser says how much the machine has. */
const budget = computed(() => ((navigator as { deviceMemory?: number }).deviceMemory ?? 8) * 2 ** 30 * 0.3);

const state = computed(() => bench.sculptor?.state.level ?? null);
const count = (n: number): string => spaced((n + 1) ** 2);
const bytes = (cells: number): number => levelBytes(cells) + (cells + 1) ** 2 * CARD_BYTES;
const megabytes = (n: number): string => `${Math.round(n / 2 ** 20)} MB`;

interface Offer {
  direction: LevelDirection;
  label: string;
  cells: number | null;
  why: string | null;
}
const offers = computed<Offer[]>(() => {
  const now = state.value;
  if (!now) return [];
  return (['up', 'down'] as const).map((direction) => {
    const cells = levelAt(now.cells, direction);
    const why =
      cells === null
        ? direction === 'up'
          ? 'This is the finest level there is.'
          : 'This is the coarsest level there is.'
        : direction === 'up' && bytes(cells) > budget.value
          ? `It needs about ${megabytes(bytes(cells))}; this machine leaves ${megabytes(budget.value)} for it.`
          : null;
    return {
      direction,
      cells,
      why,
      label: direction === 'down' ? 'Step down' : now.upper > 0 ? 'Step up' : 'Subdivide',
    };
  });
});
</script>

<template>
  <div v-if="state" class="tab">
    <p>
      <b>{{ state.cells }} cells a side</b><br />{{ count(state.cells) }} vertices, {{ megabytes(bytes(state.cells)) }}
    </p>
    <div v-for="offer in offers" :key="offer.direction" class="offer">
      <PushButton :disabled="offer.why !== null || bench.stepping !== null" @click="bench.step(offer.direction)">
        {{ offer.label }}
      </PushButton>
      <span v-if="offer.cells && !offer.why" class="muted"
        >to {{ count(offer.cells) }} vertices, {{ megabytes(bytes(offer.cells)) }}</span
      >
      <span v-else class="muted">{{ offer.why }}</span>
    </div>
    <WorkLine v-if="bench.stepping" :work="bench.stepping" />
    <p v-if="state.upper" class="muted">
      {{ state.upper }} finer {{ state.upper === 1 ? 'level keeps its' : 'levels keep their' }} detail and
      {{ state.upper === 1 ? 'takes' : 'take' }} it along when you step up.
    </p>
    <div class="heading">Untouched</div>
    <PushButton @click="bench.make({ kind: 'untouched', side: SLAB_SIDE })"> Back to flat clay </PushButton>
    <p class="muted">Undo brings everything back.</p>
  </div>
</template>

<style scoped>
.offer {
  display: grid;
  gap: 3px;
}
</style>
