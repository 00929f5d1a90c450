/** Copies of everything: made, brought and restored as work that is listed and can be cancelled. */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import * as api from '../api/backups';
import { useBodies } from './bodies';
import { useLibrary } from './library';
import { usePacks } from './packs';
import { usePalettes } from './palettes';
import { useWork, type WorkHand } from './work';

const LOOK_MS = 400;
const ON = 'backups';

export const useBackups = defineStore('backups', () => {
  const library = useLibrary();
  const packs = usePacks();
  const palettes = usePalettes();
  const bodies = useBodies();
  const work = useWork();
  const view = ref<api.BackupView | null>(null);

  async function look(): Promise<void> {
    view.value = await api.backups();
  }

  /** Asks how far it is until it has ended. */
  async function followed<T>(hand: WorkHand, doing: Promise<T>): Promise<T> {
    hand.onCancel(() => void api.cancelBackup().catch(() => undefined));
    const timer = setInterval(() => {
      void api.backups().then(
        (now) => {
          view.value = now;
          if (now.going && now.going.of > 0) hand.report(now.going.done / now.going.of);
        },
        () => undefined,
      );
    }, LOOK_MS);
    try {
      return await doing;
    } catch (error) {
      if (!hand.cancelled) throw error;
      return undefined as T;
    } finally {
      clearInterval(timer);
      await look().catch(() => undefined);
    }
  }

  function make(): Promise<api.BackupCopy | undefined> {
    return work.run('Backing up everything', ON, async (hand) => {
      // What was changed a moment ago is in it as well.
      await Promise.all([packs.send(), palettes.send()]);
      return followed(hand, api.makeBackup());
    });
  }

  function bring(file: File): Promise<api.BackupCopy | undefined> {
    return work.run(`Checking “${file.name}”`, ON, (hand) => {
      let stop = (): void => undefined;
      const doing = followed(hand, api.bringBackup(file, { report: hand.report, onCancel: (by) => (stop = by) }));
      hand.onCancel(() => {
        stop();
        void api.cancelBackup().catch(() => undefined);
      });
      return doing;
    });
  }

  function restore(name: string, others: 'keep' | 'trash'): Promise<api.Restored | undefined> {
    return work.run('Restoring a copy', ON, async (hand) => {
      await Promise.all([packs.send(), palettes.send()]);
      const done = await followed(hand, api.restoreBackup(name, others));
      await Promise.all([library.load(), packs.load(), palettes.load(), bodies.load()]);
      return done;
    });
  }

  async function remove(name: string): Promise<void> {
    await api.removeBackup(name);
    await look();
  }

  async function plan(wanted: api.BackupView['plan']): Promise<void> {
    if (view.value) view.value.plan = wanted;
    await api.putBackupPlan(wanted);
  }

  return { ON, view, look, make, bring, restore, remove, plan };
});
