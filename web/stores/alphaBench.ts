/**
 * The alpha on the bench: its recipe, changed step by step with undo, seen live on a reduced copy and then at its own
 * size. Every change is kept as a draft at once; a save bakes it at full size, and the brushes that follow get it.
 */
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import type { StoredDocument } from '#core/stored';
import type { Alpha, Recipe } from '#core/settings';
import { alphaDrafts } from '../api/drafts';
import { BakeCancelled, MOST_BASE_SIDE, Recipes, type Made } from '../workers/recipes';
import type { RecipeAnswer } from '../workers/recipe.worker';
import { castAlpha, fullSide, madeOf, recipeFrom, tilesOf } from './castAlpha';
import { sentence, useConnection } from './connection';
import { useHistory } from './history';
import { useLibrary } from './library';
import { useOpenDocument } from './openDocument';
import { plain } from '../api/plain';
import { useWork, type Work } from './work';
import { useRecipeSteps, type Held } from './recipeSteps';

const DRAFT_DELAY_MS = 350;
/** While the hand moves, and when it rests. */
export const QUICK_SIDE = 512;
const RESTED_SIDE = 2048;
const REST_MS = 450;

export const useAlphaBench = defineStore('alpha-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const work = useWork();
  const own = useOpenDocument<'alphas', Alpha>({
    collection: 'alphas',
    what: () => 'alpha',
    drafts: alphaDrafts,
    draftMs: DRAFT_DELAY_MS,
    async prepare({ doc: { recipe: begun } }) {
      const drawn = begun && (await madeOf(begun));
      return { show: () => begin(drawn) };
    },
    blocked: (): boolean => share.value !== null || vector.value,
    send: bake,
    isCancel: (error) => error instanceof BakeCancelled,
    saved(stored): void {
      if (doc.value?.id !== stored.doc.id) work.say(`“${stored.doc.card.name}” is saved.`);
    },
    closed,
  });
  const { doc, saved, problem } = own;
  const baking = computed((): Work | null => work.find(doc.value?.id));
  const share = computed((): number | null => baking.value?.share ?? null);
  const chosen = ref<string | null>(null);
  const answer = shallowRef<RecipeAnswer | null>(null);
  /** The answer is at the alpha's own size, or as near as is shown. */
  const exact = ref(false);
  const bare = shallowRef<{ size: number; heights: Float32Array } | null>(null);
  const history = useHistory<Alpha>(doc, {
    togetherMs: 700,
    put: (next) => {
      doc.value = next;
      own.touched();
      look();
    },
  });
  let recipes: Recipes | null = null;
  let resting: ReturnType<typeof setTimeout> | undefined;

  const vector = computed(() => doc.value?.format === 'vector32f');
  /** A cast that was left as it is becomes the base of its own recipe. */
  const recipe = computed<Recipe | null>(
    () =>
      doc.value &&
      (doc.value.recipe ??
        (doc.value.format === 'vector32f'
          ? null
          : {
              base: {
                kind: 'cast',
                blob: (saved.value?.doc ?? doc.value).blob,
                format: doc.value.format,
                size: (saved.value?.doc ?? doc.value).size,
              },
              steps: [],
            })),
  );
  const step = computed(() => recipe.value?.steps.find((s) => s.id === chosen.value) ?? null);
  /** The chosen step is drawn or clicked on the picture. */
  const drawnOn = computed(
    () => step.value?.kind === 'retouch' || (step.value?.kind === 'background' && step.value.by === 'click'),
  );
  /** The drawn source that the recipe begins with, as it was when the alpha was opened. */
  const made = shallowRef<Made>(null);
  const tiles = computed(() => tilesOf(recipe.value, made.value));
  /** The source was changed after this alpha was made. */
  const behind = computed(() => {
    const from = library.source(doc.value?.lineage.sourceId ?? null);
    return (
      recipe.value?.base.kind !== 'cast' &&
      recipe.value?.base.kind !== 'sheet' &&
      from !== null &&
      from.revision !== doc.value!.lineage.sourceRevision
    );
  });

  /** The alpha is shown: its recipe begins to be baked. */
  function begin(drawn: Made): void {
    made.value = drawn;
    history.resume();
    recipes = new Recipes();
    recipes.onAnswer = taken;
    recipes.onFail = (error) => {
      connection.noticed(error);
      problem.value = sentence(error);
    };
    look();
  }

  function closed(): void {
    history.close();
    paused = false;
    clearTimeout(resting);
    recipes?.close();
    recipes = null;
    for (const value of [made, chosen, answer, bare]) value.value = null;
  }

  /** While strokes that are costly to run are drawn, nothing is run; their end runs them. */
  let paused = false;
  function pause(on: boolean): void {
    paused = on;
    if (!on) look();
  }

  /** Shows the recipe: quickly, and exactly when nothing has changed for a moment. */
  function look(): void {
    const now = recipe.value;
    if (!doc.value || !recipes || !now) return;
    exact.value = false;
    clearTimeout(resting);
    if (paused) return;
    run(Math.min(QUICK_SIDE, doc.value.size));
    const whole = Math.min(doc.value.size, RESTED_SIDE);
    if (whole > QUICK_SIDE) resting = setTimeout(() => run(whole), REST_MS);
  }

  function run(size: number): void {
    const now = recipe.value;
    if (!doc.value || !recipes || !now) return;
    const drawn = now.base.kind === 'lettering' || now.base.kind === 'pattern';
    const side = drawn || size <= QUICK_SIDE ? size : MOST_BASE_SIDE;
    recipes.preview(
      recipeFrom(now, made.value),
      {
        steps: plain(now.steps),
        size,
        fullSize: fullSide(now.base, doc.value.size),
        tiles: tiles.value,
        chosen: chosen.value,
        through: drawnOn.value,
      },
      side,
    );
  }

  function taken(next: RecipeAnswer): void {
    if (!doc.value) return;
    answer.value = next;
    exact.value = next.size === Math.min(doc.value.size, RESTED_SIDE) && recipes?.pending === false;
    const size = Math.min(QUICK_SIDE, doc.value.size);
    void recipes?.bare(size).then((heights) => {
      bare.value = { size, heights };
    });
  }

  /** Changes the alpha. Changes of the same label in quick succession are one undo step. */
  function edit(label: string, change: (alpha: Alpha & { recipe: Recipe | null }) => void, held?: Held): void {
    history.edit(
      label,
      (next) => {
        const bare = next.recipe === null;
        next.recipe ??= plain(recipe.value);
        change(next);
        // A cast without steps is still left as it is.
        if (bare && next.recipe?.steps.length === 0) next.recipe = null;
      },
      held,
    );
  }

  const steps = useRecipeSteps({ recipe, edit, chosen, problem, answer, added: look });

  /** Bakes at full size and saves under the id and card of `as`. */
  function bake(as: Alpha, on: number | null): Promise<StoredDocument<'alphas'>> {
    const { id, card, size, relief, format } = as;
    const from = library.source(as.lineage.sourceId);
    const { floor, crown, cast, patchId, colours } = plain(as.lineage);
    const fromSlab = recipe.value!.base.kind === 'cast';
    const source = from
      ? { id: from.id, revision: fromSlab ? (as.lineage.sourceRevision ?? from.revision) : from.revision }
      : null;
    const wish = {
      id,
      card,
      size,
      relief,
      format: format as 'grey16',
      recipe: plain(recipe.value!),
      made: made.value,
      source,
      ...(fromSlab ? { cast: { floor, crown, cast, patchId, colours } } : {}),
    };
    return work.run(`Baking “${card.name}”`, doc.value!.id, async (hand) => {
      const made = castAlpha(wish, on, hand.report);
      hand.onCancel(made.cancel);
      return made.done;
    });
  }

  watch(chosen, () => {
    if (doc.value) look();
  });

  return {
    ...own,
    share,
    chosen,
    answer,
    exact,
    bare,
    past: history.past,
    future: history.future,
    vector,
    recipe,
    step,
    drawnOn,
    tiles,
    behind,
    look,
    pause,
    edit,
    undo: history.undo,
    redo: history.redo,
    ...steps,
    cancel: () => baking.value?.cancel(),
  };
});
