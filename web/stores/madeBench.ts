/**
 * Lettering or a pattern on the bench: changed with undo, seen live, kept as a draft at once, saved, cast into alphas.
 */
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import type { AlphaHead } from '#core/stored';
import { NameSchema, StepSchema, type Alpha, type Lettering, type Pattern } from '#core/settings';
import * as api from '../api/client';
import { BakeCancelled, Recipes } from '../workers/recipes';
import type { RecipeAnswer } from '../workers/recipe.worker';
import { castAlpha, startRelief, tilesOf } from './castAlpha';
import { sentence, useConnection } from './connection';
import { useLibrary } from './library';
import { plain } from '../api/plain';
import { useSourceDoc } from './sourceDoc';
import { useWork } from './work';

type Made = Lettering | Pattern;
const QUICK_SIDE = 384;
const RESTED_SIDE = 1024;
const REST_MS = 350;

export const useMadeBench = defineStore('made-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const work = useWork();
  const own = useSourceDoc<Made>({ togetherMs: 700, onChange: look });
  const { doc, revision, problem, unsaved } = own;
  const casting = computed(() => work.find(doc.value?.id));
  const share = computed(() => casting.value?.share ?? null);
  const answer = shallowRef<RecipeAnswer | null>(null);
  let recipes: Recipes | null = null;
  let resting: ReturnType<typeof setTimeout> | undefined;

  async function open(id: string, kind: Made['kind']): Promise<void> {
    close();
    await own.open(id, kind, () => {
      recipes = new Recipes();
      recipes.onAnswer = (next) => (answer.value = next);
      recipes.onFail = (error) => (problem.value = sentence(error));
      look();
    });
  }

  function close(): void {
    own.close();
    clearTimeout(resting);
    recipes?.close();
    recipes = null;
    answer.value = null;
  }

  function run(size: number): void {
    if (!doc.value || !recipes) return;
    const made = plain(doc.value);
    const base = { kind: made.kind, sourceId: made.id };
    recipes.preview(
      { base, made, others: [] },
      { steps: [], size, fullSize: size, tiles: tilesOf(null, made), chosen: null, through: false },
      size,
    );
  }

  /** Quickly, and finer when the hand rests. */
  function look(): void {
    run(QUICK_SIDE);
    clearTimeout(resting);
    resting = setTimeout(() => run(RESTED_SIDE), REST_MS);
  }

  const revert = (): Promise<void> => {
    const kind = doc.value!.kind;
    return own.revert((id) => open(id, kind));
  };

  /** Casts an alpha from what is on the bench; `over` is cast anew with its own recipe. */
  async function cast(wanted: string, size: number, bevelled: boolean, over: AlphaHead | null): Promise<Alpha | null> {
    if (!doc.value || share.value !== null) return null;
    const name = NameSchema.safeParse(over?.card.name ?? wanted);
    if (!name.success) {
      problem.value = name.error.issues[0].message;
      return null;
    }
    if (doc.value.kind === 'lettering' && doc.value.blocks.every((b) => b.text.trim() === '')) {
      problem.value = 'There is nothing to cast: every block is empty. Type some text first.';
      return null;
    }
    if (unsaved.value && !(await own.save())) return null;
    if (!doc.value || share.value !== null) return null;
    const { id, kind, card } = doc.value;
    const made = plain(doc.value);
    const on = revision.value!;
    try {
      const again = over ? await api.get('alphas', over.id) : null;
      const recipe = again?.doc.recipe ?? {
        base: { kind, sourceId: id } as const,
        steps: bevelled ? [StepSchema.parse({ kind: 'bevel', id: crypto.randomUUID(), width: 2 })] : [],
      };
      const wish = {
        id: over?.id ?? crypto.randomUUID(),
        card: again?.doc.card ?? {
          name: library.freeName('alphas', name.data),
          author: card.author,
          tags: [],
          notes: '',
        },
        size: again?.doc.size ?? size,
        relief: again?.doc.relief ?? startRelief(kind),
        format: again?.doc.format === 'grey32f' ? 'grey32f' : 'grey16',
        recipe,
        made,
        source: { id, revision: on },
      } as const;
      const stored = await work.run(`Casting “${wish.card.name}”`, id, async (hand) => {
        const cast = castAlpha(wish, again?.revision ?? null, hand.report);
        hand.onCancel(cast.cancel);
        return cast.done;
      });
      if (doc.value?.id !== id) work.say(`“${stored.doc.card.name}” is cast.`);
      return stored.doc;
    } catch (error) {
      if (error instanceof BakeCancelled) return null;
      connection.noticed(error);
      if (doc.value?.id === id) problem.value = `The cast wasn’t kept. ${sentence(error)}`;
      else work.say(`The cast of “${card.name}” wasn’t kept. ${sentence(error)}`, true);
      return null;
    }
  }

  const { past, future, edit, undo, redo } = own.history;
  return {
    ...own,
    share,
    answer,
    past,
    future,
    open,
    close,
    edit,
    undo,
    redo,
    revert,
    cast,
    cancel: () => casting.value?.cancel(),
  };
});
