<script setup lang="ts">
/**
 * Pictures and scans that arrived: as they came and as what they became, what each is taken for, and what was wrong
 * with those that were refused.
 */
import { X } from '@lucide/vue';
import { computed } from 'vue';
import type { Arrival as Kind } from '#core/arrive';
import { pictureUrl, previewUrl } from '../api/client';
import { benchOf, useArrivals, type Arrival } from '../stores/arrivals';
import { useLibrary } from '../stores/library';
import { useWork } from '../stores/work';
import PushButton from '../controls/PushButton.vue';
import ProgressLine from '../controls/ProgressLine.vue';
import ChoiceBar from '../controls/ChoiceBar.vue';

const arrivals = useArrivals();
const library = useLibrary();
const work = useWork();
const going = computed(() => work.find('arrivals'));
const KINDS: { value: Kind; label: string; title: string }[] = [
  { value: 'alpha', label: 'Heights', title: 'Heights as they are: an alpha, to the bit' },
  { value: 'sheet', label: 'Marks', title: 'A sheet with marks on it, each cut out' },
  { value: 'photo', label: 'One thing', title: 'A photograph of one thing, cut out of its ground' },
  { value: 'surface', label: 'Surface', title: 'A surface that fills the picture, made to repeat' },
];
const PREVIEW_PX = 128;

function after(arrival: Arrival): { src: string; to: string } | null {
  const [made] = arrival.made;
  if (!made) return null;
  const stored = library[made.collection].find((k) => k.id === made.id);
  return { src: pictureUrl(made.collection, made.id, stored?.revision ?? 1), to: benchOf(arrival)! };
}
</script>

<template>
  <section v-if="arrivals.list.length" class="arrived" aria-label="Arrived">
    <header>
      <h2>
        Arrived
        <small
          >{{ arrivals.counts.in }} in{{ arrivals.counts.refused ? `, ${arrivals.counts.refused} refused` : ''
          }}{{ arrivals.counts.left ? `, ${arrivals.counts.left} to come` : '' }}</small
        >
      </h2>
      <template v-if="going">
        <ProgressLine class="going" :share="going.share" label="Reading files" />
        <span class="muted">{{ going.detail }}</span>
        <PushButton small @click="going.cancel()">Cancel</PushButton>
      </template>
      <PushButton v-else small title="What they became stays" @click="arrivals.clear()">Clear the list</PushButton>
    </header>
    <ul>
      <li v-for="a in arrivals.list" :key="a.key" :class="a.state" :role="a.problem ? 'alert' : undefined">
        <template v-if="a.state === 'refused'">
          <span class="why">{{ a.problem }}</span>
        </template>
        <template v-else>
          <span class="pair">
            <img
              v-if="a.file"
              :src="previewUrl(a.file.blob, PREVIEW_PX)"
              alt="As it came"
              title="As it came"
              loading="lazy"
            />
            <span v-else-if="!a.scan" class="blank" />
            <RouterLink
              v-if="after(a) && a.state === 'in'"
              :to="after(a)!.to"
              :aria-label="`Open what ${a.name} became`"
              ><img :src="after(a)!.src" alt="What it became" title="What it became: open it" loading="lazy"
            /></RouterLink>
            <span v-else class="blank" />
          </span>
          <span class="text">
            <b>{{ a.name }}</b>
            <small v-if="a.file"
              >{{ a.file.what }}, {{ a.file.width }} × {{ a.file.height }}.
              {{ a.kind === a.file.guess.kind ? `Guessed: ${a.file.guess.why}.` : '' }}</small
            >
            <small v-else-if="a.scan">{{ a.scan }}. A scan, stored among the sources.</small>
            <small v-else>{{ a.state === 'reading' ? 'Reading…' : 'Waiting…' }}</small>
            <small v-if="a.problem" class="why">{{ a.problem }}</small>
          </span>
          <ChoiceBar
            v-if="a.file"
            :model-value="a.kind ?? 'alpha'"
            :options="KINDS.map((k) => ({ ...k, disabled: a.state !== 'in' }))"
            :label="`What ${a.name} is`"
            @update:model-value="(kind: Kind) => arrivals.become(a.key, kind)"
          />
        </template>
        <PushButton
          v-if="a.state !== 'reading'"
          look="quiet"
          title="Remove from this list"
          :aria-label="`Remove ${a.name} from this list`"
          @click="arrivals.dismiss(a.key)"
          ><X :size="15"
        /></PushButton>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.arrived {
  margin-bottom: 20px;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 8px;
}
h2 {
  font-size: 13px;
  font-weight: 600;
  margin: 0 auto 0 0;
}
h2 small {
  font-weight: 400;
  color: var(--ink-2);
  margin-left: 8px;
}
.going {
  width: 180px;
}
ul {
  display: grid;
  gap: 4px;
  max-height: 420px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto auto;
  gap: 12px;
  align-items: center;
  padding: 6px 10px;
  border-radius: var(--r);
  background: var(--leaf);
}
li.refused {
  grid-template-columns: minmax(0, 1fr) auto;
  background: var(--warn-wash);
  color: var(--warn);
}
li :deep(.el-segmented) {
  --el-segmented-bg-color: var(--page);
  --el-segmented-item-selected-bg-color: var(--act-wash);
  --el-segmented-item-selected-color: var(--act-deep);
  border: 1px solid var(--line);
  font-size: 12px;
}
.pair {
  display: flex;
  gap: 6px;
}
.pair img,
.blank {
  display: block;
  width: 52px;
  height: 52px;
  border-radius: 4px;
  object-fit: cover;
  background: var(--well);
}
.text {
  display: grid;
  min-width: 0;
}
.text b {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.text small {
  color: var(--ink-2);
}
.text .why {
  color: var(--warn);
}
</style>
