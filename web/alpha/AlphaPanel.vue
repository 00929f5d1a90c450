<script setup lang="ts">
/** What the alpha does: its relief, its profile, what the checks say, and where it goes. */
import { Download } from '@lucide/vue';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { brushFrom } from '../bench/brushFrom';
import CheckNote from '../controls/CheckNote.vue';
import { useAlphaBench } from '../stores/alphaBench';
import { useLibrary } from '../stores/library';
import ProfileChart from './ProfileChart.vue';
import ReliefView from './ReliefView.vue';
import type { CutLine } from './cutLine';
import PushButton from '../controls/PushButton.vue';
import DownloadMenu from '../controls/DownloadMenu.vue';

defineProps<{ cut: CutLine }>();
const bench = useAlphaBench();
const library = useLibrary();
const router = useRouter();
const found = computed(() => bench.answer?.checks.checks.filter((c) => !c.ok) ?? []);
const well = computed(() => bench.answer?.checks.checks.filter((c) => c.ok) ?? []);
const followers = computed(() => library.followersOf(bench.doc?.id ?? ''));
const ground = computed(() => bench.answer?.checks.ground ?? 0);

async function makeBrush(): Promise<void> {
  if (bench.unsaved && !(await bench.save())) return;
  const stored = library.alpha(bench.doc!.id);
  if (stored) await router.push(`/bench/brush/${await brushFrom(stored)}`);
}
</script>

<template>
  <div class="panel">
    <div class="view">
      <ReliefView
        v-if="bench.answer && bench.doc"
        :heights="bench.answer.heights"
        :size="bench.answer.size"
        :relief="bench.doc.relief"
        :ground="ground"
      />
    </div>
    <ProfileChart
      v-if="bench.answer && bench.doc"
      :heights="bench.answer.heights"
      :size="bench.answer.size"
      :cut="cut"
      :relief="bench.doc.relief"
      :ground="ground"
    />
    <div class="lower">
      <div v-if="bench.answer" class="checks">
        <p v-if="bench.answer.through" class="muted">Checked up to the open step.</p>
        <CheckNote
          v-for="c in found"
          :key="c.name"
          :sentence="c.sentence"
          :mend="bench.mendLabel(c.name) ?? ''"
          @mend="bench.mend(c.name)"
        />
        <p v-if="found.length === 0" class="well">All {{ well.length }} checks passed</p>
        <details v-else>
          <summary>{{ well.length }} passed</summary>
          <p v-for="c in well" :key="c.name" class="muted">{{ c.sentence }}</p>
        </details>
      </div>
      <div class="out">
        <DownloadMenu v-if="bench.doc" :id="bench.doc.id" :vector="bench.vector">
          <PushButton
            :disabled="bench.unsaved"
            :title="bench.unsaved ? 'Save it first: what is downloaded is the saved alpha' : 'Download'"
          >
            <Download :size="15" /> Download
          </PushButton>
        </DownloadMenu>
        <PushButton look="main" :disabled="bench.share !== null" @click="makeBrush">
          {{ bench.unsaved ? 'Save, make brush' : 'Make brush' }}
        </PushButton>
      </div>
      <p v-if="followers.length" class="muted">
        Form of
        {{
          followers
            .slice(0, 3)
            .map((n) => `“${n}”`)
            .join(', ')
        }}{{ followers.length > 3 ? ` and ${followers.length - 3} more` : '' }}; a save is felt there.
      </p>
    </div>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  grid-template: minmax(140px, 1fr) auto auto / minmax(0, 1fr);
  gap: 8px;
  height: 100%;
  padding: 12px;
  min-height: 0;
}
.view {
  min-height: 0;
}
.lower {
  display: grid;
  gap: 8px;
  max-height: 260px;
  overflow: auto;
}
.checks {
  display: grid;
  gap: 6px;
}
.well {
  color: var(--act-deep);
}
summary {
  cursor: pointer;
  color: var(--ink-2);
}
.out {
  display: flex;
  gap: 8px;
  justify-content: flex-end;
}
</style>
