<script setup lang="ts">
/** Casting from the open source: name, size, and the alphas that were cast from it. */
import { RefreshCw } from '@lucide/vue';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import type { AlphaHead } from '#core/stored';
import { CAST_SIZES } from '#core/settings';
import { pictureUrl } from '../api/client';
import { brushFrom } from '../bench/brushFrom';
import { alphaFacts } from '../controls/alphaFacts';
import ChoiceBar from '../controls/ChoiceBar.vue';
import CutName from '../controls/CutName.vue';
import { tellNotice } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';
import { useMadeBench } from '../stores/madeBench';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';
import TickBox from '../controls/TickBox.vue';

const props = defineProps<{ bevel: boolean }>();
const bench = useMadeBench();
const library = useLibrary();
const router = useRouter();
const name = ref('');
const size = ref<number>(1024);
const bevelled = ref(props.bevel);
const fresh = ref<string | null>(null);
const offered = computed(() => library.freeName('alphas', bench.doc?.card.name ?? 'Alpha'));

async function cast(over: AlphaHead | null): Promise<void> {
  const made = await bench.cast(name.value || offered.value, size.value, bevelled.value && props.bevel, over);
  if (!made) return;
  fresh.value = made.id;
  name.value = '';
  const followers = library.followersOf(made.id).map((n) => `“${n}”`);
  if (over && followers.length)
    tellNotice(`${followers.join(', ')} ${followers.length === 1 ? 'follows' : 'follow'} the new cast.`);
}
async function makeBrush(alpha: AlphaHead): Promise<void> {
  await router.push(`/bench/brush/${await brushFrom(alpha)}`);
}
</script>

<template>
  <div class="cast">
    <div class="row size">
      <span class="label">Size, px</span
      ><ChoiceBar
        v-model="size"
        label="Size in pixels"
        :options="CAST_SIZES.map((n) => ({ value: n as number, label: String(n) }))"
      />
    </div>
    <TickBox v-if="bevel" v-model="bevelled">Rounded edges; a bevel step that can be changed later</TickBox>
    <div class="row go">
      <TextField v-model="name" :placeholder="offered" aria-label="Name of the cast" maxlength="80" />
      <PushButton v-if="bench.share === null" look="main" @click="cast(null)">Cast</PushButton>
      <template v-else
        ><ProgressLine :share="bench.share" label="Casting" /><PushButton @click="bench.cancel()">
          Cancel
        </PushButton></template
      >
    </div>
    <div class="heading part">
      Cast from this <small>{{ bench.casts.length || 'none yet' }}</small>
    </div>
    <ul>
      <li v-for="doc in bench.casts" :key="doc.id" :class="{ fresh: doc.id === fresh }">
        <RouterLink :to="`/bench/alpha/${doc.id}`" :aria-label="`Open ${doc.card.name}`"
          ><img :src="pictureUrl('alphas', doc.id, doc.revision)" alt=""
        /></RouterLink>
        <span
          ><CutName :name="doc.card.name" /><small>{{ alphaFacts(doc) }}</small></span
        >
        <ToolButton
          :icon="RefreshCw"
          :label="`Cast ${doc.card.name} anew`"
          help="Cast it anew as the source is now; brushes follow"
          @click="cast(doc)"
        />
        <PushButton @click="makeBrush(doc)">Make brush</PushButton>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.cast {
  display: grid;
  gap: 8px;
}
.size {
  grid-template-columns: minmax(0, 1fr);
}
.go {
  grid-template-columns: 1fr auto;
}
.part {
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
  display: block;
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
@media (pointer: coarse) {
  li a {
    padding: 2px 0;
  }
}
</style>
