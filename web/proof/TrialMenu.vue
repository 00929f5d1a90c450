<script setup lang="ts">
/**
 * Test strokes: the shipped sets and one's own, laid with the brush at hand; the strokes on the body kept under a name.
 */
import { Route, Trash2 } from '@lucide/vue';
import { ref } from 'vue';
import { orSay, undoNotice } from '../controls/undoNotice';
import { useProof } from '../stores/proof';
import { useTrials, type TrialRow } from '../stores/trials';
import PopMenu from '../controls/PopMenu.vue';

const props = defineProps<{ brushId: string }>();
const proof = useProof();
const trials = useTrials();
const open = ref(false);
const name = ref('');

function lay(run: () => Promise<void>): void {
  open.value = false;
  orSay(run);
}
async function keep(): Promise<void> {
  const wanted = name.value.trim();
  if (wanted === '') return;
  await trials.keep(wanted);
  name.value = '';
}
async function drop(set: TrialRow): Promise<void> {
  undoNotice(`“${set.name}” taken off the list.`, await trials.forget(set.id));
}
</script>

<template>
  <PopMenu v-model:visible="open" placement="top-start" :width="268">
    <template #reference
      ><button
        type="button"
        class="open"
        title="Test strokes: sets that are laid with this brush"
        aria-label="Test strokes"
      >
        <Route :size="15" /></button
    ></template>
    <div class="menu">
      <div class="heading">Test strokes</div>
      <p class="muted about">Laid with this brush, in place of what is on the body.</p>
      <button
        v-for="set in trials.shipped"
        :key="set.name"
        type="button"
        class="set"
        :title="set.help"
        @click="lay(() => trials.layShipped(set.name, props.brushId))"
      >
        {{ set.label }}
      </button>
      <template v-if="trials.own.length">
        <div class="heading">Your own</div>
        <div v-for="set in trials.own" :key="set.id" class="own">
          <button type="button" class="set" @click="lay(() => trials.layOwn(set.id, props.brushId))">
            {{ set.name }} <small>{{ set.strokes }}</small>
          </button>
          <button
            type="button"
            class="drop"
            :aria-label="`Take ${set.name} off the list`"
            title="Take it off the list"
            @click="orSay(() => drop(set))"
          >
            <Trash2 :size="14" />
          </button>
        </div>
      </template>
      <p v-if="trials.problem" class="bad" role="alert">{{ trials.problem }}</p>
      <form v-if="proof.state.strokes > 0" class="keep" @submit.prevent="orSay(keep)">
        <input
          v-model="name"
          class="field"
          maxlength="60"
          placeholder="Name of these strokes"
          aria-label="Name of these strokes"
        />
        <button class="btn" type="submit" :disabled="name.trim() === ''">Keep</button>
      </form>
    </div>
  </PopMenu>
</template>

<style scoped>
.open {
  border: 0;
  background: none;
  padding: 4px;
  line-height: 0;
  cursor: pointer;
  color: var(--ink-2);
  border-radius: 4px;
}
.open:hover {
  background: var(--well);
  color: var(--ink);
}
.menu {
  display: grid;
  gap: 2px;
}
.heading {
  margin: 4px 8px 2px;
}
.about {
  margin: 0 8px 4px;
}
.set {
  border: 0;
  background: none;
  text-align: left;
  padding: 5px 8px;
  border-radius: 4px;
  cursor: pointer;
  width: 100%;
}
.set:hover {
  background: var(--act-wash);
}
.set small {
  color: var(--ink-3);
}
.own {
  display: flex;
}
.drop {
  border: 0;
  background: none;
  line-height: 0;
  padding: 0 6px;
  cursor: pointer;
  color: var(--ink-3);
}
.drop:hover {
  color: var(--bad);
}
.keep {
  display: flex;
  gap: 6px;
  margin-top: 8px;
}
.bad {
  color: var(--bad);
  margin: 4px 8px;
}
</style>
