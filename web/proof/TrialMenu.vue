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
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';

const props = defineProps<{ brushId: string }>();
const proof = useProof();
const trials = useTrials();
const open = ref(false);
const name = ref('');

function replay(run: () => Promise<void>): void {
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
  undoNotice(`“${set.name}” removed from the list.`, await trials.forget(set.id));
}
</script>

<template>
  <PopMenu v-model:visible="open" placement="top-start" :width="268">
    <template #reference
      ><ToolButton
        class="open"
        :icon="Route"
        label="Test strokes"
        help="Test strokes: sets that are laid with this brush"
    /></template>
    <div class="menu">
      <div class="heading">Test strokes</div>
      <p class="muted about">Laid with this brush, in place of what is on the body.</p>
      <PushButton
        v-for="set in trials.shipped"
        :key="set.name"
        look="row"
        class="set"
        :title="set.help"
        @click="replay(() => trials.replayShipped(set.name, props.brushId))"
      >
        {{ set.label }}
      </PushButton>
      <template v-if="trials.own.length">
        <div class="heading">Your own</div>
        <div v-for="set in trials.own" :key="set.id" class="own">
          <PushButton look="row" class="set" @click="replay(() => trials.replayOwn(set.id, props.brushId))">
            {{ set.name }} <small>{{ set.strokes }}</small>
          </PushButton>
          <ToolButton
            class="drop"
            :icon="Trash2"
            :label="`Remove ${set.name} from the list`"
            help="Remove it from the list"
            @click="orSay(() => drop(set))"
          />
        </div>
      </template>
      <p v-if="trials.problem" class="bad" role="alert">{{ trials.problem }}</p>
      <form v-if="proof.state.strokes > 0" class="keep" @submit.prevent="orSay(keep)">
        <TextField
          v-model="name"
          maxlength="60"
          placeholder="Name of these strokes"
          aria-label="Name of these strokes"
        />
        <PushButton native-type="submit" :disabled="name.trim() === ''">Keep</PushButton>
      </form>
    </div>
  </PopMenu>
</template>

<style scoped>
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
.set small {
  color: var(--ink-3);
}
.own {
  display: flex;
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
