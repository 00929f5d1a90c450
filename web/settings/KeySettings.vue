<script setup lang="ts">
/** Every command with its key. A press on the key asks for another; a key in use changes hands when that is said. */
import { RotateCcw, Search } from '@lucide/vue';
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { counted } from '#core/words';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import ToolButton from '../controls/ToolButton.vue';
import { holds, wordsOf } from '../controls/finding';
import { undoNotice } from '../controls/undoNotice';
import { COMMANDS, COMMAND_IDS, GROUPS, type CommandId } from '../keys/commands';
import { assigned, hindrance, holderOf, keyName, keysOf, usual } from '../keys/keymap';
import { pressed } from '../keys/pressed';
import { usePreferences } from '../stores/preferences';

const preferences = usePreferences();
const wanted = ref('');
/** The command that waits for its key. */
const asking = ref<CommandId | null>(null);
/** A key that was pressed for it and belongs to another. */
const clash = ref<{ key: string; holder: CommandId } | null>(null);
const problem = ref<string | null>(null);

const chosen = computed(() => preferences.now.keys);
const groups = computed(() => {
  const words = wordsOf(wanted.value);
  return GROUPS.map((group) => ({
    group,
    ids: COMMAND_IDS.filter((id) => {
      const { group: own, what, unlisted } = COMMANDS[id];
      return !unlisted && own === group && holds(`${what} ${keysOf(id, chosen.value).join(' ')}`.toLowerCase(), words);
    }),
  })).filter(({ ids }) => ids.length > 0);
});
const changed = computed(() => Object.keys(chosen.value).length);

function ask(id: CommandId): void {
  asking.value = asking.value === id ? null : id;
  clash.value = null;
  problem.value = null;
}
function stop(): void {
  asking.value = null;
  clash.value = null;
  problem.value = null;
}
function put(keys: Record<string, string>): void {
  preferences.change({ keys });
  stop();
}
function take(): void {
  if (asking.value && clash.value) put(assigned(chosen.value, asking.value, clash.value.key));
}
function backToUsual(): void {
  const before = chosen.value;
  put({});
  undoNotice('All keys are as usual again.', async () => preferences.change({ keys: before }));
}

// Ahead of all shortcuts: while a key is asked for, keys do nothing else.
useEventListener(
  window,
  'keydown',
  (e: KeyboardEvent) => {
    const id = asking.value;
    if (!id) return;
    if (clash.value && (e.key === 'Enter' || e.key === 'Tab' || e.key === ' ')) return;
    const key = pressed(e);
    if (key === null) return;
    e.preventDefault();
    e.stopImmediatePropagation();
    if (key === 'Esc') return stop();
    clash.value = null;
    problem.value = hindrance(key, chosen.value, id);
    if (problem.value) return;
    const holder = holderOf(key, chosen.value, id);
    if (holder) clash.value = { key, holder };
    else put(assigned(chosen.value, id, key));
  },
  { capture: true },
);
</script>

<template>
  <div class="keys">
    <div class="head">
      <TextField
        v-model="wanted"
        class="search"
        :prefix-icon="Search"
        type="search"
        placeholder="What it does, or its key"
        aria-label="Search keys"
      />
      <PushButton :disabled="changed === 0" @click="backToUsual">All as usual</PushButton>
      <span class="muted">{{
        changed ? counted(changed, 'key is', 'keys are') + ' your own' : 'All keys are as usual'
      }}</span>
    </div>
    <p v-if="groups.length === 0" class="muted">No key does that. Try another word.</p>
    <div class="groups">
      <section v-for="g in groups" :key="g.group">
        <h2>{{ g.group }}</h2>
        <div v-for="id in g.ids" :key="id" class="command">
          <div class="line">
            <span>{{ COMMANDS[id].what }}</span>
            <kbd v-if="COMMANDS[id].fixed" class="fixed" title="This key stays">{{
              COMMANDS[id].keys.map(keyName).join(' or ')
            }}</kbd>
            <PushButton
              v-else
              small
              :on="asking === id"
              :aria-label="`Key of: ${COMMANDS[id].what}`"
              :title="asking === id ? 'Press a key; Esc cancels' : 'Press here, then the key'"
              @click="ask(id)"
            >
              {{ asking === id && !clash ? 'Press a key…' : keysOf(id, chosen).map(keyName).join(' or ') || 'none' }}
            </PushButton>
            <ToolButton
              v-if="id in chosen"
              :icon="RotateCcw"
              label="As usual"
              :help="`Back to ${COMMANDS[id].keys.map(keyName).join(' or ')}`"
              @click="put(usual(chosen, id))"
            />
            <i v-else />
          </div>
          <div v-if="asking === id && clash" class="clash" role="alert">
            {{ keyName(clash.key) }} belongs to “{{ COMMANDS[clash.holder].what }}”.
            <PushButton small look="main" @click="take">Use it here</PushButton>
            <PushButton small @click="stop">Cancel</PushButton>
          </div>
          <p v-else-if="asking === id && problem" class="sentence-bad" role="alert">{{ problem }}</p>
        </div>
      </section>
    </div>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  margin-bottom: 16px;
}
.search {
  width: 250px;
}
.groups {
  columns: 3 330px;
  column-gap: 40px;
  max-width: 1400px;
}
section {
  margin-bottom: 22px;
}
h2 {
  font-size: 14px;
  font-weight: 600;
  padding-bottom: 6px;
  margin-bottom: 4px;
  border-bottom: 1px solid var(--line-soft);
  break-after: avoid;
}
.command {
  break-inside: avoid;
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 25px;
  gap: 6px;
  align-items: center;
  min-height: 30px;
}
.line > span {
  color: var(--ink-2);
}
kbd {
  font: inherit;
  font-weight: 600;
  padding: 0 9px;
}
.clash {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 2px 0 6px;
  padding: 6px 8px;
  border-radius: var(--r);
  background: var(--warn-wash);
  color: var(--warn);
}
</style>
