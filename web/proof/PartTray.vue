<script setup lang="ts">
/**
 * The brush's parts in a row beside the pointer while a key is held: the wheel slides it, the middle one is next.
 * Before the first stands the set's own order.
 */
import { Repeat2, Shuffle } from '@lucide/vue';
import { computed } from 'vue';
import type { PartOrder } from '#core/settings';
import { pictureUrl } from '../api/client';
import { useLibrary } from '../stores/library';

const props = defineProps<{
  ids: readonly string[];
  picked: number | null;
  order: PartOrder;
  at: { x: number; y: number };
  width: number;
}>();
const library = useLibrary();
/** Discs to either side of the chosen one. */
const SIDE = 3;
const STEP = 54;
const discs = computed(() =>
  [null, ...props.ids]
    .map((id, i) => ({ id, off: i - 1 - (props.picked ?? -1), part: library.part(id) }))
    .filter(({ off }) => Math.abs(off) <= SIDE),
);
const place = computed(() => {
  const half = (SIDE + 0.5) * STEP;
  return {
    left: `${Math.max(half, Math.min(props.width - half, props.at.x))}px`,
    top: `${props.at.y > 110 ? props.at.y - 92 : props.at.y + 40}px`,
  };
});
</script>

<template>
  <div class="tray" role="listbox" aria-label="Parts of the brush" :style="place">
    <figure
      v-for="{ id, off, part } in discs"
      :key="`${id} ${off}`"
      role="option"
      :aria-selected="off === 0"
      :class="{ on: off === 0 }"
      :style="{ transform: `translateX(${off * STEP}px) scale(${off === 0 ? 1.15 : 1 - Math.abs(off) * 0.12})` }"
    >
      <span v-if="id === null" class="own"
        ><Shuffle v-if="order === 'random'" :size="22" /><Repeat2 v-else :size="22"
      /></span>
      <img v-else-if="part" :src="pictureUrl('parts', part.id, part.revision)" alt="" />
      <figcaption v-if="off === 0">{{ id === null ? 'as the set says' : (part?.card.name ?? 'gone') }}</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.tray {
  position: absolute;
  z-index: 4;
  width: 0;
  height: 0;
  pointer-events: none;
}
figure {
  position: absolute;
  left: -24px;
  top: 0;
  width: 48px;
  margin: 0;
  text-align: center;
  transition: transform 90ms;
}
img,
.own {
  display: grid;
  place-content: center;
  width: 48px;
  height: 48px;
  border-radius: 50%;
  background: var(--leaf);
  box-shadow: 0 2px 8px rgb(28 36 40 / 40%);
}
.on img,
.on .own {
  box-shadow:
    0 0 0 3px var(--act),
    0 2px 8px rgb(28 36 40 / 40%);
}
figcaption {
  position: absolute;
  left: -40px;
  right: -40px;
  top: 52px;
  padding: 2px 8px;
  border-radius: 10px;
  background: rgb(28 36 40 / 82%);
  color: #fff;
  font-size: 11.5px;
}
@media (prefers-reduced-motion: reduce) {
  figure {
    transition: none;
  }
}
</style>
