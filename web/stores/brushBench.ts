/**
 * The brush on the bench. Every change is kept as a draft at once; a save goes to the server, or waits for it.
 * A base brush is never changed: the first edit makes a copy and goes on with that.
 */
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import type { Kept } from '#core/kept';
import { BrushSchema, changeOf, explain, NameSchema, type Brush, type BrushChange } from '#core/settings';
import * as api from '../api/client';
import { brushDraft, brushDrafts, draftIsSaved, dropBrushDraft, keepBrushDraft, type BrushDraft } from '../api/drafts';
import { sentence, useConnection } from './connection';
import { oneAtATime } from './oneAtATime';
import { useLibrary } from './library';
import { useHistory } from './history';
import { plain } from './plain';
import { useWork } from './work';

const DRAFT_DELAY_MS = 250;
const TOGETHER_MS = 800;

/** What each step of the history changed, oldest first. */
function stepsOf(past: readonly string[], now: Brush | null): BrushChange[] {
  if (!now) return [];
  const states = [...past.map((state) => JSON.parse(state) as Brush), now];
  return past.map((_, i) => changeOf(states[i]!, states[i + 1]!)).filter((c) => c !== null);
}

export const useBrushBench = defineStore('brush-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const doc = ref<Brush | null>(null);
  const saved = ref<Kept<'brushes'> | null>(null);
  const revision = ref<number | null>(null);
  const keptAt = ref<number | null>(null);
  const waiting = ref(false);
  const saving = ref(false);
  const problem = ref<string | null>(null);
  const nameProblem = ref<string | null>(null);
  /** The stored brush is newer than the one this work began on. */
  const conflict = ref(false);
  /** There is no stored one any more. */
  const deleted = ref(false);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let copying: Promise<void> | null = null;
  /** Counts openings: only the last one counts. */
  let openings = 0;
  /** Undo and redo of settings; changes of one setting in quick succession are one step. */
  const history = useHistory<Brush>(doc, { togetherMs: TOGETHER_MS, put: take });
  const steps = computed(() => stepsOf(history.past.value, doc.value));

  const base = computed(() => saved.value?.base ?? false);
  const unsaved = computed(() => doc.value !== null && JSON.stringify(doc.value) !== JSON.stringify(saved.value?.doc));

  async function open(id: string): Promise<void> {
    const mine = ++openings;
    await flush();
    await library.ready();
    const [draft, kept] = await Promise.all([brushDraft(id), library.savedBrush(id)]);
    if (mine !== openings) return;
    resetValues();
    saved.value = kept ? { ...kept, doc: plain(kept.doc) } : null;
    if (draft) {
      doc.value = draft.doc;
      revision.value = draft.revision;
      keptAt.value = draft.keptAt;
      waiting.value = draft.waiting;
      deleted.value = kept === null && draft.revision !== null && !connection.away && library.failed === null;
      conflict.value = deleted.value || (kept !== null && draft.revision !== kept.revision && !draft.waiting);
    } else if (kept) {
      doc.value = plain(kept.doc);
      revision.value = kept.revision;
    } else {
      problem.value = connection.away
        ? 'The server can’t be reached, so this brush can’t be opened yet.'
        : 'This brush isn’t in the rack; it may have been deleted.';
    }
    history.resume();
  }

  function resetValues(): void {
    history.leave();
    doc.value = null;
    saved.value = null;
    revision.value = null;
    keptAt.value = null;
    waiting.value = false;
    problem.value = null;
    nameProblem.value = null;
    conflict.value = false;
    deleted.value = false;
  }

  async function copyBase(of: Brush, onCopy: (from: string, to: string) => void): Promise<void> {
    try {
      const copy = await library.copyBrush(of);
      onCopy(of.id, copy.id);
      resetValues();
      doc.value = copy;
    } finally {
      copying = null;
    }
  }

  /**
   * Changes the brush. Returns the id it has now: a base brush's first change is made to a copy. Changes with one label
   * in quick succession are one step; without a label they have that of the setting that changed. `onCopy` hears of a copy
   * before it is what is open.
   */
  async function edit(change: (brush: Brush) => void, label?: string, onCopy: (from: string, to: string) => void = () => undefined): Promise<string> {
    if (!doc.value) throw new Error('No brush is open.');
    // Changes that come while the copy is made go to the same copy.
    if (base.value) await (copying ??= copyBase(doc.value, onCopy));
    const next = plain(doc.value);
    change(next);
    history.edit(label ?? changeOf(doc.value, next)?.path ?? '', (own) => Object.assign(own, next));
    return doc.value.id;
  }

  /** Takes the next state of the brush; it is kept as a draft soon. */
  function take(next: Brush): void {
    doc.value = next;
    nameProblem.value = null;
    waiting.value = false;
    clearTimeout(timer);
    timer = setTimeout(() => void keep(), DRAFT_DELAY_MS);
  }

  /** Back to the state before step `index` of the history. */
  function goBack(index: number): void {
    for (let n = history.past.value.length - index; n > 0; n--) history.undo();
  }

  async function keep(): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    if (!doc.value) return;
    if (!unsaved.value) {
      await dropBrushDraft(doc.value.id);
      keptAt.value = null;
    } else {
      keptAt.value = Date.now();
      await keepBrushDraft({ doc: doc.value, revision: revision.value, keptAt: keptAt.value, waiting: waiting.value });
    }
    await library.loadDrafts();
  }

  /** Writes down what is still on its way. */
  async function flush(): Promise<void> {
    if (timer !== undefined) await keep();
  }

  const save = oneAtATime(saveNow, () => doc.value?.id);

  async function saveNow(): Promise<boolean> {
    // The first change of a base brush is on its way into a copy.
    if (copying) await copying;
    if (!doc.value) return false;
    if (!unsaved.value) return true;
    const name = NameSchema.safeParse(doc.value.card.name);
    if (!name.success) {
      nameProblem.value = name.error.issues[0]!.message;
      return false;
    }
    const checked = BrushSchema.safeParse(doc.value);
    if (!checked.success) {
      problem.value = explain(checked.error);
      return false;
    }
    saving.value = true;
    problem.value = null;
    const sent = JSON.stringify(doc.value);
    const on = revision.value;
    try {
      taken(await api.save('brushes', checked.data, on), sent);
      if (!library.beltIds.includes(checked.data.id)) await library.setBelt([...library.beltIds, checked.data.id]);
      return true;
    } catch (error) {
      if (doc.value?.id !== checked.data.id) await failedBehind(checked.data, on, error);
      else if (connection.noticed(error)) {
        waiting.value = true;
        await keep();
      } else if (error instanceof api.Refused && error.code === 'name-taken') nameProblem.value = error.message;
      else if (api.conflictOf(error)) {
        deleted.value = api.conflictOf(error) === 'deleted';
        conflict.value = true;
      }
      else problem.value = sentence(error);
      return false;
    } finally {
      saving.value = false;
    }
  }

  /** A save failed of a brush that isn't open any more: it waits as a draft, or a sentence says why it wasn't taken. */
  async function failedBehind(sent: Brush, on: number | null, error: unknown): Promise<void> {
    const draft = (await brushDraft(sent.id)) ?? { doc: sent, revision: on, keptAt: Date.now(), waiting: false };
    const away = connection.noticed(error);
    await keepBrushDraft({ ...draft, waiting: away });
    await library.loadDrafts();
    if (!away) useWork().say(`“${sent.card.name}” wasn’t saved. ${sentence(error)} Its changes are kept here as a draft.`, true);
  }

  function taken(kept: Kept<'brushes'>, sent: string): void {
    library.putBrush(kept);
    if (doc.value?.id !== kept.doc.id) return void draftIsSaved('brush', kept.doc.id, JSON.parse(sent), kept.revision).then(library.loadDrafts);
    // The document as sent may hold spaces that the server trimmed; what was typed meanwhile stays.
    if (JSON.stringify(doc.value) === sent) doc.value = plain(kept.doc);
    saved.value = { ...kept, doc: plain(kept.doc) };
    revision.value = kept.revision;
    waiting.value = false;
    conflict.value = false;
    void keep();
  }

  /** Back to the saved brush. */
  async function revert(): Promise<void> {
    if (!doc.value) return;
    clearTimeout(timer);
    timer = undefined;
    const { id } = doc.value;
    await dropBrushDraft(id);
    await library.load();
    await open(id);
  }

  /** Keeps this work beside the other as a brush of its own. */
  async function keepAsCopy(): Promise<string> {
    if (!doc.value) throw new Error('No brush is open.');
    // What is still on its way goes into the copy, and must not come back as a draft of the other.
    clearTimeout(timer);
    timer = undefined;
    const { id } = doc.value;
    const copy = await library.copyBrush(doc.value);
    await dropBrushDraft(id);
    await library.load();
    await open(copy.id);
    return copy.id;
  }

  /** Sends what was saved while the server was away. */
  async function sendWaiting(): Promise<void> {
    for (const draft of (await brushDrafts()).filter((d) => d.waiting)) {
      try {
        const sent = JSON.stringify(draft.doc);
        const kept = await sendOnce(draft);
        await dropBrushDraft(draft.doc.id);
        taken(kept, sent);
        await library.setBelt([...new Set([...library.beltIds, draft.doc.id])]);
      } catch (error) {
        if (connection.noticed(error)) return;
        await keepBrushDraft({ ...draft, waiting: false });
        if (doc.value?.id === draft.doc.id) {
          waiting.value = false;
          problem.value = sentence(error);
        }
      }
    }
    await library.loadDrafts();
    await sentElsewhere();
  }

  /** Another window may have sent the same in the same moment. */
  async function sendOnce({ doc: sent, revision: on }: BrushDraft): Promise<Kept<'brushes'>> {
    try {
      return await api.save('brushes', sent, on);
    } catch (error) {
      if (api.conflictOf(error) !== 'changed') throw error;
      const kept = await api.get('brushes', sent.id);
      if (JSON.stringify(kept.doc) !== JSON.stringify(sent)) throw error;
      return kept;
    }
  }

  /** What waited here may have been sent by another window. */
  async function sentElsewhere(): Promise<void> {
    if (!doc.value || !waiting.value || (await brushDraft(doc.value.id))) return;
    const { id } = doc.value;
    const kept = await library.savedBrush(id);
    if (doc.value?.id !== id || !waiting.value) return;
    waiting.value = false;
    if (kept && JSON.stringify(kept.doc) === JSON.stringify(doc.value)) taken({ ...kept, doc: plain(kept.doc) }, JSON.stringify(doc.value));
    else {
      deleted.value = !kept;
      conflict.value = true;
    }
  }

  connection.whenBack(sendWaiting);
  return { doc, saved, revision, keptAt, waiting, saving, problem, nameProblem, conflict, deleted, base, unsaved, open, edit, undo: history.undo, redo: history.redo, past: history.past, future: history.future, steps, goBack, keep, flush, save, revert, keepAsCopy, sendWaiting };
});
