/** The cast of the slab on the bench: the live picture, its checks and their mends, and the casts that are kept. */
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef, watch } from 'vue';
import { CastCancelled } from '#core/cast';
import type { Check } from '#core/checks';
import type { AlphaHead } from '#core/stored';
import { NameSchema, type Alpha, type CastSettings, type Frame } from '#core/settings';
import * as api from '../api/client';
import { Caster } from '../workers/caster';
import { BakeCancelled } from '../workers/recipes';
import type { CastResult, FlatCast } from '../workers/castResult';
import { sentence, useConnection } from './connection';
import { fullCast, keepCast, PREVIEW_SIZE } from './keepCast';
import { useLibrary } from './library';
import { plain } from '../api/plain';
import { useSlabBench } from './slabBench';
import { useWork } from './work';

/** What mends a check, as it stands on its button. */
export const MENDS: Partial<Record<Check['name'], string>> = {
  margin: 'Fit the frame',
  'ring-loss': 'Fit the ring',
  undercut: 'Cast as vectors',
  'used-range': 'Use the tones',
  ground: 'Level the border',
  lift: 'Ground at the average',
  'off-clay': 'Bring it back',
};

export const useSlabCast = defineStore('slab-cast', () => {
  const bench = useSlabBench();
  const library = useLibrary();
  const connection = useConnection();
  const work = useWork();
  const caster = shallowRef<Caster | null>(null);
  const preview = shallowRef<CastResult | FlatCast | null>(null);
  const casting = computed(() => work.find(bench.doc?.id));
  /** Share of a kept cast that is done; null while none runs. */
  const share = computed(() => casting.value?.share ?? null);
  const problem = ref<string | null>(null);
  /** Whether the frame's handles can be taken hold of on the slab. */
  const framing = ref(false);

  const settings = computed(() => bench.doc?.cast ?? null);
  const result = computed(() => (preview.value && 'floats' in preview.value ? preview.value : null));
  const flat = computed(() => (preview.value && 'flat' in preview.value ? preview.value : null));

  /** Follows the slab that is opened, and its mesh when another takes its place. */
  watch(
    () => bench.sculptor,
    async (sculptor) => {
      caster.value?.close();
      caster.value = null;
      preview.value = null;
      problem.value = null;
      if (!sculptor?.opened) return;
      const made = markRaw(new Caster());
      made.onProblem = (error) => {
        problem.value = `The cast can’t be shown. ${sentence(error)}`;
      };
      made.onPreview = (cast) => {
        preview.value = cast;
      };
      await made.open(sculptor.opened);
      // Another slab may have been opened meanwhile.
      if (bench.sculptor !== sculptor) return made.close();
      caster.value = made;
      look();
    },
  );
  watch(() => bench.changes, look);

  async function reopen(): Promise<void> {
    const opened = bench.sculptor?.opened;
    if (opened) await caster.value?.open(opened);
    look();
  }

  function look(): void {
    if (!settings.value || !caster.value) return;
    caster.value.preview({ ...plain(settings.value), size: Math.min(settings.value.size, PREVIEW_SIZE), samples: 1 });
  }

  function edit(change: (cast: CastSettings) => void): void {
    bench.edit((slab) => change(slab.cast));
  }

  async function fit(inside: 'square' | 'ring'): Promise<void> {
    if (!settings.value || !caster.value) return;
    const { frame, margin } = settings.value;
    const found: Frame | null = await caster.value.fit(frame.turn, margin, inside);
    if (found) {
      edit((cast) => {
        cast.frame = found;
      });
    } else problem.value = 'There is no form on the slab that the frame could be fitted to.';
  }

  async function mend(name: Check['name']): Promise<void> {
    const { value: now } = result;
    if (!now) return;
    switch (name) {
      case 'margin':
        return fit('square');
      case 'ring-loss':
        return fit('ring');
      case 'off-clay':
        return edit((cast) => {
          cast.frame = {
            ...cast.frame,
            x: 0,
            y: 0,
            side: Math.min(cast.frame.side, cast.frame.turn % 90 === 0 ? 1.96 : 1.38),
          };
        });
      case 'undercut':
        return edit((cast) => {
          cast.format = 'vector32f';
        });
      case 'used-range':
        return edit((cast) => {
          cast.floor = now.used.floor;
          cast.crown = now.used.crown;
        });
      case 'ground':
        return edit((cast) => {
          cast.floor = now.levelFloor;
        });
      case 'lift':
        return edit((cast) => {
          cast.ground = 'average';
        });
    }
  }

  /**
   * Casts at full size and keeps the alpha, with its lineage, also while one goes elsewhere; `over` is cast anew in
   * place of a new one. Null when it was cancelled or could not be.
   */
  async function keep(wanted: string, over: AlphaHead | null): Promise<Alpha | null> {
    const from = caster.value;
    if (!bench.doc || !from || !settings.value || share.value !== null) return null;
    problem.value = null;
    const name = NameSchema.safeParse(wanted);
    if (!name.success) {
      problem.value = name.error.issues[0].message;
      return null;
    }
    if (!over && library.freeName('alphas', name.data) !== name.data) {
      problem.value = `There is already an alpha called “${name.data}”. Choose another name, or cast that one again below.`;
      return null;
    }
    const { id } = bench.doc;
    const title = over?.card.name ?? name.data;
    const { author } = bench.doc.card;
    const here = (): boolean => bench.doc?.id === id;
    try {
      const stored = await work.run(`Casting “${title}”`, id, async (hand) => {
        if (bench.unsaved && !(await bench.save())) return null;
        if (!here() || hand.cancelled) return null;
        const source = { id, revision: bench.revision! };
        hand.onCancel(() => from.cancel());
        const made = await fullCast(from, plain(settings.value!), hand.report);
        if ('flat' in made) {
          problem.value = made.flat;
          return null;
        }
        const before = over ? await api.get('alphas', over.id) : null;
        const card = before?.doc.card ?? { name: title, author, tags: [], notes: '' };
        return keepCast({ made, before, card, source, steps: [] }, hand);
      });
      if (stored && !here()) work.say(`“${title}” is cast.`);
      return stored;
    } catch (error) {
      if (error instanceof CastCancelled || error instanceof BakeCancelled) return null;
      connection.noticed(error);
      if (here()) problem.value = `The cast wasn’t kept. ${sentence(error)}`;
      else work.say(`The cast of “${title}” wasn’t kept. ${sentence(error)}`, true);
      return null;
    }
  }

  return {
    caster,
    settings,
    preview,
    result,
    flat,
    share,
    problem,
    framing,
    reopen,
    look,
    edit,
    fit,
    mend,
    keep,
    cancel: () => casting.value?.cancel(),
  };
});
