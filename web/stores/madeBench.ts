/** Lettering or a pattern on the bench: changed with undo, seen live, kept as a draft at once, saved, cast into alphas. */
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { explain, LetteringSchema, NameSchema, PatternSchema, StepSchema, type Alpha, type Lettering, type Pattern } from '#core/settings';
import * as api from '../api/client';
import { dropSourceDraft, keepSourceDraft, sourceDraft } from '../api/drafts';
import { BakeCancelled, Recipes } from '../workers/recipes';
import type { RecipeAnswer } from '../workers/recipe.worker';
import { castAlpha, startRelief, tilesOf } from './castAlpha';
import { sentence, useConnection } from './connection';
import { useLibrary } from './library';
import { plain } from './plain';

type Made = Lettering | Pattern;
const DRAFT_DELAY_MS = 350;
const QUICK_SIDE = 384;
const RESTED_SIDE = 1024;
const REST_MS = 350;

export const useMadeBench = defineStore('made-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const doc = ref<Made | null>(null);
  const saved = ref<Made | null>(null);
  const revision = ref<number | null>(null);
  const keptAt = ref<number | null>(null);
  const opening = ref(false);
  const problem = ref<string | null>(null);
  const share = ref<number | null>(null);
  const answer = shallowRef<RecipeAnswer | null>(null);
  const past = ref<string[]>([]);
  const future = ref<string[]>([]);
  let recipes: Recipes | null = null;
  let stop: () => void = () => undefined;
  let drafting: ReturnType<typeof setTimeout> | undefined;
  let resting: ReturnType<typeof setTimeout> | undefined;
  let last = { label: '', at: 0 };

  const unsaved = computed(() => doc.value !== null && JSON.stringify(doc.value) !== JSON.stringify(saved.value));
  const casts = computed(() => library.alphas.filter((a) => a.doc.lineage.sourceId === doc.value?.id).reverse());

  async function open(id: string, kind: Made['kind']): Promise<void> {
    close();
    opening.value = true;
    try {
      await library.ready();
      const kept = await api.get('sources', id);
      if (kept.doc.kind !== kind) throw new Error(`“${kept.doc.card.name}” is no ${kind}.`);
      const draft = await sourceDraft(id);
      const fresh = draft && draft.revision === kept.revision && draft.doc.kind === kind ? draft : null;
      saved.value = plain(kept.doc as Made);
      doc.value = fresh ? (fresh.doc as Made) : plain(kept.doc as Made);
      revision.value = kept.revision;
      keptAt.value = fresh?.keptAt ?? null;
      recipes = new Recipes();
      recipes.onAnswer = (next) => (answer.value = next);
      recipes.onFail = (error) => (problem.value = sentence(error));
      look();
    } catch (error) {
      connection.noticed(error);
      problem.value = `It can’t be opened. ${sentence(error)}`;
    } finally {
      opening.value = false;
    }
  }

  function close(): void {
    if (drafting !== undefined) void keepDraft();
    clearTimeout(resting);
    recipes?.close();
    recipes = null;
    stop();
    for (const value of [doc, saved, revision, keptAt, problem, answer]) value.value = null;
    past.value = [];
    future.value = [];
  }

  function run(size: number): void {
    if (!doc.value || !recipes) return;
    const made = plain(doc.value);
    const base = { kind: made.kind, sourceId: made.id };
    recipes.preview({ base, made, others: [] }, { steps: [], size, fullSize: size, tiles: tilesOf(null, made), chosen: null, through: false }, size);
  }

  function look(): void {
    run(QUICK_SIDE);
    clearTimeout(resting);
    resting = setTimeout(() => run(RESTED_SIDE), REST_MS);
  }

  function edit(label: string, change: (made: Made) => void): void {
    if (!doc.value) return;
    const before = JSON.stringify(doc.value);
    const next = plain(doc.value);
    change(next);
    if (JSON.stringify(next) === before) return;
    const now = Date.now();
    if (label !== last.label || now - last.at > 700) past.value = [...past.value.slice(-200), before];
    last = { label, at: now };
    future.value = [];
    put(next);
  }

  function put(next: Made): void {
    doc.value = next;
    problem.value = null;
    clearTimeout(drafting);
    drafting = setTimeout(() => void keepDraft(), DRAFT_DELAY_MS);
    look();
  }

  function travel(from: typeof past, to: typeof past): void {
    const state = from.value.at(-1);
    if (state === undefined || !doc.value) return;
    from.value = from.value.slice(0, -1);
    to.value = [...to.value, JSON.stringify(doc.value)];
    last.label = '';
    put(JSON.parse(state) as Made);
  }

  async function keepDraft(): Promise<void> {
    clearTimeout(drafting);
    drafting = undefined;
    if (!doc.value || revision.value === null) return;
    if (!unsaved.value) {
      keptAt.value = null;
      return dropSourceDraft(doc.value.id);
    }
    keptAt.value = Date.now();
    await keepSourceDraft({ doc: plain(doc.value), revision: revision.value, keptAt: keptAt.value });
  }

  async function save(): Promise<boolean> {
    if (!doc.value) return false;
    const checked = (doc.value.kind === 'pattern' ? PatternSchema : LetteringSchema).safeParse(doc.value);
    if (!checked.success) {
      problem.value = explain(checked.error);
      return false;
    }
    problem.value = null;
    const sent = JSON.stringify(doc.value);
    try {
      const kept = await api.save('sources', checked.data, revision.value);
      library.putSource(kept);
      if (doc.value?.id !== kept.doc.id) return true;
      saved.value = plain(kept.doc as Made);
      revision.value = kept.revision;
      if (JSON.stringify(doc.value) === sent) doc.value = plain(kept.doc as Made);
      await keepDraft();
      return true;
    } catch (error) {
      const away = connection.noticed(error);
      await keepDraft();
      problem.value = `${sentence(error)}${away ? ' It is kept here as a draft; save it when the server is back.' : ''}`;
      return false;
    }
  }

  async function revert(): Promise<void> {
    if (!doc.value) return;
    const { id, kind } = doc.value;
    clearTimeout(drafting);
    drafting = undefined;
    await dropSourceDraft(id);
    doc.value = null;
    await open(id, kind);
  }

  /** Casts an alpha from what is on the bench; `over` is cast anew with its own recipe. */
  async function cast(wanted: string, size: number, bevelled: boolean, over: Alpha | null): Promise<Alpha | null> {
    if (!doc.value || share.value !== null) return null;
    const name = NameSchema.safeParse(over?.card.name ?? wanted);
    if (!name.success) {
      problem.value = name.error.issues[0]!.message;
      return null;
    }
    if (unsaved.value && !(await save())) return null;
    const { id, kind, card } = doc.value;
    share.value = 0;
    try {
      const recipe = over?.recipe ?? { base: { kind, sourceId: id } as const, steps: bevelled ? [StepSchema.parse({ kind: 'bevel', id: crypto.randomUUID(), width: 2 })] : [] };
      const work = castAlpha({
        id: over?.id ?? crypto.randomUUID(), card: over?.card ?? { name: library.freeName('alphas', name.data), author: card.author, tags: [], notes: '' }, size: over?.size ?? size,
        relief: over?.relief ?? startRelief(kind), format: over?.format === 'grey32f' ? 'grey32f' : 'grey16', recipe, source: { id, revision: revision.value! },
      }, over ? library.alphas.find((a) => a.doc.id === over.id)?.revision ?? null : null, (s) => (share.value = s));
      stop = work.cancel;
      return (await work.done).doc;
    } catch (error) {
      if (error instanceof BakeCancelled) return null;
      connection.noticed(error);
      problem.value = `The cast wasn’t kept. ${sentence(error)}`;
      return null;
    } finally {
      share.value = null;
    }
  }

  return {
    doc, revision, keptAt, opening, problem, share, answer, past, future, unsaved, casts,
    open, close, edit, undo: () => travel(past, future), redo: () => travel(future, past), save, revert, cast, cancel: () => stop(), keepDraft,
  };
});
