/**
 * The slab on the bench: its clay, what lies on it, and its saves. Everything is kept as a draft a moment after the
 * hand rests, and saved with every cast, so that an alpha's lineage is true.
 */
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef, watch } from 'vue';
import type { Beside } from '#core/session';
import type { Slab, Source } from '#core/settings';
import type { LevelDirection } from '#core/slab';
import { StepCancelled } from '#core/timeline';
import * as api from '../api/client';
import { slabDrafts, type Draft, type SlabDraft } from '../api/drafts';
import type { EditOrder } from '../workers/sculpt/messages';
import { OrdersClosed } from '../workers/orders';
import { Sculptor } from '../workers/sculptor';
import { besideOf, besideText, BesideSteps } from './besideSteps';
import { sentence, useConnection } from './connection';
import { useOpenDocument } from './openDocument';
import type { Found } from './openOptions';
import { plain } from '../api/plain';
import { savedClay, sent } from './slabClay';
import { usePreferences } from './preferences';
import { useWork } from './work';

const DRAFT_DELAY_MS = 1500;
const levelsOf = (id: string): string => `levels of ${id}`;

export const useSlabBench = defineStore('slab-bench', () => {
  const connection = useConnection();
  const work = useWork();
  const sculptor = shallowRef<Sculptor | null>(null);
  /** Rises with every change of the clay or its settings, for those who follow it. */
  const changes = ref(0);
  const beside = new BesideSteps();
  const { undoBytes } = usePreferences();
  watch(undoBytes, (bytes) => void sculptor.value?.limitUndo(bytes));
  let inFlight = 0;
  const own = useOpenDocument<'sources', Slab, SlabDraft>({
    collection: 'sources',
    what: () => 'slab',
    drafts: slabDrafts(),
    draftMs: DRAFT_DELAY_MS,
    prepare,
    draftOf,
    mark: () => changes.value,
    async send(slab, on) {
      if (!sculptor.value) throw new OrdersClosed();
      return api.save('sources', await whole(slab, sculptor.value), on);
    },
    adopt(slab): void {
      const { blob, mask, upper, history, cells } = slab;
      Object.assign(doc.value!, { blob, mask, upper, history, cells });
    },
    isCancel: (error) => error instanceof OrdersClosed,
    savesFirst: true,
    closed,
  });
  const { doc, problem, unsaved } = own;
  const setForms = computed(() => doc.value?.setForms ?? []);

  const open = (id: string): Promise<void> =>
    own.open(id, (found) => (found.kind === 'slab' ? null : `“${(found as Source).card.name}” isn’t a slab.`));

  /** The clay is there before the slab is shown. */
  async function prepare({
    doc: slab,
    draft,
  }: Found<'sources', Slab, SlabDraft>): Promise<{ show(): void; drop(): void }> {
    const worker = markRaw(new Sculptor());
    void worker.limitUndo(undoBytes());
    let told: string | null = null;
    try {
      const begun = draft ? { ...draft.clay, kind: 'slab' as const } : await savedClay(slab);
      await worker.open(begun).catch(async (error: unknown) => {
        // Undo steps that can't be read are no reason to keep the clay from opening.
        if (!begun.history) throw error;
        await worker.open({ ...begun, history: null });
        told = sentence(error);
      });
      // A part that can't be fetched is no reason to keep the clay from opening: its set forms stay in the document.
      await worker.edits.showSetForms(slab.setForms).catch((error: unknown) => (told = sentence(error)));
    } catch (error) {
      worker.close();
      throw error;
    }
    return {
      show() {
        problem.value = told;
        sculptor.value = worker;
        worker.onBeside = comeBack;
        changes.value++;
      },
      drop: () => worker.close(),
    };
  }

  function closed(): void {
    sculptor.value?.close();
    sculptor.value = null;
  }

  async function draftOf(draft: Draft<Slab>): Promise<SlabDraft | null> {
    const worker = sculptor.value;
    if (!worker) return null;
    const clay = await worker.bytes();
    return { ...draft, doc: { ...draft.doc, cells: clay.cells as Slab['cells'] }, clay };
  }

  /** The clay changed: a draft is kept when the hand rests. */
  function touched(): void {
    const level = sculptor.value?.state.level;
    if (doc.value && level) doc.value.cells = level.cells as Slab['cells'];
    changes.value++;
    own.touched();
  }

  /**
   * Changes what is kept beside the clay: a step of the same history, and one for all changes of a kind in quick
   * succession.
   */
  function edit(change: (slab: Slab) => void): void {
    const step = changed(change);
    if (step) void orSay(going(sculptor.value?.edits.changeBeside(step)));
  }

  /** Changes the set forms and lays them on the clay. */
  async function editSetForms(change: (slab: Slab) => void): Promise<void> {
    const step = changed(change);
    if (!step) return;
    await orSay(going(sculptor.value?.edits.showSetForms(setForms.value, step)));
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
    inFlight++;
    return work.finally(() => inFlight--);
  }

  /** Undo or redo brought back what lay beside the clay. */
  function comeBack(state: string): void {
    beside.end();
    if (!doc.value || inFlight > 0) return;
    const laid = JSON.stringify(doc.value.setForms);
    Object.assign(doc.value, besideOf(state));
    if (JSON.stringify(doc.value.setForms) !== laid) void orSay(sculptor.value?.edits.showSetForms(setForms.value));
    changes.value++;
  }

  /** Set forms whose part is missing stay as they are. */
  async function bakeSetForms(): Promise<void> {
    const worker = sculptor.value;
    if (!worker || !doc.value) return;
    const baked = setForms.value
      .filter(({ part }) => !part || worker.edits.hasPart(part.heights))
      .map((setForm) => plain(setForm));
    beside.end();
    const step = changed((slab) => {
      slab.setForms = slab.setForms.filter(({ id }) => !baked.some((b) => b.id === id));
    });
    beside.end();
    if (!step) return;
    if (!(await orSay(going(worker.edits.bakeSetForms(step)))))
      await editSetForms((slab) => slab.setForms.push(...baked));
    touched();
  }

  /** False when it failed, which is told. */
  async function orSay(work: Promise<void> | undefined): Promise<boolean> {
    try {
      await work;
      return true;
    } catch (error) {
      if (error instanceof OrdersClosed || error instanceof StepCancelled) return false;
      connection.noticed(error);
      problem.value = sentence(error);
      return false;
    }
  }

  async function make(order: EditOrder): Promise<void> {
    if (await orSay(sculptor.value?.edits.makeEdit(order))) touched();
  }

  async function step(direction: LevelDirection): Promise<void> {
    const worker = sculptor.value;
    if (!worker || !doc.value) return;
    const what = direction === 'up' ? 'Making the finer level' : 'Making the coarser level';
    if (await orSay(work.run(what, levelsOf(doc.value.id), (hand) => worker.step(direction, hand)))) touched();
  }
  /** A level that is being made; null while none is. */
  const stepping = computed(() => (doc.value ? work.find(levelsOf(doc.value.id)) : null));

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

  return {
    ...own,
    sculptor,
    changes,
    setForms,
    open,
    touched,
    edit,
    editSetForms,
    bakeSetForms,
    make,
    step,
    stepping,
    undo,
    redo,
  };
});
