<script setup lang="ts">
/** The profile, and what the checks of the bench found, each mended by a click. */
import { computed, ref } from 'vue';
import { brushChecks, type BrushMend } from '#core/checks';
import { shapes } from '#core/profile';
import type { AlphaHead } from '#core/stored';
import { putNumber, type Brush } from '#core/settings';
import CheckNote from '../controls/CheckNote.vue';
import { useProof } from '../stores/proof';
import BrushProfile from './BrushProfile.vue';
import { runsAlong } from './labels';
import { useStampOf } from './stampOf';
import ChoiceBar from '../controls/ChoiceBar.vue';

const props = defineProps<{ brush: Brush; alpha: AlphaHead | null }>();
const emit = defineEmits<{ edit: [change: (brush: Brush) => void] }>();
const proof = useProof();
const stamp = useStampOf(
  () => props.brush,
  () => props.alpha,
);
const cutThrough = ref<'dab' | 'run'>('dab');
const CUTS = [
  { value: 'dab', label: 'one dab' },
  { value: 'run', label: 'a run' },
] as const;
const found = computed(
  () =>
    stamp.value &&
    brushChecks(
      stamp.value,
      proof.state.spacing > 0
        ? {
            spacing: proof.refine.on ? Math.min(proof.refine.edge, proof.state.spacing) : proof.state.spacing,
            finer: proof.finer,
          }
        : null,
    ),
);
const broken = computed(() => found.value?.checks.filter((c) => !c.ok) ?? []);
const well = computed(() => found.value?.checks.filter((c) => c.ok) ?? []);
/** How far a run of Build gets depends on the clay. */
const runs = computed(() => runsAlong(props.brush.stroke.type) && props.brush.touch.action !== 'build');

function mend(way: BrushMend): void {
  switch (way.kind) {
    case 'set':
      return emit('edit', (b) => putNumber(b, way.path, way.value));
    case 'plateau':
      return emit('edit', (b) => {
        b.touch.falloff.kind = 'plateau';
        b.touch.falloff.hold = way.hold;
      });
    case 'subdivide':
      void proof.subdivide();
  }
}
</script>

<template>
  <div class="panel">
    <template v-if="shapes(brush.touch.action)">
      <div class="heading">
        Profile
        <ChoiceBar v-if="runs" v-model="cutThrough" label="Profile of" :options="CUTS" />
      </div>
      <BrushProfile
        v-if="stamp && found"
        :stamp="stamp"
        :measures="found.measures"
        :run="cutThrough === 'run' && runs"
      />
    </template>
    <CheckNote
      v-for="c in broken"
      :key="c.name"
      :sentence="c.sentence"
      :mend="c.mend?.label ?? ''"
      @mend="c.mend && mend(c.mend)"
    />
    <details v-if="well.length">
      <summary>{{ broken.length ? `${well.length} checks passed` : 'All checks passed' }}</summary>
      <p v-for="c in well" :key="c.name" class="muted">{{ c.sentence }}</p>
    </details>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 6px;
  margin-top: 4px;
}
summary {
  cursor: pointer;
  color: var(--ink-2);
  font-size: var(--small);
}
</style>
