/** The sheet on the bench: its marks found, taken or left, changed by hand with undo, and cast into alphas in one go. */
import * as Comlink from 'comlink';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { areaOf, joinOutlines, splitOutlines } from '#core/marks';
import { MarkSchema, MOST_MARKS, type Alpha, type Mark, type Outline, type Sheet } from '#core/settings';
import type { SheetWorker } from '../workers/sheet.worker';
import { BakeCancelled } from '../workers/recipes';
import { castAlpha, startRelief } from './castAlpha';
import { sentence, useConnection } from './connection';
import { useLibrary } from './library';
import { plain } from './plain';
import { useSourceDoc } from './sourceDoc';

/** A part of a mark smaller than this share of the sheet is a crumb of the split, not a mark. */
const CRUMB = 2e-6;

export const useSheetBench = defineStore('sheet-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const own = useSourceDoc<Sheet>({ togetherMs: 1200 });
  const { doc, revision, problem, unsaved } = own;
  const { edit } = own.history;
  const finding = ref(false);
  /** What was found beside the marks. */
  const found = ref<{ specks: number; hairs: number } | null>(null);
  const chosen = ref<string[]>([]);
  /** Casting: how many are done, of how many, and the share of the present one. */
  const casting = ref<{ done: number; of: number; share: number } | null>(null);
  let thread: Worker | null = null;
  let worker: Comlink.Remote<SheetWorker> | null = null;
  let stop: () => void = () => undefined;
  let cancelled = false;
  let asked: ReturnType<typeof setTimeout> | undefined;

  const marks = computed(() => doc.value?.marks ?? []);
  const taken = computed(() => marks.value.filter((m) => m.taken));

  async function open(id: string): Promise<void> {
    close();
    await own.open(id, 'sheet', async () => {
      thread = new Worker(new URL('../workers/sheet.worker.ts', import.meta.url), { type: 'module' });
      worker = Comlink.wrap<SheetWorker>(thread);
      if (doc.value!.marks === null) await find();
    });
  }

  function close(): void {
    own.close();
    clearTimeout(asked);
    cancel();
    thread?.terminate();
    thread = null;
    worker = null;
    found.value = null;
    chosen.value = [];
  }

  /** Looks for marks anew; those drawn by hand stay. */
  async function find(): Promise<void> {
    if (!doc.value || !worker || finding.value) return;
    finding.value = true;
    problem.value = null;
    const { id, file } = doc.value;
    const settings = JSON.stringify(doc.value.find);
    try {
      const seen = await worker.find(plain(file), plain(doc.value.find));
      if (doc.value?.id !== id) return;
      found.value = { specks: seen.specks, hairs: seen.hairs };
      edit('find', (sheet) => {
        const kept = (sheet.marks ?? []).filter((m) => m.byHand);
        sheet.paper = seen.paper;
        sheet.dark = seen.dark;
        sheet.marks = [...seen.marks.map(({ outlines }) => MarkSchema.parse({ id: crypto.randomUUID(), outlines })), ...kept].slice(0, MOST_MARKS);
      });
      chosen.value = [];
    } catch (error) {
      connection.noticed(error);
      problem.value = sentence(error);
    } finally {
      finding.value = false;
      if (doc.value?.id === id && JSON.stringify(doc.value.find) !== settings) void find();
    }
  }

  /** The settings of finding changed: look again when the slider rests. */
  function findSoon(change: (sheet: Sheet) => void): void {
    edit('find', change);
    clearTimeout(asked);
    asked = setTimeout(() => void find(), 250);
  }

  const travel = (way: 'undo' | 'redo'): void => {
    chosen.value = [];
    own.history[way]();
  };

  function take(ids: readonly string[], on: boolean): void {
    edit(`take ${ids.join()}`, (sheet) => sheet.marks?.forEach((m) => {
      if (ids.includes(m.id)) m.taken = on;
    }));
  }

  function addMark(outlines: Outline[]): void {
    if (marks.value.length >= MOST_MARKS) return void (problem.value = `At most ${MOST_MARKS} marks a sheet; take some away first.`);
    const mark = MarkSchema.parse({ id: crypto.randomUUID(), outlines, byHand: true });
    edit(`add ${mark.id}`, (sheet) => (sheet.marks = [...(sheet.marks ?? []), mark]));
    chosen.value = [mark.id];
  }

  function remove(ids: readonly string[]): void {
    edit(`remove ${ids.join()}`, (sheet) => (sheet.marks = (sheet.marks ?? []).filter((m) => !ids.includes(m.id))));
    chosen.value = [];
  }

  /** The chosen marks become one. */
  function join(): void {
    const own = marks.value.filter((m) => chosen.value.includes(m.id));
    if (own.length < 2) return;
    const outlines = joinOutlines(own.map((m) => m.outlines));
    const joined: Mark = MarkSchema.parse({ id: own[0]!.id, outlines, byHand: true });
    edit(`join ${joined.id}`, (sheet) => (sheet.marks = (sheet.marks ?? []).flatMap((m) => (m.id === joined.id ? [joined] : chosen.value.includes(m.id) ? [] : [m]))));
    chosen.value = [joined.id];
  }

  /** Every mark that the line crosses becomes two. Places 0–1 of the sheet. */
  function split(x0: number, y0: number, x1: number, y1: number, ids: readonly string[]): void {
    edit(`split ${x0}`, (sheet) => {
      sheet.marks = (sheet.marks ?? []).flatMap((m) => {
        if (!ids.includes(m.id)) return [m];
        const sides = splitOutlines(m.outlines, x0, y0, x1, y1).map((side) => side.filter((o) => Math.abs(areaOf(o)) > CRUMB)).filter((side) => side.length > 0);
        if (sides.length < 2) return [m];
        return sides.map((outlines, k) => MarkSchema.parse({ id: k === 0 ? m.id : crypto.randomUUID(), outlines, taken: m.taken, byHand: true }));
      });
    });
  }

  /** Casts every taken mark; what is done when it is cancelled stays. */
  async function castAll(): Promise<Alpha[]> {
    if (!doc.value || !worker || casting.value || taken.value.length === 0) return [];
    if (unsaved.value && !(await own.save())) return [];
    const sheet = plain(doc.value);
    const of = taken.value.length;
    const out: Alpha[] = [];
    cancelled = false;
    problem.value = null;
    casting.value = { done: 0, of, share: 0 };
    try {
      for (const mark of sheet.marks!.filter((m) => m.taken)) {
        const recipe = await worker.recipe(sheet, mark);
        if (cancelled) break;
        const name = library.freeName('alphas', `${sheet.card.name} ${out.length + 1}`);
        const work = castAlpha({
          id: crypto.randomUUID(), card: { name, author: sheet.card.author, tags: sheet.card.tags, notes: '' }, size: sheet.cut.size, relief: startRelief('sheet'), format: 'grey16', recipe,
          source: { id: sheet.id, revision: revision.value! },
        }, null, (share) => (casting.value = { done: out.length, of, share }));
        stop = work.cancel;
        out.push((await work.done).doc);
        casting.value = { done: out.length, of, share: 0 };
      }
    } catch (error) {
      if (!(error instanceof BakeCancelled)) {
        connection.noticed(error);
        problem.value = `${out.length} of ${of} were cast. ${sentence(error)}`;
      }
    } finally {
      casting.value = null;
    }
    return out;
  }

  function cancel(): void {
    cancelled = true;
    stop();
  }

  const { past, future } = own.history;
  return {
    doc, revision, keptAt: own.keptAt, opening: own.opening, finding, problem, conflict: own.conflict, found, chosen, casting, past, future, unsaved, marks, taken, casts: own.casts,
    open, close, find, findSoon, edit, undo: () => travel('undo'), redo: () => travel('redo'), take, addMark, remove, join, split,
    keepDraft: own.keepDraft, save: own.save, revert: () => own.revert(open), keepAsCopy: own.keepAsCopy, castAll, cancel,
  };
});
