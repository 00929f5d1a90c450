/**
 * The slab on the bench: its clay, what lies on it, and its saves. Everything is kept as a draft a moment after the
 * hand rests, and saved with every cast, so that an alpha's lineage is true.
 */
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef } from 'vue';
import type { Beside } from '#core/session';
import type { Slab } from '#core/settings';
import type { LevelWay } from '#core/slab';
import * as api from '../api/client';
import { dropSlabDraft, keepSlabDraft, slabDraft } from '../api/drafts';
import type { ClayBytes, EditOrder, Opening } from '../workers/sculpt/messages';
import { OrdersClosed } from '../workers/orders';
import { Sculptor } from '../workers/sculptor';
import { besideOf, besideText, BesideSteps } from './besideSteps';
import { sentence, useConnection } from './connection';
import { useLibrary } from './library';
import { oneAtATime } from './oneAtATime';
import { plain } from './plain';

const DRAFT_DELAY_MS = 1500;
export const useSlabBench = defineStore('slab-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const doc = ref<Slab | null>(null);
  const revision = ref(0);
  const sculptor = shallowRef<Sculptor | null>(null);
  const opening = ref(false);
  const problem = ref<string | null>(null);
  /** Clay or settings differ from what is saved. */
  const unsaved = ref(false);
  const saving = ref(false);
  /** The stored slab is newer than the one this work began on. */
  const conflict = ref(false);
  /** There is no stored one any more. */
  const deleted = ref(false);
  /** Counts openings: only the last one counts. */
  let openings = 0;
  const keptAt = ref<number | null>(null);
  /** Rises with every change of the clay or its settings, for those who follow it. */
  const changes = ref(0);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const beside = new BesideSteps();
  let onTheirWay = 0;
  /** The draft that is being written. */
  let keeping: Promise<void> = Promise.resolve();

  const pieces = computed(() => doc.value?.pieces ?? []);

  async function open(id: string): Promise<void> {
    const mine = ++openings;
    await leave();
    if (mine !== openings) return;
    opening.value = true;
    problem.value = null;
    const worker = markRaw(new Sculptor());
    try {
      await library.ready();
      const draft = await slabDraft(id);
      const kept = await api.get('sources', id).catch((error: unknown) => {
        // Deleted in another window: the work that is here is shown all the same.
        if (draft && api.isMissing(error)) return null;
        throw error;
      });
      if (kept && kept.doc.kind !== 'slab') throw new Error(`“${kept.doc.card.name}” is no slab.`);
      const begun = draft ? { ...draft.clay, kind: 'slab' as const } : await savedClay(kept!.doc as Slab);
      await worker.open(begun).catch(async (error: unknown) => {
        // Undo steps that can't be read are no reason to keep the clay from opening.
        if (!begun.history) throw error;
        await worker.open({ ...begun, history: null });
        problem.value = sentence(error);
      });
      if (mine !== openings) return worker.close();
      const slab = draft ? draft.doc : (kept!.doc as Slab);
      // A part that can't be fetched is no reason to keep the clay from opening: its pieces stay in the document.
      await worker.setPieces(slab.pieces).catch((error: unknown) => (problem.value = sentence(error)));
      if (mine !== openings) return worker.close();
      doc.value = slab;
      revision.value = draft ? draft.revision : kept!.revision;
      deleted.value = kept === null;
      conflict.value = draft !== undefined && draft.revision !== kept?.revision;
      sculptor.value = worker;
      worker.onBeside = comeBack;
      unsaved.value = draft !== undefined;
      keptAt.value = draft?.keptAt ?? null;
      changes.value++;
    } catch (error) {
      worker.close();
      if (mine !== openings) return;
      connection.noticed(error);
      problem.value = `The slab can’t be opened. ${sentence(error)}`;
    } finally {
      if (mine === openings) opening.value = false;
    }
  }

  function close(): Promise<void> {
    openings++;
    opening.value = false;
    return leave();
  }

  async function leave(): Promise<void> {
    // A save that runs is still about this slab.
    await savingNow;
    await flush();
    sculptor.value?.close();
    sculptor.value = null;
    doc.value = null;
    unsaved.value = false;
    deleted.value = false;
    conflict.value = false;
    keptAt.value = null;
  }

  /** The clay changed: a draft is kept when the hand rests. */
  function touched(): void {
    const level = sculptor.value?.state.level;
    if (doc.value && level) doc.value.cells = level.cells as Slab['cells'];
    changes.value++;
    unsaved.value = true;
    clearTimeout(timer);
    timer = setTimeout(() => void keepDraft(), DRAFT_DELAY_MS);
  }

  /** Writes down what is still on its way. */
  async function flush(): Promise<void> {
    if (timer !== undefined) void keepDraft();
    await keeping;
  }

  /** One after the other, so that whoever waits for the last one knows that none is still being written. */
  function keepDraft(): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    keeping = keeping.then(writeDraft).catch((error: unknown) => {
      if (!(error instanceof OrdersClosed)) problem.value = `The draft can’t be kept. ${sentence(error)}`;
    });
    return keeping;
  }

  async function writeDraft(): Promise<void> {
    if (!doc.value || !sculptor.value) return;
    const clay = await sculptor.value.bytes();
    if (!doc.value) return;
    const kept = plain(doc.value);
    await keepSlabDraft({ doc: { ...kept, cells: clay.cells as Slab['cells'] }, clay, revision: revision.value, keptAt: Date.now() });
    keptAt.value = Date.now();
  }

  /** Changes what is kept beside the clay: a step of the same history, and one for all changes of a kind in quick succession. */
  function edit(change: (slab: Slab) => void): void {
    const step = changed(change);
    if (step) void orSay(going(sculptor.value?.changeBeside(step)));
  }

  /** Changes the pieces and lays them on the clay. */
  async function editPieces(change: (slab: Slab) => void): Promise<void> {
    const step = changed(change);
    if (!step) return;
    await orSay(going(sculptor.value?.setPieces(pieces.value, step)));
    changes.value++;
  }

  /** Null where nothing changed. */
  function changed(change: (slab: Slab) => void): Beside | null {
    if (!doc.value) return null;
    const before = besideText(doc.value);
    change(doc.value);
    const after = besideText(doc.value);
    touched();
    return before === after ? null : beside.step(before, after);
  }

  /** Steps that are on their way: what they say is newer than what undo brings back. */
  function going<T>(work: Promise<T> | undefined): Promise<T> | undefined {
    if (!work) return undefined;
    onTheirWay++;
    return work.finally(() => onTheirWay--);
  }

  /** Undo or redo brought back what lay beside the clay. */
  function comeBack(state: string): void {
    beside.end();
    if (!doc.value || onTheirWay > 0) return;
    const laid = JSON.stringify(doc.value.pieces);
    Object.assign(doc.value, besideOf(state));
    if (JSON.stringify(doc.value.pieces) !== laid) void orSay(sculptor.value?.setPieces(pieces.value));
    changes.value++;
  }

  /** Pieces whose part is missing stay as they are. */
  async function bakePieces(): Promise<void> {
    const worker = sculptor.value;
    if (!worker || !doc.value) return;
    const baked = pieces.value.filter(({ part }) => !part || worker.hasPart(part.heights)).map((piece) => plain(piece));
    beside.end();
    const step = changed((slab) => {
      slab.pieces = slab.pieces.filter(({ id }) => !baked.some((b) => b.id === id));
    });
    beside.end();
    if (!step) return;
    if (!(await orSay(going(worker.bakePieces(step))))) await editPieces((slab) => slab.pieces.push(...baked));
    touched();
  }

  /** False when it failed, which is told. */
  async function orSay(work: Promise<void> | undefined): Promise<boolean> {
    try {
      await work;
      return true;
    } catch (error) {
      if (error instanceof OrdersClosed) return false;
      connection.noticed(error);
      problem.value = sentence(error);
      return false;
    }
  }

  async function make(order: EditOrder): Promise<void> {
    if (await orSay(sculptor.value?.makeEdit(order))) touched();
  }

  async function step(way: LevelWay): Promise<void> {
    if (await orSay(sculptor.value?.step(way))) touched();
  }

  async function undo(): Promise<void> {
    if (await orSay(sculptor.value?.undo())) touched();
  }

  async function redo(): Promise<void> {
    if (await orSay(sculptor.value?.redo())) touched();
  }

  /** The slab with its clay sent to the server. */
  async function whole(slab: Slab, worker: Sculptor): Promise<Slab> {
    const clay = await worker.bytes();
    const touchedEver = worker.state.strokes > 0 || slab.blob !== null || unsaved.value;
    return { ...plain(slab), ...(touchedEver ? await sent(clay) : {}), cells: clay.cells as Slab['cells'] };
  }

  let savingNow: Promise<unknown> = Promise.resolve();
  const saveOnce = oneAtATime(saveNow, () => doc.value?.id);

  function save(): Promise<boolean> {
    const done = saveOnce();
    savingNow = done.catch(() => undefined);
    return done;
  }

  async function saveNow(): Promise<boolean> {
    if (!doc.value || !sculptor.value) return false;
    saving.value = true;
    problem.value = null;
    const before = changes.value;
    try {
      const next = await whole(doc.value, sculptor.value);
      const kept = await api.save('sources', next, revision.value);
      library.putSource(kept);
      Object.assign(doc.value, { blob: next.blob, mask: next.mask, upper: next.upper, history: next.history, cells: next.cells });
      revision.value = kept.revision;
      deleted.value = false;
    conflict.value = false;
      if (changes.value === before) {
        clearTimeout(timer);
        timer = undefined;
        unsaved.value = false;
        keptAt.value = null;
        await keeping;
        await dropSlabDraft(doc.value.id);
      } else await keepDraft();
      return true;
    } catch (error) {
      const away = connection.noticed(error);
      await keepDraft();
      const by = api.conflictOf(error);
      if (by) {
        deleted.value = by === 'deleted';
        conflict.value = true;
        return false;
      }
      problem.value = `${sentence(error)} ${away ? 'The slab is kept here as a draft; save it when the server is back.' : ''}`;
      return false;
    } finally {
      saving.value = false;
    }
  }

  /** Back to the slab as it is saved. */
  async function revert(): Promise<void> {
    if (!doc.value) return;
    clearTimeout(timer);
    timer = undefined;
    const { id } = doc.value;
    await keeping;
    await dropSlabDraft(id);
    await open(id);
  }

  /** Keeps this work beside the other as a slab of its own; answers its id, or null when it can't be kept. */
  async function keepAsCopy(): Promise<string | null> {
    if (!doc.value || !sculptor.value || saving.value) return null;
    saving.value = true;
    try {
      const { id } = doc.value;
      const copy = { ...(await whole(doc.value, sculptor.value)), id: crypto.randomUUID() };
      copy.card.name = library.freeName('sources', `${copy.card.name} copy`);
      library.putSource(await api.save('sources', copy, null));
      clearTimeout(timer);
      timer = undefined;
      await keeping;
      await dropSlabDraft(id);
      return copy.id;
    } catch (error) {
      connection.noticed(error);
      problem.value = `The copy wasn’t kept. ${sentence(error)}`;
      return null;
    } finally {
      saving.value = false;
    }
  }

  return {
    doc, revision, sculptor, opening, problem, conflict, deleted, unsaved, saving, keptAt, changes, pieces,
    open, close, flush, touched, edit, editPieces, bakePieces, make, step, undo, redo, save, revert, keepAsCopy,
  };
});

/** Sends the clay's bytes and answers the names they are kept under. */
async function sent(clay: ClayBytes): Promise<Pick<Slab, 'blob' | 'mask' | 'upper' | 'history'>> {
  const put = (bytes: ArrayBuffer | null): Promise<string | null> => (bytes ? api.putBlob(new Uint8Array(bytes)) : Promise.resolve(null));
  const floats = (values: Float32Array): Promise<string> => api.putBlob(new Uint8Array(values.slice().buffer));
  const upper: Slab['upper'] = [];
  for (const level of clay.upper) upper.push({ cells: level.cells as Slab['cells'], fine: await floats(level.fine), base: await floats(level.base) });
  return { blob: await put(clay.places), mask: await put(clay.mask), upper, history: await put(clay.history) };
}

async function savedClay(slab: Slab): Promise<Extract<Opening, { kind: 'slab' }>> {
  const bytes = (hash: string | null): Promise<ArrayBuffer | null> => (hash ? api.getBlob(hash) : Promise.resolve(null));
  const [places, mask, history] = await Promise.all([bytes(slab.blob), bytes(slab.mask), bytes(slab.history)]);
  const upper = await Promise.all(slab.upper.map(async (level) => ({
    cells: level.cells, fine: new Float32Array(await api.getBlob(level.fine)), base: new Float32Array(await api.getBlob(level.base)),
  })));
  return { kind: 'slab', cells: slab.cells, places, mask, upper, history };
}
