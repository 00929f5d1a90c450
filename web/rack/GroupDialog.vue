<script setup lang="ts">
/** A group of a pack: renamed, or removed while its brushes stay. */
import { ref, watch } from 'vue';
import { withoutGroup } from '#core/pack';
import type { Pack } from '#core/settings';
import DialogBox from '../controls/DialogBox.vue';
import PushButton from '../controls/PushButton.vue';
import TextField from '../controls/TextField.vue';
import { trying } from '../controls/undoNotice';
import { usePacks } from '../stores/packs';

const of = defineModel<{ pack: string; index: number } | null>({ required: true });
const packs = usePacks();
const name = ref('');
watch(of, (now) => (name.value = (now && packs.docOf(now.pack)?.groups[now.index]?.name) ?? ''));

function change(done: string, how: (pack: Pack, index: number) => Pack, says: boolean): void {
  const now = of.value;
  of.value = null;
  if (now) trying(() => packs.change(done, [now.pack], (pack) => how(pack, now.index), says));
}
function rename(): void {
  const to = name.value;
  change(
    'Group renamed.',
    (pack, index) => ({ ...pack, groups: pack.groups.map((g, i) => (i === index ? { ...g, name: to } : g)) }),
    false,
  );
}
const remove = (): void => change('Group removed; its brushes stay.', withoutGroup, true);
</script>

<template>
  <DialogBox :visible="of !== null" title="Group" :width-px="380" @update:visible="of = null">
    <form @submit.prevent="rename">
      <TextField v-model="name" maxlength="80" aria-label="Name of the group" autofocus />
    </form>
    <template #footer>
      <PushButton title="Its brushes go to the group beside it" @click="remove">Remove the group</PushButton>
      <PushButton @click="of = null">Cancel</PushButton>
      <PushButton look="main" @click="rename">Rename</PushButton>
    </template>
  </DialogBox>
</template>
