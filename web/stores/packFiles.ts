/** Pack files written and taken in: listed as work that can be cancelled; what came is a step to undo. */
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import type { Choice } from '#core/packFile';
import * as api from '../api/client';
import {
  cancelExport,
  dropImport,
  exportState,
  exportUrl,
  importProgress,
  lookInto,
  planExport,
  takeImport,
  type Came,
  type PackLook,
  type PackWish,
} from '../api/packFiles';
import { useLibrary } from './library';
import { counted, usePacks } from './packs';
import { usePalettes } from './palettes';
import { useRackSteps } from './rackSteps';
import { useWork } from './work';

const LOOK_MS = 250;
const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

export const usePackFiles = defineStore('packFiles', () => {
  const library = useLibrary();
  const packs = usePacks();
  const palettes = usePalettes();
  const steps = useRackSteps();
  const work = useWork();
  /** A pack file that was looked into and not taken yet. */
  const open = shallowRef<PackLook | null>(null);
  const taking = ref<{ done: number; of: number } | null>(null);

  /** The browser saves it as it is written; answers when it is. */
  function write(wish: PackWish, as: 'file' | 'page'): Promise<void> {
    return work.run(`Writing “${wish.name}”`, `pack ${as} of ${wish.pack ?? 'brushes'}`, async (hand) => {
      // What was changed a moment ago is written as well.
      await Promise.all([packs.send(), palettes.send()]);
      const { id } = await planExport(wish);
      hand.onCancel(() => void cancelExport(id).catch(() => undefined));
      const link = document.createElement('a');
      link.href = exportUrl(id, as);
      link.download = '';
      link.click();
      for (;;) {
        await wait(LOOK_MS);
        const { done, of, state, problem } = await exportState(id);
        hand.report(done / of, `${done} of ${of} entries`);
        if (state === 'written') return;
        if (hand.cancelled) return;
        if (state === 'failed') throw new Error(problem ?? 'The pack could not be written.');
      }
    });
  }

  /** Looks into a file; what is in it is shown before anything is taken. */
  async function look(file: File): Promise<void> {
    await close();
    await work.run(`Opening “${file.name}”`, 'pack file', async (hand) => {
      try {
        open.value = await lookInto(file, hand);
      } catch (error) {
        if (!hand.cancelled) throw error;
      }
    });
  }

  async function close(): Promise<void> {
    const now = open.value;
    open.value = null;
    if (now) await dropImport(now.id).catch(() => undefined);
  }

  /** Stops the taking that goes on; nothing comes of it. */
  async function cancel(): Promise<void> {
    if (open.value && taking.value) await dropImport(open.value.id).catch(() => undefined);
  }

  /** Takes what was chosen, all of it or nothing. */
  async function take(choices: Record<string, Choice>, rack: string): Promise<void> {
    const now = open.value;
    if (!now || taking.value) return;
    taking.value = { done: 0, of: 1 };
    // A change of the same pack that isn’t sent yet would be one of two.
    await packs.send();
    const watch = setInterval(() => {
      void importProgress(now.id).then(
        (progress) => taking.value && progress && (taking.value = progress),
        () => undefined,
      );
    }, LOOK_MS);
    try {
      const what = await takeImport(now.id, choices, rack);
      did(what, now.name);
      await Promise.all([library.load(), packs.load(), palettes.load()]);
      void close();
    } finally {
      clearInterval(watch);
      taking.value = null;
    }
  }

  function did({ came, pack }: Came, name: string): void {
    const brushes = came.filter(({ collection }) => collection === 'brushes').length;
    const replaced = came.some(({ before }) => before !== null) || (pack !== null && pack.before !== null);
    const again = (): Promise<unknown> => Promise.all([library.load(), packs.load(), palettes.load()]);
    const all = [...(pack ? [{ collection: 'packs' as const, ...pack }] : []), ...[...came].reverse()];
    const undo = async (): Promise<void> => {
      for (const { collection, id, before } of all) {
        if (before === null) await removed(collection, id);
        else await putBack(collection, id, before);
      }
      await again();
    };
    const redo = async (): Promise<void> => {
      for (const { collection, id } of [...all].reverse()) await api.restore(collection, id);
      await again();
    };
    steps.did({ done: `${counted(brushes)} taken from “${name}”.`, undo, ...(replaced ? {} : { redo }) });
  }

  /** What something else has come to use meanwhile stays; what is gone is gone. */
  async function removed(collection: Came['came'][number]['collection'] | 'packs', id: string): Promise<void> {
    await api.remove(collection, id).catch((error: unknown) => {
      if (!(error instanceof api.Refused && (error.code === 'in-use' || error.code === 'not-found'))) throw error;
    });
  }

  async function putBack(
    collection: Came['came'][number]['collection'] | 'packs',
    id: string,
    before: number,
  ): Promise<void> {
    const [old, now] = await Promise.all([api.revision(collection, id, before), api.get(collection, id)]);
    await api.save(collection, old, now.revision);
  }

  return { open, taking, write, look, close, cancel, take };
});
