<script setup lang="ts">
/** Copies of everything: one is made now or by itself, kept elsewhere, brought back, and restored. */
import { DatabaseBackup } from '@lucide/vue';
import { ElPopconfirm } from 'element-plus';
import { computed, ref, watch } from 'vue';
import type { CopyKind } from '#core/backup';
import { counted, spaced } from '#core/words';
import { backupUrl, type BackupCopy, type Restored } from '../api/backups';
import ChoiceBar from '../controls/ChoiceBar.vue';
import DialogBox from '../controls/DialogBox.vue';
import NumberField from '../controls/NumberField.vue';
import ProgressLine from '../controls/ProgressLine.vue';
import PushButton from '../controls/PushButton.vue';
import ToolButton from '../controls/ToolButton.vue';
import { usePickFiles } from '../controls/pickFiles';
import { failNotice, tellNotice, undoNotice } from '../controls/undoNotice';
import { when } from '../controls/when';
import { useBackups } from '../stores/backups';
import { sentence } from '../stores/connection';
import { useWork } from '../stores/work';

const EVERY = [
  { value: 'never', label: 'Never' },
  { value: 'day', label: 'Daily', help: 'While the server runs, where something changed since' },
  { value: 'week', label: 'Weekly', help: 'While the server runs, where something changed since' },
] as const;
const OTHERS = [
  { value: 'keep', label: 'Keep it' },
  { value: 'trash', label: 'To the trash', help: 'Everything is as it was then; the trash keeps the rest for 30 days' },
] as const;
const SAID: Record<CopyKind, string> = {
  'by hand': 'made by hand',
  scheduled: 'made by itself',
  'before a restore': 'made before a restore',
  brought: 'brought from a file',
};

const backups = useBackups();
const work = useWork();
const visible = ref(false);
const problem = ref<string | null>(null);
const asked = ref<BackupCopy | null>(null);
const others = ref<'keep' | 'trash'>('keep');
const going = computed(() => work.find(backups.ON));
const pick = usePickFiles({ accept: '.zip' }, ([file]) => act(() => backups.bring(file)));

watch(visible, (open) => {
  if (!open) return;
  asked.value = null;
  act(() => backups.look());
});

const size = (bytes: number): string => {
  const mb = bytes / 2 ** 20;
  return mb < 10 ? `${mb.toFixed(1)} MB` : mb < 10_000 ? `${spaced(mb)} MB` : `${(mb / 1024).toFixed(1)} GB`;
};

/** What goes wrong is said in the dialog, or where it was closed, beside it. */
function act(task: () => Promise<unknown>): void {
  problem.value = null;
  task().catch((error: unknown) => {
    problem.value = sentence(error);
    if (!visible.value) failNotice(problem.value);
  });
}

const plan = (change: Partial<NonNullable<typeof backups.view>['plan']>): void => {
  if (backups.view) act(() => backups.plan({ ...backups.view!.plan, ...change }));
};

function restore(): void {
  const copy = asked.value;
  if (!copy) return;
  asked.value = null;
  act(async () => {
    const done = await backups.restore(copy.name, others.value);
    if (!done) return;
    visible.value = false;
    tell(done, copy);
  });
}

function tell({ changed, trashed, problems, before }: Restored, { at }: BackupCopy): void {
  if (problems.length > 0) failNotice(`Left out: ${problems.slice(0, 3).join(' ')}`);
  const gone = trashed > 0 ? `; ${counted(trashed, 'thing', 'things')} went to the trash` : '';
  const message =
    changed + trashed === 0
      ? `All is as in the copy of ${when(at)} already.`
      : `${counted(changed, 'thing', 'things')} restored from ${when(at)}${gone}.`;
  if (before === null || changed + trashed === 0) tellNotice(message);
  else undoNotice(message, async () => void (await backups.restore(before, 'trash')));
}
</script>

<template>
  <ToolButton :icon="DatabaseBackup" label="Backups" help="Copies of everything in one file" @click="visible = true" />
  <DialogBox v-model:visible="visible" title="Backups" :width-px="560">
    <div class="backups">
      <template v-if="asked">
        <p>
          Restore the copy of <b>{{ when(asked.at) }}</b>? What has changed since then goes back to how it was; how it
          is now stays among its earlier saves. A copy of everything as it is now is made first.
        </p>
        <div class="line">
          <span>What came since</span>
          <ChoiceBar v-model="others" label="What came since" :options="OTHERS" />
        </div>
      </template>
      <template v-else>
        <p class="muted">
          Every brush, pack, source and palette with its earlier saves and its data, in one file that is read back once
          it is written. What isn’t saved yet lies in this browser alone and isn’t in it.
        </p>
        <div class="line">
          <PushButton look="main" :disabled="going !== null" @click="act(() => backups.make())">Back up now</PushButton>
          <PushButton :disabled="going !== null" title="A backup file (.backup.zip)" @click="pick"
            >Bring a copy from a file…</PushButton
          >
        </div>
        <div v-if="backups.view" class="line">
          <span>By itself</span>
          <ChoiceBar
            :model-value="backups.view.plan.every"
            label="By itself"
            :options="EVERY"
            @update:model-value="(every) => plan({ every })"
          />
          <NumberField
            v-if="backups.view.plan.every !== 'never'"
            class="keep"
            :model-value="backups.view.plan.keep"
            label="and keep the last"
            unit="copies"
            :min="1"
            :max="50"
            :step="1"
            @update:model-value="(keep) => plan({ keep })"
            >copies</NumberField
          >
        </div>
        <div v-if="going" class="line">
          <span>{{ going.what }}</span>
          <ProgressLine :share="going.share" :label="going.what" />
          <PushButton small @click="going.cancel">Cancel</PushButton>
        </div>
        <p v-if="problem" class="sentence-bad" role="alert">{{ problem }}</p>
        <template v-if="backups.view">
          <p v-if="backups.view.copies.length === 0" class="muted">There is no copy yet.</p>
          <ul v-else aria-label="Copies">
            <li v-for="copy in backups.view.copies" :key="copy.name">
              <div class="about">
                <b>{{ when(copy.at) }}</b>
                <span class="muted">{{ size(copy.bytes) }} · {{ SAID[copy.kind] }}</span>
              </div>
              <PushButton
                small
                tag="a"
                :href="backupUrl(copy.name)"
                download
                :aria-label="`Save the copy of ${when(copy.at)}`"
                >Save as file</PushButton
              >
              <ElPopconfirm
                title="Delete this copy for good?"
                confirm-button-text="Delete"
                cancel-button-text="Keep"
                hide-icon
                :width="210"
                @confirm="act(() => backups.remove(copy.name))"
              >
                <template #reference>
                  <PushButton small :aria-label="`Delete the copy of ${when(copy.at)}`">Delete</PushButton>
                </template>
              </ElPopconfirm>
              <PushButton
                small
                :disabled="going !== null"
                :aria-label="`Restore the copy of ${when(copy.at)}`"
                @click="asked = copy"
                >Restore…</PushButton
              >
            </li>
          </ul>
          <p class="muted where">The copies lie in {{ backups.view.folder }}. Keep one on another disk as well.</p>
        </template>
      </template>
    </div>
    <template v-if="asked" #footer>
      <PushButton @click="asked = null">Cancel</PushButton>
      <PushButton look="main" @click="restore">Restore</PushButton>
    </template>
  </DialogBox>
</template>

<style scoped>
.backups {
  display: grid;
  gap: 12px;
}
p {
  line-height: 1.45;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
}
.keep {
  width: 230px;
}
li a {
  text-decoration: none;
}
ul {
  display: grid;
  gap: 8px;
  max-height: 40vh;
  margin: 0;
  padding: 8px 0 0;
  overflow-y: auto;
  border-top: 1px solid var(--line-soft);
  list-style: none;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
}
.about {
  display: grid;
  flex: 1;
}
.where {
  overflow-wrap: anywhere;
  font-size: 12px;
}
</style>
