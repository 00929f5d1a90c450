/** The cast of the chosen patch as it is now, its checks' mends, and patches that are kept as alphas. */
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { CastCancelled } from '#core/cast';
import type { Check } from '#core/checks';
import type { AlphaHead } from '#core/stored';
import { NameSchema, type Alpha, type CastSettings, type Patch } from '#core/settings';
import * as api from '../api/client';
import { plain } from '../api/plain';
import type { FlatCast } from '../workers/castResult';
import { BakeCancelled } from '../workers/recipes';
import type { PatchResult } from '../workers/scan.worker';
import { sentence, useConnection } from './connection';
import { keepCast, PREVIEW_SIZE } from './keepCast';
import { coloursOf, edgeSteps, patchCast } from './patchCast';
import { useLibrary } from './library';
import { useScanBench } from './scanBench';
import { useWork } from './work';

/** What mends a check of a patch, as it stands on its button. */
export const PATCH_MENDS: Partial<Record<Check['name'], string>> = {
  undercut: 'Cast as vectors',
  'used-range': 'Use the tones',
  ground: 'Level the border',
  lift: 'Ground at the average',
  filled: 'Make the frame smaller',
  seam: 'Blend more of its sides',
  margin: 'Fade its edge',
  'ring-loss': 'Fade its edge',
};

export const useScanCast = defineStore('scan-cast', () => {
  const bench = useScanBench();
  const library = useLibrary();
  const connection = useConnection();
  const work = useWork();
  const preview = shallowRef<PatchResult | FlatCast | null>(null);
  const problem = ref<string | null>(null);
  const casting = computed(() => work.find(bench.doc?.id));
  /** Share of a kept cast that is done; null while none runs. */
  const share = computed(() => casting.value?.share ?? null);
  const result = computed(() => (preview.value && 'floats' in preview.value ? preview.value : null));
  const flat = computed(() => (preview.value && 'flat' in preview.value ? preview.value : null));

  watch(
    () => [bench.thread, bench.mesh, bench.chosen && JSON.stringify(shownOf(bench.chosen))] as const,
    ([thread, mesh], before) => {
      // Another patch, or another scan: what is shown isn’t of it.
      if (thread !== before?.[0]) preview.value = null;
      problem.value = null;
      if (!bench.chosen) return void (preview.value = null);
      if (!thread || !mesh) return;
      const on = thread;
      on.casts.onPreview = (cast) => {
        if (bench.thread === on && bench.chosen) preview.value = cast;
      };
      on.casts.onProblem = (error) => {
        if (bench.thread === on) problem.value = `The cast can’t be shown. ${sentence(error)}`;
      };
      on.casts.preview(shownOf(bench.chosen));
    },
  );

  /** The patch as it is cast live. */
  function shownOf(patch: Patch): Patch {
    const own = plain(patch);
    return { ...own, name: '', cast: { ...own.cast, size: Math.min(own.cast.size, PREVIEW_SIZE), samples: 1 } };
  }

  function edit(change: (cast: CastSettings) => void): void {
    if (bench.chosen) bench.editPatch(bench.chosen.id, 'cast', (patch) => change(patch.cast));
  }

  function mend(name: Check['name']): void {
    const { value: now } = result;
    const id = bench.chosen?.id;
    if (!now || !id) return;
    switch (name) {
      case 'undercut':
        return edit((cast) => (cast.format = 'vector32f'));
      case 'used-range':
        return edit((cast) => {
          cast.floor = now.used.floor;
          cast.crown = now.used.crown;
        });
      case 'ground':
        return edit((cast) => (cast.floor = now.levelFloor));
      case 'lift':
        return edit((cast) => (cast.ground = 'average'));
      case 'margin':
      case 'ring-loss':
        return bench.editPatch(id, 'edge', (patch) => (patch.edge = 'fade'));
      case 'seam':
        return bench.editPatch(id, 'edge', (patch) => (patch.edgeWidth = Math.min(45, patch.edgeWidth + 8)));
      case 'filled':
        return edit((cast) => (cast.frame.side = Math.max(0.02, cast.frame.side * 0.8)));
    }
  }

  /** Casts patches one after the other, also while one goes elsewhere; what is done when it is cancelled stays. */
  async function keep(patches: readonly { patch: Patch; name: string; over: AlphaHead | null }[]): Promise<Alpha[]> {
    const on = bench.thread;
    if (!bench.doc || !on || share.value !== null || patches.length === 0) return [];
    problem.value = null;
    const { id, card } = bench.doc;
    const here = (): boolean => bench.doc?.id === id;
    const made: Alpha[] = [];
    try {
      await work.run(
        patches.length === 1 ? `Casting “${patches[0].name}”` : `Casting patches of “${card.name}”`,
        id,
        async (hand) => {
          if (bench.unsaved && !(await bench.save())) return;
          if (!here() || hand.cancelled) return;
          const revision = bench.revision!;
          for (const [i, { patch, name, over }] of patches.entries()) {
            if (hand.cancelled) break;
            hand.onCancel(() => on.casts.cancel());
            const told = (share: number): void =>
              hand.report((i + share) / patches.length, patches.length > 1 ? `${i + 1} of ${patches.length}` : '');
            const alpha = await keepOne(
              { patch: plain(patch), name, over, source: { id, revision, patchId: patch.id } },
              on,
              {
                ...hand,
                report: told,
                get cancelled() {
                  return hand.cancelled;
                },
              },
            );
            if (alpha) made.push(alpha);
          }
        },
      );
    } catch (error) {
      if (!(error instanceof CastCancelled || error instanceof BakeCancelled)) {
        connection.noticed(error);
        const said = `${patches.length === 1 ? 'The cast wasn’t kept.' : `${made.length} of ${patches.length} were kept.`} ${sentence(error)}`;
        if (here()) problem.value = said;
        else work.say(said, true);
      }
    }
    if (made.length > 0 && !here())
      work.say(made.length === 1 ? `“${made[0].card.name}” is cast.` : `${made.length} patches are cast.`);
    return made;
  }

  interface One {
    patch: Patch;
    name: string;
    over: AlphaHead | null;
    source: { id: string; revision: number; patchId: string };
  }

  async function keepOne(
    { patch, name, over, source }: One,
    on: NonNullable<typeof bench.thread>,
    hand: Parameters<typeof keepCast>[1],
  ): Promise<Alpha | null> {
    const parsed = NameSchema.safeParse(name);
    if (!parsed.success) throw new Error(parsed.error.issues[0].message);
    const full = await patchCast(on, patch, hand.report);
    if ('flat' in full) throw new Error(`${patch.name}: ${full.flat}`);
    const before = over ? await api.get('alphas', over.id) : null;
    const { author, tags } = bench.doc!.card;
    const card = before?.doc.card ?? {
      name: library.freeName('alphas', parsed.data),
      author,
      tags: [...tags],
      notes: '',
    };
    const colours = patch.colours ? await coloursOf(on, patch) : null;
    return keepCast({ made: full, before, card, source, steps: edgeSteps(patch), colours }, hand);
  }

  return { preview, result, flat, share, problem, edit, mend, keep, cancel: () => casting.value?.cancel() };
});
