/**
 * Pictures and meshes become brushes with the settings of a chosen one, and a pack of their own: one after the other,
 * those that can't be read say why, and all of it is one step to undo.
 */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { brushLike, type Stamped } from '#core/pack';
import type { Brush } from '#core/settings';
import * as api from '../api/client';
import { isMeshFile } from '../workers/meshFiles';
import { useArrivals } from './arrivals';
import { sentence } from './connection';
import { useLibrary, type Shelf } from './library';
import { counted, usePacks } from './packs';
import { usePartFiles } from './partFiles';
import { useRackSteps } from './rackSteps';
import { useWork } from './work';

export interface Likes {
  /** Whose settings brushes of pictures get, and those of meshes. */
  picture: Brush;
  mesh: Brush;
  /** The name of their pack; empty for none. */
  pack: string;
}

export const useBrushesFromFiles = defineStore('brushesFromFiles', () => {
  const library = useLibrary();
  const packs = usePacks();
  const steps = useRackSteps();
  const arrivals = useArrivals();
  const work = useWork();
  /** Why some of the last files made no brush. */
  const refused = ref<string[]>([]);

  async function make(files: readonly File[], likes: Likes): Promise<void> {
    refused.value = [];
    const made: { collection: Shelf; id: string }[] = [];
    let error: unknown = null;
    const parts = usePartFiles((why) => (error = why));
    const madeBrushes: string[] = [];

    async function stampedOf(file: File): Promise<Stamped> {
      if (!isMeshFile(file)) {
        const alpha = await arrivals.asAlpha(file);
        made.push({ collection: 'alphas', id: alpha.id });
        return { alphaId: alpha.id };
      }
      error = null;
      const [partId] = await parts.open([file]);
      if (!partId) throw error ?? new Error(`${file.name} was left out.`);
      made.push({ collection: 'parts', id: partId });
      return { partId };
    }

    async function one(file: File): Promise<void> {
      const stamped = await stampedOf(file);
      const stem =
        file.name
          .replace(/\.[^.]+$/, '')
          .trim()
          .slice(0, 70) || 'Brush';
      const like = 'alphaId' in stamped ? likes.picture : likes.mesh;
      const brush = brushLike(like, stamped, { id: crypto.randomUUID(), name: library.freeName('brushes', stem) });
      library.putBrush(await api.save('brushes', brush, null));
      made.push({ collection: 'brushes', id: brush.id });
      madeBrushes.push(brush.id);
    }

    /** What was deleted since is gone already. */
    async function gone(collection: Shelf, id: string): Promise<void> {
      await library.remove(collection, id).catch((why: unknown) => {
        if (!api.isMissing(why)) throw why;
      });
    }

    await work.run(`Making ${counted(files.length).toLowerCase()} from files`, 'brushes from files', async (hand) => {
      for (const [at, file] of files.entries()) {
        if (hand.cancelled) break;
        hand.report(at / files.length, `${at + 1} of ${files.length}`);
        await one(file).catch((why: unknown) => refused.value.push(sentence(why)));
      }
    });
    if (made.length === 0) return;
    const pack = likes.pack && madeBrushes.length > 0 ? packs.made(likes.pack, madeBrushes).id : null;
    let packBack: (() => Promise<void>) | null = null;
    steps.did({
      done: `${counted(madeBrushes.length)} made from files.`,
      undo: async () => {
        if (pack !== null) packBack = await packs.unmade(pack);
        for (const { collection, id } of [...made].reverse()) await gone(collection, id);
      },
      redo: async () => {
        for (const { collection, id } of made) await library.restore(collection, id);
        await packBack?.();
      },
    });
  }

  return { refused, make };
});
