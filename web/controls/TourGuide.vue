<script setup lang="ts">
/** Walks from stop to stop: goes to its place, waits until what it is about is on the page, and says what it is for. */
import { ElTour, ElTourStep } from 'element-plus';
import { nextTick, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useTour } from '../stores/tour';

const router = useRouter();
const tour = useTour();
const current = ref(0);
const shown = ref(false);
const LONGEST_WAIT_MS = 8000;
const LOOK_AGAIN_MS = 60;
/** Counts what was asked for: an older walk that is still under way gives up. */
let walk = 0;

async function goTo(stop: number): Promise<void> {
  const mine = ++walk;
  const wanted = tour.stops[stop];
  if (!wanted) return;
  await router.push(wanted.to);
  const end = performance.now() + LONGEST_WAIT_MS;
  while (!document.querySelector(wanted.target) && performance.now() < end)
    await new Promise((go) => setTimeout(go, LOOK_AGAIN_MS));
  await nextTick();
  if (mine !== walk || !tour.open) return;
  tour.at(stop);
  current.value = stop;
  shown.value = true;
}
watch(
  () => tour.open,
  (open) => {
    if (open) void goTo(tour.left);
    else {
      walk++;
      shown.value = false;
    }
  },
);
function turn(stop: number): void {
  void goTo(stop);
}
</script>

<template>
  <ElTour
    v-if="tour.open && shown"
    :model-value="true"
    :current="current"
    :gap="{ offset: 4, radius: 6 }"
    :mask="{ color: 'rgb(0 0 0 / 38%)' }"
    :z-index="3000"
    @update:current="turn"
    @close="tour.leave()"
    @finish="tour.done()"
  >
    <ElTourStep
      v-for="(stop, i) in tour.stops"
      :key="stop.title"
      :target="stop.target"
      :title="`${i + 1} of ${tour.stops.length}: ${stop.title}`"
      :description="stop.text"
      :placement="stop.side ?? 'bottom'"
      :prev-button-props="{ children: 'Back' }"
      :next-button-props="{ children: i === tour.stops.length - 1 ? 'Done' : 'Next' }"
    />
  </ElTour>
</template>
