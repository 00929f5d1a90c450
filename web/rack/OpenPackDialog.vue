<script setup lang="ts">
/** What is inside a pack file, before anything of it is taken: what is new, what is here, what can’t be taken. */
import { computed, ref, watch } from 'vue';
import type { Choice } from '#core/packFile';
import { LICENCES } from '#core/settings';
import { importPicture, type PackThing } from '../api/packFiles';
import DialogBox from '../controls/DialogBox.vue';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import SelectField from '../controls/SelectField.vue';
import TickBox from '../controls/TickBox.vue';
import TypedChoice from '../controls/TypedChoice.vue';
import { orSay } from '../controls/undoNotice';
import { usePackFiles } from '../stores/packFiles';
import { usePacks } from '../stores/packs';

const CHOICES = [
  { value: 'take', label: 'Keep both' },
  { value: 'replace', label: 'Replace mine' },
] as const;
/** Problems that are shown at once. */
const TOLD = 6;
const files = usePackFiles();
const packs = usePacks();
const choices = ref<Record<string, Choice>>({});
const rack = ref('');
const look = computed(() => files.open);
const visible = computed({
  get: () => files.open !== null,
  set: () => void (files.taking || void files.close()),
});
const offered = computed(() =>
  (look.value?.things ?? []).filter(({ collection }) => collection === 'brushes' || collection === 'palettes'),
);
const along = computed(() => (look.value?.things ?? []).filter((thing) => !offered.value.includes(thing)));
watch(look, (now) => {
  choices.value = Object.fromEntries(
    (now?.things ?? []).map(({ key, meets }) => [key, meets === 'here' ? 'leave' : 'take'] as const),
  );
  rack.value = now?.pack?.rack ?? '';
});
const taken = computed(() => offered.value.filter(({ key }) => choices.value[key] !== 'leave'));
const racks = computed(() => packs.racks.map((name) => ({ value: name, label: name })));
const about = computed(() => {
  const pack = look.value?.pack;
  if (!pack) return '';
  const licence = LICENCES.find(({ value }) => value === pack.licence)?.label ?? pack.licence;
  return [pack.card.author, licence, pack.site].filter(Boolean).join(' · ');
});
const count = (of: readonly PackThing[], meets: PackThing['meets']): number =>
  of.filter((thing) => thing.meets === meets).length;
const sums = computed(() => {
  const said = [
    [count(offered.value, 'new'), 'new'],
    [count(offered.value, 'here'), 'here already'],
    [count(offered.value, 'other'), 'changed since'],
  ] as const;
  return said.filter(([n]) => n > 0).map(([n, what]) => `${n} ${what}`);
});
const comesAlong = computed(() => {
  const fresh = along.value.filter(({ meets }) => meets !== 'here').length;
  const here = along.value.length - fresh;
  if (along.value.length === 0) return '';
  if (fresh === 0) return `All ${here} alphas, parts and sources they need are here.`;
  return `${fresh} alphas, parts and sources come along${here ? `; ${here} are here already` : ''}.`;
});

function tick(thing: PackThing, on: boolean): void {
  choices.value = { ...choices.value, [thing.key]: on ? 'take' : 'leave' };
}
function all(on: boolean): void {
  choices.value = {
    ...choices.value,
    ...Object.fromEntries(
      offered.value.map(({ key, meets }) => [key, on && meets !== 'here' ? 'take' : 'leave'] as const),
    ),
  };
}
function says({ key, meets, existing, name, becomes, collection }: PackThing): string {
  const choice = choices.value[key];
  const renamed = becomes === name ? '' : `, as “${becomes}”`;
  if (meets === 'here') {
    if (choice === 'take') return 'Again, as a copy';
    return existing === name ? 'Here already' : `Here already, as “${existing}”`;
  }
  if (choice === 'leave') return 'Left';
  if (meets === 'other') return choice === 'replace' ? `Replaces “${existing}”` : `Beside yours${renamed}`;
  return `${collection === 'palettes' ? 'New palette' : 'New'}${renamed}`;
}
const share = computed(() => (files.taking ? files.taking.done / Math.max(1, files.taking.of) : 0));
const take = (): void => orSay(() => files.take(choices.value, rack.value));
</script>

<template>
  <DialogBox v-model:visible="visible" :title="`Open “${look?.name ?? ''}”`" :width-px="720">
    <div v-if="look" class="inside">
      <p v-if="about" class="about">{{ about }}</p>
      <p v-if="look.pack?.card.notes" class="muted notes">{{ look.pack.card.notes }}</p>
      <div class="line">
        <span>{{ sums.join(', ') }}. {{ comesAlong }}</span>
        <span class="some">
          <PushButton small @click="all(true)">All new</PushButton>
          <PushButton small @click="all(false)">None</PushButton>
        </span>
      </div>
      <ul class="things" aria-label="What is inside">
        <li v-for="thing in offered" :key="thing.key" :class="{ off: choices[thing.key] === 'leave' }">
          <TickBox
            :model-value="choices[thing.key] !== 'leave'"
            :aria-label="thing.name"
            @update:model-value="(on) => tick(thing, on)"
          />
          <img v-if="thing.picture" :src="importPicture(look.id, thing.id)" alt="" loading="lazy" />
          <span v-else class="blank" />
          <span class="what">
            <b>{{ thing.name }}</b>
            <small>{{ thing.maker }}</small>
          </span>
          <small class="says">{{ says(thing) }}</small>
          <SelectField
            v-if="thing.replaceable && choices[thing.key] !== 'leave'"
            class="way"
            :label="`What happens to ${thing.name}`"
            :model-value="choices[thing.key] === 'replace' ? 'replace' : 'take'"
            :choices="CHOICES"
            @update:model-value="(way) => (choices = { ...choices, [thing.key]: way })"
          />
        </li>
      </ul>
      <div v-if="look.problems.length" class="problems" role="alert">
        <b>{{ look.problems.length === 1 ? 'A problem' : `${look.problems.length} problems` }} in this file</b>
        <p v-for="(one, i) in look.problems.slice(0, TOLD)" :key="i">{{ one.problem }}</p>
        <details v-if="look.problems.length > TOLD">
          <summary>{{ look.problems.length - TOLD }} more</summary>
          <p v-for="(one, i) in look.problems.slice(TOLD)" :key="i">{{ one.problem }}</p>
        </details>
      </div>
      <label v-if="look.pack && !look.packHere" class="rack"
        ><span>Rack</span>
        <TypedChoice v-model="rack" label="Rack" :choices="racks" placeholder="Mine; or type whose: a colleague’s" />
      </label>
      <p v-else-if="look.packHere" class="muted">
        The pack “{{ look.name }}” is here already: what is new goes into it.
      </p>
    </div>
    <template #footer>
      <div class="foot">
        <template v-if="files.taking">
          <ProgressLine :share="share" label="Taken so far" />
          <PushButton @click="files.cancel()">Cancel</PushButton>
        </template>
        <template v-else>
          <PushButton @click="files.close()">Close</PushButton>
          <PushButton look="main" :disabled="taken.length === 0" @click="take"
            >Take {{ taken.length === 1 ? 'one' : taken.length }}</PushButton
          >
        </template>
      </div>
    </template>
  </DialogBox>
</template>

<style scoped>
.inside {
  display: grid;
  gap: 10px;
}
.about {
  font-weight: 600;
}
.notes {
  max-height: 60px;
  overflow-y: auto;
  white-space: pre-wrap;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
.some {
  display: flex;
  gap: 6px;
}
.things {
  display: grid;
  max-height: min(360px, 44vh);
  margin: 0;
  padding: 4px 10px;
  overflow-y: auto;
  border: 1px solid var(--line);
  border-radius: var(--r);
  background: var(--leaf);
  list-style: none;
}
.things li {
  display: grid;
  grid-template-columns: 22px 40px minmax(0, 1fr) minmax(0, 190px) 128px;
  align-items: center;
  gap: 10px;
  padding: 4px 0;
}
.things li + li {
  border-top: 1px solid var(--line);
}
.things img,
.blank {
  width: 40px;
  height: 40px;
  border-radius: var(--r);
  background: var(--well);
}
.off img,
.off .what {
  opacity: 0.55;
}
.what {
  display: grid;
  overflow: hidden;
}
.what b,
.what small {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
small {
  color: var(--ink-2);
}
.problems {
  display: grid;
  gap: 3px;
  max-height: 130px;
  padding: 8px 12px;
  overflow-y: auto;
  border-radius: var(--r);
  background: var(--warn-wash);
  color: var(--warn);
}
.rack {
  display: grid;
  grid-template-columns: 60px minmax(0, 320px);
  align-items: center;
}
.foot {
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 10px;
}
</style>
