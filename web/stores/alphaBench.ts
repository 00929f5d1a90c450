/**
 * The alpha on the bench: its recipe, changed step by step with undo, seen live on a reduced copy and then at its own size.
 * Every change is kept as a draft at once; a save bakes it at full size, and the brushes that follow get it.
 */
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Kept } from '#core/kept';
import { AlphaSchema, explain, type Alpha, type Recipe } from '#core/settings';
import * as api from '../api/client';
import { alphaDraft, draftIsSaved, dropAlphaDraft, keepAlphaDraft } from '../api/drafts';
import { BakeCancelled, MOST_BASE_SIDE, Recipes, type Made } from '../workers/recipes';
import type { RecipeAnswer } from '../workers/recipe.worker';
import { castAlpha, fullSide, madeOf, recipeFrom, tilesOf } from './castAlpha';
import { sentence, useConnection } from './connection';
import { useHistory } from './history';
import { useLibrary } from './library';
import { oneAtATime } from './oneAtATime';
import { plain } from './plain';
import { useWork } from './work';
import { useRecipeSteps } from './recipeSteps';

const DRAFT_DELAY_MS = 350;
/** While the hand moves, and when it rests. */
export const QUICK_SIDE = 512;
const RESTED_SIDE = 2048;
const REST_MS = 450;

export const useAlphaBench = defineStore('alpha-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const work = useWork();
  const doc = ref<Alpha | null>(null);
  const saved = ref<Alpha | null>(null);
  const revision = ref<number | null>(null);
  const keptAt = ref<number | null>(null);
  const opening = ref(false);
  const problem = ref<string | null>(null);
  const conflict = ref(false);
  /** There is no stored one any more. */
  const deleted = ref(false);
  const baking = computed(() => work.find(doc.value?.id));
  const share = computed(() => baking.value?.share ?? null);
  const chosen = ref<string | null>(null);
  const answer = shallowRef<RecipeAnswer | null>(null);
  /** The answer is at the alpha's own size, or as near as is shown. */
  const exact = ref(false);
  const bare = shallowRef<{ size: number; heights: Float32Array } | null>(null);
  const history = useHistory<Alpha>(doc, {
    togetherMs: 700, put: (next) => {
      doc.value = next;
      problem.value = null;
      clearTimeout(drafting);
      drafting = setTimeout(() => void keepDraft(), DRAFT_DELAY_MS);
      look();
    },
  });
  let recipes: Recipes | null = null;
  /** Only the last opening counts. */
  let wanted = '';
  let drafting: ReturnType<typeof setTimeout> | undefined;
  let resting: ReturnType<typeof setTimeout> | undefined;

  const unsaved = computed(() => doc.value !== null && JSON.stringify(doc.value) !== JSON.stringify(saved.value));
  const vector = computed(() => doc.value?.format === 'vector32f');
  /** A cast that was left as it is becomes the base of its own recipe. */
  const recipe = computed<Recipe | null>(() => doc.value && (doc.value.recipe ?? (doc.value.format === 'vector32f' ? null : {
    base: { kind: 'cast', blob: saved.value!.blob, format: doc.value.format, size: saved.value!.size }, steps: [],
  })));
  const step = computed(() => recipe.value?.steps.find((s) => s.id === chosen.value) ?? null);
  /** The chosen step is drawn or clicked on the picture. */
  const drawnOn = computed(() => step.value?.kind === 'retouch' || (step.value?.kind === 'background' && step.value.by === 'click'));
  /** The drawn source that the recipe begins with, as it was when the alpha was opened. */
  const made = shallowRef<Made>(null);
  const tiles = computed(() => tilesOf(recipe.value, made.value));
  /** The source was changed after this alpha was made. */
  const behind = computed(() => {
    const from = library.sources.find((s) => s.id === doc.value?.lineage.sourceId);
    return recipe.value?.base.kind !== 'cast' && recipe.value?.base.kind !== 'sheet' && from !== undefined && from.revision !== doc.value!.lineage.sourceRevision;
  });

  async function open(id: string): Promise<void> {
    close();
    wanted = id;
    opening.value = true;
    try {
      await library.ready();
      const draft = await alphaDraft(id);
      const kept = await api.get('alphas', id).catch((error: unknown) => {
        // Deleted in another window: the work that is here is shown all the same.
        if (draft && api.isMissing(error)) return null;
        throw error;
      });
      if (kept) library.putAlpha(kept);
      const begun = (draft ?? kept!).doc.recipe;
      const drawn = begun && (await madeOf(begun));
      if (wanted !== id) return;
      saved.value = plain(kept ? kept.doc : draft!.doc);
      doc.value = draft ? draft.doc : plain(kept!.doc);
      made.value = drawn;
      revision.value = draft ? draft.revision : kept!.revision;
      keptAt.value = draft?.keptAt ?? null;
      deleted.value = kept === null;
      conflict.value = draft !== undefined && draft.revision !== kept?.revision;
      history.resume();
      recipes = new Recipes();
      recipes.onAnswer = taken;
      recipes.onFail = (error) => {
        connection.noticed(error);
        problem.value = sentence(error);
      };
      look();
    } catch (error) {
      if (wanted !== id) return;
      connection.noticed(error);
      problem.value = `The alpha can’t be opened. ${sentence(error)}`;
    } finally {
      if (wanted === id) opening.value = false;
    }
  }

  function close(): void {
    if (drafting !== undefined) void keepDraft();
    history.leave();
    clearTimeout(resting);
    recipes?.close();
    recipes = null;
    for (const value of [doc, saved, made, revision, keptAt, problem, chosen, answer, bare]) value.value = null;
    deleted.value = false;
    conflict.value = false;
    opening.value = false;
    wanted = '';
  }

  /** Shows the recipe: quickly, and exactly when nothing has changed for a moment. */
  function look(): void {
    const now = recipe.value;
    if (!doc.value || !recipes || !now) return;
    exact.value = false;
    run(Math.min(QUICK_SIDE, doc.value.size));
    clearTimeout(resting);
    const whole = Math.min(doc.value.size, RESTED_SIDE);
    if (whole > QUICK_SIDE) resting = setTimeout(() => run(whole), REST_MS);
  }

  function run(size: number): void {
    const now = recipe.value;
    if (!doc.value || !recipes || !now) return;
    const drawn = now.base.kind === 'lettering' || now.base.kind === 'pattern';
    const side = drawn || size <= QUICK_SIDE ? size : MOST_BASE_SIDE;
    recipes.preview(recipeFrom(now, made.value), { steps: plain(now.steps), size, fullSize: fullSide(now.base, doc.value.size), tiles: tiles.value, chosen: chosen.value, through: drawnOn.value }, side);
  }

  function taken(next: RecipeAnswer): void {
    if (!doc.value) return;
    answer.value = next;
    exact.value = next.size === Math.min(doc.value.size, RESTED_SIDE) && recipes?.waiting === false;
    const size = Math.min(QUICK_SIDE, doc.value.size);
    void recipes?.bare(size).then((heights) => {
      bare.value = { size, heights };
    });
  }

  /** Changes the alpha. Changes of the same label in quick succession are one undo step. */
  function edit(label: string, change: (alpha: Alpha & { recipe: Recipe | null }) => void): void {
    history.edit(label, (next) => {
      const bare = next.recipe === null;
      next.recipe ??= plain(recipe.value);
      change(next);
      // A cast without steps is still left as it is.
      if (bare && next.recipe?.steps.length === 0) next.recipe = null;
    });
  }

  const steps = useRecipeSteps({ recipe, edit, chosen, problem, answer, added: look });

  async function keepDraft(): Promise<void> {
    clearTimeout(drafting);
    drafting = undefined;
    if (!doc.value) return;
    if (!unsaved.value) {
      keptAt.value = null;
      return dropAlphaDraft(doc.value.id);
    }
    const draft = { doc: plain(doc.value), revision: revision.value, keptAt: Date.now() };
    keptAt.value = draft.keptAt;
    await keepAlphaDraft(draft);
  }

  /** Bakes at full size and saves under the id and card of `as`. */
  function bake(as: Alpha, on: number | null): Promise<Kept<'alphas'>> {
    const { id, card, size, relief, format } = as;
    const from = library.sources.find((s) => s.id === as.lineage.sourceId);
    const { floor, crown, cast } = plain(as.lineage);
    const fromSlab = recipe.value!.base.kind === 'cast';
    const source = from ? { id: from.id, revision: fromSlab ? as.lineage.sourceRevision ?? from.revision : from.revision } : null;
    const wish = { id, card, size, relief, format: format as 'grey16', recipe: plain(recipe.value!), made: made.value, source, ...(fromSlab ? { cast: { floor, crown, cast } } : {}) };
    return work.run(`Baking “${card.name}”`, doc.value!.id, async (hand) => {
      const made = castAlpha(wish, on, hand.report);
      hand.onCancel(made.cancel);
      return made.done;
    });
  }

  /** Keeps this work beside the other as an alpha of its own; answers its id, or null when it can't be kept. */
  async function keepAsCopy(): Promise<string | null> {
    if (!doc.value || share.value !== null || vector.value) return null;
    const { id } = doc.value;
    const copy = { ...plain(doc.value), id: crypto.randomUUID() };
    copy.card.name = library.freeName('alphas', `${copy.card.name} copy`);
    problem.value = null;
    try {
      await bake(copy, null);
      clearTimeout(drafting);
      drafting = undefined;
      await dropAlphaDraft(id);
      return copy.id;
    } catch (error) {
      if (error instanceof BakeCancelled) return null;
      connection.noticed(error);
      problem.value = `The copy wasn’t kept. ${sentence(error)}`;
      return null;
    }
  }

  const save = oneAtATime(saveNow, () => doc.value?.id);

  /** Bakes at full size and saves. */
  async function saveNow(): Promise<boolean> {
    if (!doc.value || share.value !== null || vector.value) return false;
    const checked = AlphaSchema.safeParse(doc.value);
    if (!checked.success) {
      problem.value = explain(checked.error);
      return false;
    }
    problem.value = null;
    const sent = JSON.stringify(doc.value);
    try {
      const kept = await bake(checked.data, revision.value);
      if (doc.value?.id !== kept.doc.id) {
        await draftIsSaved('alpha', kept.doc.id, JSON.parse(sent), kept.revision);
        work.say(`“${kept.doc.card.name}” is saved.`);
        return true;
      }
      saved.value = plain(kept.doc);
      revision.value = kept.revision;
      deleted.value = false;
    conflict.value = false;
      if (JSON.stringify(doc.value) === sent) doc.value = plain(kept.doc);
      await keepDraft();
      return true;
    } catch (error) {
      if (error instanceof BakeCancelled) return false;
      const away = connection.noticed(error);
      if (doc.value?.id !== checked.data.id) {
        work.say(`“${checked.data.card.name}” wasn’t saved. ${sentence(error)} Its changes are kept here as a draft.`, true);
        return false;
      }
      const by = api.conflictOf(error);
      if (by) {
        deleted.value = by === 'deleted';
        conflict.value = true;
        return false;
      }
      problem.value = `The alpha wasn’t saved. ${sentence(error)}${away ? ' It is kept here as a draft; save it when the server is back.' : ''}`;
      return false;
    }
  }

  /** Back to the saved alpha. */
  async function revert(): Promise<void> {
    if (!doc.value) return;
    clearTimeout(drafting);
    drafting = undefined;
    const { id } = doc.value;
    await dropAlphaDraft(id);
    doc.value = null;
    await open(id);
  }

  watch(chosen, () => {
    if (doc.value) look();
  });

  return {
    doc, saved, revision, keptAt, opening, problem, conflict, deleted, share, chosen, answer, exact, bare, past: history.past, future: history.future, unsaved, vector, recipe, step, drawnOn, tiles, behind,
    open, close, look, edit, undo: history.undo, redo: history.redo, ...steps, save, revert, keepAsCopy, cancel: () => baking.value?.cancel(), keepDraft,
  };
});
