<script setup lang="ts">
/** The lineage of one thing as columns of cards, joined by lines: a press goes to another, twice opens its bench. */
import { useElementSize } from '@vueuse/core';
import { computed, nextTick, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { familyOf, inRows } from '#core/lineage';
import CutName from '../controls/CutName.vue';
import ScrollArea from '../controls/ScrollArea.vue';
import { useShortcuts } from '../keys/shortcuts';
import { RANK_LABELS, RANKS, type Shown } from './kin';

const props = defineProps<{ all: readonly Shown[]; id: string; changed: ReadonlySet<string> }>();
const router = useRouter();
const ground = ref<HTMLElement | null>(null);

/** Pixels. */
const HEIGHT = 58;
const PITCH = 70;
const HEAD = 34;
const SIDES = 56;
const frame = ref<HTMLElement | null>(null);
const { width: wide } = useElementSize(frame);
/** Four columns fit where there is room for them. */
const across = computed(() => {
  const gap = Math.min(66, Math.max(38, (wide.value - SIDES) * 0.06));
  const card = Math.min(210, Math.max(148, (wide.value - SIDES - 3 * gap) / 4));
  return { card: Math.floor(card), pitch: Math.floor(card + gap) };
});

const family = computed(() => familyOf(props.all, props.id));
const columns = computed(() =>
  RANKS.map((rank) => ({ rank, members: family.value.members.filter((one) => one.rank === rank) })).filter(
    ({ members }) => members.length > 0,
  ),
);
const rows = computed(() => inRows(columns.value.map(({ members }) => members)));
const highest = computed(() => Math.max(1, ...rows.value.map((column) => column.length)));
const placed = computed(() =>
  rows.value.flatMap((column, i) =>
    column.map((one, row) => ({
      one,
      x: i * across.value.pitch,
      // Columns that are shorter stand in the middle of the longest.
      y: HEAD + (row + (highest.value - column.length) / 2) * PITCH,
    })),
  ),
);
const placeOf = computed(() => new Map(placed.value.map((card) => [card.one.id, card])));
const size = computed(() => ({
  width: (columns.value.length - 1) * across.value.pitch + across.value.card,
  height: HEAD + highest.value * PITCH,
}));
const lines = computed(() =>
  family.value.links.map(({ from, to }) => {
    const [a, b] = [placeOf.value.get(from)!, placeOf.value.get(to)!];
    const [y1, y2] = [a.y + HEIGHT / 2, b.y + HEIGHT / 2];
    const x1 = a.x + across.value.card;
    // An alpha that is mixed into another stands in the same column: the line goes round.
    const x2 = a.x === b.x ? x1 : b.x;
    const bend = a.x === b.x ? 30 : (x2 - x1) / 2;
    const c2 = a.x === b.x ? x2 + bend : x2 - bend;
    return {
      key: `${from} ${to}`,
      d: `M${x1} ${y1}C${x1 + bend} ${y1} ${c2} ${y2} ${x2} ${y2}`,
      near: from === props.id || to === props.id,
    };
  }),
);

const to = (id: string): string => `/lineage/${id}`;
function go(id: string | undefined): void {
  if (id) void router.push(to(id));
}
/** The nearest in the column beside, or in the same one. */
function step(x: -1 | 0 | 1, y: -1 | 0 | 1): void {
  const here = placeOf.value.get(props.id);
  if (!here) return;
  const linked = new Set(
    family.value.links.flatMap(({ from, to }) => (from === props.id ? [to] : to === props.id ? [from] : [])),
  );
  const beside = placed.value.filter((card) =>
    y === 0 ? Math.sign(card.x - here.x) === x && linked.has(card.one.id) : card.x === here.x,
  );
  const wanted = here.y + y * PITCH;
  const nearest = [...beside].sort((a, b) => Math.abs(a.y - wanted) - Math.abs(b.y - wanted))[0];
  if (y === 0 || Math.abs(nearest.y - wanted) < PITCH / 2) go(nearest?.one.id);
}
useShortcuts([
  { command: 'left', what: 'To what it was made from', run: () => step(-1, 0) },
  { command: 'right', what: 'To what was made from it', run: () => step(1, 0) },
  { command: 'up', what: 'To the one above', run: () => step(0, -1) },
  { command: 'down', what: 'To the one below', run: () => step(0, 1) },
]);

watch(
  () => props.id,
  async () => {
    await nextTick();
    ground.value?.querySelector<HTMLElement>('.card.on')?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  },
);
</script>

<template>
  <div ref="frame" class="frame">
    <ScrollArea>
      <div ref="ground" class="ground">
        <div class="picture" :style="{ width: `${size.width}px`, height: `${size.height}px` }">
          <h2 v-for="({ rank, members }, i) in columns" :key="rank" :style="{ left: `${i * across.pitch}px` }">
            {{ RANK_LABELS[rank] }} <small>{{ members.length }}</small>
          </h2>
          <svg :width="size.width" :height="size.height" aria-hidden="true">
            <path v-for="line in lines" :key="line.key" :d="line.d" :class="{ near: line.near }" />
          </svg>
          <RouterLink
            v-for="{ one, x, y } in placed"
            :key="one.id"
            :to="to(one.id)"
            class="card"
            :class="{ on: one.id === id, narrow: across.card < 170 }"
            :aria-current="one.id === id ? 'true' : undefined"
            :style="{ left: `${x}px`, top: `${y}px`, width: `${across.card}px`, height: `${HEIGHT}px` }"
            @dblclick="router.push(one.bench)"
          >
            <img v-if="one.picture" :src="one.picture" alt="" width="46" height="46" />
            <i v-else />
            <span>
              <CutName :name="one.name || 'no name'" />
              <small v-if="changed.has(one.id)" class="changed">changed upstream</small>
              <small v-else>{{ one.what }}</small>
            </span>
          </RouterLink>
        </div>
      </div>
    </ScrollArea>
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  min-width: 0;
  min-height: 0;
}
.ground {
  display: grid;
  place-content: safe center;
  min-height: calc(100vh - 96px);
}
.picture {
  position: relative;
}
svg {
  position: absolute;
  inset: 0;
  overflow: visible;
}
path {
  fill: none;
  stroke: var(--line);
  stroke-width: 1.5;
}
path.near {
  stroke: var(--act);
  stroke-width: 2;
}
h2 {
  position: absolute;
  top: 0;
  margin: 0;
  font-size: 13px;
  font-weight: 600;
}
h2 small {
  margin-left: 4px;
  color: var(--ink-2);
  font-weight: 400;
}
.card {
  position: absolute;
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 5px;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--field);
  color: var(--ink);
  text-decoration: none;
  line-height: 1.25;
}
.card:hover {
  border-color: var(--ink-3);
}
.card.on {
  border-color: var(--act);
  background: var(--act-wash);
  box-shadow: 0 0 0 1px var(--act);
}
.card img,
.card i {
  flex: none;
  width: 46px;
  height: 46px;
  border-radius: 4px;
  background: var(--clay);
}
.narrow img,
.narrow i {
  width: 34px;
  height: 34px;
}
.narrow {
  gap: 8px;
}
.card span {
  min-width: 0;
  font-weight: 500;
}
.card small {
  display: block;
  overflow: hidden;
  color: var(--ink-2);
  font-size: var(--small);
  font-weight: 400;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.card .changed {
  color: var(--warn);
  font-weight: 500;
}
</style>
