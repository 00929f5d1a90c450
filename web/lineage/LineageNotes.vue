<script setup lang="ts">
/** What is known of the thing that is chosen: what it was made from and how, what goes with it, and casting anew. */
import { computed } from 'vue';
import type { Alpha } from '#core/settings';
import { counted } from '#core/words';
import { STEP_LABELS } from '../alpha/stepLabels';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import { orSay } from '../controls/undoNotice';
import { useLibrary } from '../stores/library';
import { useRecast } from '../stores/recast';
import { useUpstream } from '../stores/upstream';
import type { Shown } from './kin';

const props = defineProps<{ one: Shown; all: readonly Shown[]; alpha: Alpha | null }>();
const library = useLibrary();
const upstream = useUpstream();
const recast = useRecast();
const running = computed(() => recast.running());

const madeOf = computed(() => props.all.filter(({ id }) => props.one.from.includes(id)));
const madeFrom = computed(() => props.all.filter(({ from }) => from.includes(props.one.id)));
/** Casts of what is chosen, or it itself, that are older than their source. */
const old = computed(() =>
  upstream.changed.filter(({ id, lineage }) => id === props.one.id || lineage.sourceId === props.one.id),
);
/** The source that it was cast or captured from, and which of its revisions. */
const origin = computed(() => {
  const head =
    props.one.collection === 'alphas'
      ? library.alpha(props.one.id)?.lineage
      : props.one.collection === 'parts'
        ? library.part(props.one.id)?.made
        : undefined;
  if (!head) return null;
  const source = library.source(head.sourceId);
  return { source, then: head.sourceRevision, gone: head.sourceId !== null && source === null };
});
const canCast = computed(() => props.one.collection === 'alphas' && origin.value?.source);
const steps = computed(() => props.alpha?.recipe?.steps ?? []);
</script>

<template>
  <aside class="notes" aria-label="About it">
    <img v-if="one.picture" :src="one.picture" alt="" />
    <h2>{{ one.name || 'no name' }}</h2>
    <p class="muted">{{ one.what }}</p>
    <div class="buttons">
      <RouterLink class="open" :to="one.bench">{{
        one.collection === 'packs' ? 'Show on the rack' : 'Open on its bench'
      }}</RouterLink>
    </div>
    <section v-if="running">
      <p role="status">{{ running.what }}{{ running.detail ? ` · ${running.detail}` : '' }}</p>
      <ProgressLine :share="running.share" :label="running.what" />
      <PushButton small @click="running.cancel()">Cancel</PushButton>
    </section>
    <section v-else-if="one.collection === 'sources' && old.length > 0" class="old">
      <p>
        {{ old.length === 1 ? 'A cast is' : `${old.length} casts are` }} older than this {{ one.what.split(' ')[0] }} is
        now. Brushes follow what is cast anew.
      </p>
      <PushButton look="main" @click="orSay(() => recast.recast(old))">
        Cast {{ old.length === 1 ? 'it' : `all ${old.length}` }} anew
      </PushButton>
    </section>
    <section v-else-if="canCast" :class="{ old: old.length > 0 }">
      <p v-if="old.length > 0">Its source has changed since it was cast.</p>
      <PushButton
        :look="old.length > 0 ? 'main' : 'plain'"
        title="From its source as it is saved now, with its own frame, size and recipe"
        @click="orSay(() => recast.recast([library.alpha(one.id)!]))"
      >
        Cast anew
      </PushButton>
    </section>
    <section v-if="origin">
      <h3>Where it comes from</h3>
      <p v-if="origin.source && origin.then !== null">
        Revision {{ origin.then }} of “{{ origin.source.card.name }}”{{
          origin.source.revision === origin.then ? ', as it is now' : `, which is at ${origin.source.revision} now`
        }}.
      </p>
      <p v-else-if="origin.gone">Its source was deleted. It stays as it is, and can’t be cast anew.</p>
      <p v-else>From a file: it has no source here.</p>
    </section>
    <section v-if="steps.length > 0">
      <h3>Recipe</h3>
      <ol>
        <li v-for="step in steps" :key="step.id" :class="{ off: !step.on }">
          {{ STEP_LABELS[step.kind] }}<small v-if="!step.on"> off</small>
        </li>
      </ol>
    </section>
    <section v-if="madeOf.length > 0 && one.rank !== 'casts'">
      <h3>Made with</h3>
      <p>{{ madeOf.map(({ name }) => name).join(', ') }}</p>
    </section>
    <section>
      <h3>If it were deleted</h3>
      <p v-if="madeFrom.length === 0">Nothing depends on it.</p>
      <p v-else-if="one.collection === 'sources'">
        {{ counted(madeFrom.length, 'cast') }} would stay as {{ madeFrom.length === 1 ? 'it is' : 'they are' }}, but
        couldn’t be cast anew.
      </p>
      <p v-else-if="one.collection === 'brushes'">
        {{ counted(madeFrom.length, 'pack') }} would lose it: {{ madeFrom.map(({ name }) => name).join(', ') }}.
      </p>
      <p v-else>
        It can’t be, as long as {{ counted(madeFrom.length, 'brush', 'brushes') }}
        {{ madeFrom.length === 1 ? 'stamps' : 'stamp' }} with it.
      </p>
    </section>
  </aside>
</template>

<style scoped>
.notes {
  padding: 16px;
  overflow-y: auto;
  border-left: 1px solid var(--line);
  background: var(--leaf);
}
.notes img {
  display: block;
  width: 100%;
  max-height: 34vh;
  border-radius: var(--r);
  background: var(--clay);
  object-fit: cover;
}
h2 {
  margin: 10px 0 0;
  font-size: 15px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
h3 {
  margin: 16px 0 4px;
  font-size: 12px;
  font-weight: 600;
}
section p {
  margin: 0 0 8px;
}
section {
  margin-top: 12px;
}
.old {
  padding: 10px 12px;
  border-radius: var(--r);
  background: var(--warn-wash);
}
.old p {
  color: var(--warn);
}
.buttons {
  margin-top: 8px;
}
.open {
  color: var(--act-deep);
  font-weight: 600;
}
ol {
  margin: 0;
  padding-left: 18px;
}
.off {
  color: var(--ink-2);
}
@media (pointer: coarse) {
  .open {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
  }
}
</style>
