<script setup lang="ts">
/** The alpha bench: recipe and picture on the left leaf, relief, profile and checks on the right. */
import { onBeforeUnmount, ref, watch } from 'vue';
import AlphaPanel from '../alpha/AlphaPanel.vue';
import AlphaView from '../alpha/AlphaView.vue';
import { CROSSING, type CutLine } from '../alpha/cutLine';
import RecipeColumn from '../alpha/RecipeColumn.vue';
import BakeState from '../made/BakeState.vue';
import BeltBar from '../parts/BeltBar.vue';
import LeafPair from '../parts/LeafPair.vue';
import LineageTrail from '../parts/LineageTrail.vue';
import { useShortcuts } from '../parts/shortcuts';
import TopBar from '../parts/TopBar.vue';
import { useAlphaBench } from '../stores/alphaBench';
import { useRouter } from 'vue-router';

const props = defineProps<{ id: string }>();
const bench = useAlphaBench();
const router = useRouter();
const cut = ref<CutLine>({ ...CROSSING });
watch(() => props.id, (id) => void bench.open(id), { immediate: true });
onBeforeUnmount(() => bench.close());
useShortcuts([{ keys: 'Ctrl+S', what: 'Save the alpha', run: () => void bench.save() }]);
</script>

<template>
  <div class="bench">
    <TopBar>
      <LineageTrail v-if="bench.doc" :alpha="bench.doc" open="alpha" />
      <template #end>
        <BakeState v-if="bench.doc" :unsaved="bench.unsaved" :kept-at="bench.keptAt" :share="bench.share" :disabled="bench.vector" @save="bench.save()" @cancel="bench.cancel()" @revert="bench.revert()" />
      </template>
    </TopBar>
    <main>
      <LeafPair v-if="bench.doc" name="alpha" :start="0.66" left-label="The alpha" right-label="Its relief">
        <template #left><div class="columns"><RecipeColumn /><AlphaView :key="bench.doc.id" :cut="cut" @cut="(line) => (cut = line)" /></div></template>
        <template #right><AlphaPanel :cut="cut" /></template>
      </LeafPair>
      <div v-else class="empty">
        <p v-if="bench.opening">Opening the alpha…</p>
        <template v-else><p role="alert">{{ bench.problem }}</p><RouterLink class="btn" to="/sources">To the sources</RouterLink></template>
      </div>
      <p v-if="bench.doc && (bench.problem || bench.conflict || bench.behind)" class="problem" role="alert">
        {{ bench.problem ?? (bench.conflict ? 'This alpha was changed in another window since this draft was begun.' : 'What this alpha was made from has changed since; a save takes it in.') }}
        <button v-if="bench.conflict" class="btn" type="button" @click="bench.revert()">Load the other</button>
      </p>
    </main>
    <BeltBar open-id="" @pick="(id) => router.push(`/bench/brush/${id}`)" />
  </div>
</template>

<style scoped src="../made/bench.css"></style>
<style scoped>
.columns { grid-template-columns: 252px minmax(0, 1fr); }
</style>
