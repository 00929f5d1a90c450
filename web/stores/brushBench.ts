/**
 * The brush on the bench. Every change is kept as a draft at once; a save goes to the server, or waits for it.
 * A base brush is never changed: the first edit makes a copy and goes on with that.
 */
import { defineStore } from 'pinia';
import { computed } from 'vue';
import type { StoredDocument } from '#core/stored';
import { changeOf, type Brush, type BrushChange } from '#core/settings';
import * as api from '../api/client';
import { brushDrafts, type BrushDraft } from '../api/drafts';
import { useBelts } from './belts';
import { sentence, useConnection } from './connection';
import { useOpenDocument } from './openDocument';
import { useLibrary } from './library';
import { useHistory } from './history';
import { useUnkept } from './unkept';
import { plain } from '../api/plain';

const DRAFT_DELAY_MS = 250;
const TOGETHER_MS = 800;

/** What each step of the history changed, oldest first. */
function stepsOf(past: readonly string[], now: Brush | null): BrushChange[] {
  if (!now) return [];
  const states = [...past.map((state) => JSON.parse(state) as Brush), now];
  return past.map((_, i) => changeOf(states[i], states[i + 1])).filter((c) => c !== null);
}

export const useBrushBench = defineStore('brush-bench', () => {
  const library = useLibrary();
  const belts = useBelts();
  const connection = useConnection();
  const own = useOpenDocument<'brushes', Brush>({
    collection: 'brushes',
    what: () => 'brush',
    drafts: brushDrafts,
    draftMs: DRAFT_DELAY_MS,
    draftsChanged: library.loadDrafts,
    fetch: library.savedBrush,
    gone: () =>
      connection.away
        ? 'The server can’t be reached, so this brush can’t be opened yet.'
        : 'This brush isn’t in the rack; it may have been deleted.',
    send: (brush, on) => api.save('brushes', brush, on),
    async saved({ doc: { id } }) {
      await belts.add(id).catch((error: unknown) => connection.noticed(error));
    },
    namesAtField: true,
    sendsPending: true,
    closed: (): void => history.close(),
  });
  const { doc, saved, pending, problem, conflict, deleted } = own;
  let copying: Promise<void> | null = null;
  useUnkept().watch({ hurry: () => undefined, atRisk: () => copying !== null });
  /** Undo and redo of settings; changes of one setting in quick succession are one step. */
  const history = useHistory<Brush>(doc, { togetherMs: TOGETHER_MS, put: take });
  const steps = computed(() => stepsOf(history.past.value, doc.value));

  const base = computed(() => saved.value?.base ?? false);

  async function open(id: string): Promise<void> {
    await own.open(id, undefined, history.resume);
    if (doc.value?.id === id) belts.opened(id);
    void refresh(id);
  }

  /**
   * What opened at once may have been changed in another window since it was fetched: as long as nothing is done to it
   * here, that is shown.
   */
  async function refresh(id: string): Promise<void> {
    if (!library.has('brushes', id)) return;
    // Whoever needs the server next notices that it is away, or that the brush is gone.
    const stored = await api.get('brushes', id).catch(() => null);
    if (stored) library.putBrush(stored);
    if (stored && doc.value?.id === id && !own.unsaved.value && stored.revision > (own.revision.value ?? 0))
      await own.open(id, undefined, history.resume);
  }

  async function copyBase(of: Brush, onCopy: (from: string, to: string) => void): Promise<void> {
    try {
      const copy = await library.copyBrush(of);
      onCopy(of.id, copy.id);
      own.replace(copy);
    } finally {
      copying = null;
    }
  }

  /**
   * Changes the brush. Returns the id it has now: a base brush's first change is made to a copy. Changes with one label
   * in quick succession are one step; without a label they have that of the setting that changed. `onCopy` hears of a
   * copy before it is what is open.
   */
  async function edit(
    change: (brush: Brush) => void,
    label?: string,
    onCopy: (from: string, to: string) => void = () => undefined,
  ): Promise<string> {
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
    own.touched();
  }

  /** Back to the state before step `index` of the history. */
  function goBack(index: number): void {
    for (let n = history.past.value.length - index; n > 0; n--) history.undo();
  }

  async function save(): Promise<boolean> {
    // The first change of a base brush is on its way into a copy.
    if (copying) await copying;
    return own.save();
  }

  /** Back to the saved brush, as the server has it now. */
  function revert(): Promise<void> {
    return own.revert(async (id) => {
      if (library.has('brushes', id)) await library.freshBrush(id);
      await open(id);
    });
  }

  /** Keeps this work beside the other as a brush of its own, which is named and saved later. */
  async function keepAsCopy(): Promise<string> {
    if (!doc.value) throw new Error('No brush is open.');
    const { id } = doc.value;
    const copy = await library.copyBrush(doc.value);
    // What is still on its way went into the copy, and must not come back as a draft of the other.
    await own.dropDraft(id);
    // The other is known from now on as it is.
    if (library.has('brushes', id)) await library.freshBrush(id);
    await open(copy.id);
    return copy.id;
  }

  /** Sends what was saved while the server was away. */
  async function sendPending(): Promise<void> {
    for (const draft of (await brushDrafts.all()).filter((d) => d.pending)) {
      try {
        const stored = await sendOnce(draft);
        await own.dropDraft(draft.doc.id);
        await own.accepted(stored, draft.doc, JSON.stringify(draft.doc));
      } catch (error) {
        if (connection.noticed(error)) return;
        await brushDrafts.keep({ ...draft, pending: false });
        if (doc.value?.id === draft.doc.id) {
          pending.value = false;
          problem.value = sentence(error);
        }
      }
    }
    await library.loadDrafts();
    await sentElsewhere();
  }

  /** Another window may have sent the same in the same moment. */
  async function sendOnce({ doc: sent, revision: on }: BrushDraft): Promise<StoredDocument<'brushes'>> {
    try {
      return await api.save('brushes', sent, on);
    } catch (error) {
      if (api.conflictOf(error) !== 'changed') throw error;
      const stored = await api.get('brushes', sent.id);
      if (JSON.stringify(stored.doc) !== JSON.stringify(sent)) throw error;
      return stored;
    }
  }

  /** What waited here may have been sent by another window. */
  async function sentElsewhere(): Promise<void> {
    if (!doc.value || !pending.value || (await brushDrafts.read(doc.value.id))) return;
    const { id } = doc.value;
    const stored = await library.freshBrush(id);
    if (doc.value?.id !== id || !pending.value) return;
    pending.value = false;
    if (stored && JSON.stringify(stored.doc) === JSON.stringify(doc.value))
      await own.accepted(stored, plain(doc.value), own.mark());
    else {
      deleted.value = !stored;
      conflict.value = true;
    }
  }

  connection.whenBack(sendPending);
  return {
    ...own,
    base,
    open,
    edit,
    undo: history.undo,
    redo: history.redo,
    past: history.past,
    future: history.future,
    steps,
    goBack,
    save,
    revert,
    keepAsCopy,
    sendPending,
  };
});
