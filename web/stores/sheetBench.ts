/**
 * The sheet on the bench: its marks found, included or excluded, changed by hand with undo, and cast into alphas in one
 * go.
 */
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { areaOf, joinOutlines, splitOutlines } from '#core/marks';
import { MarkSchema, MOST_MARKS, type Alpha, type Mark, type Outline, type Sheet } from '#core/settings';
import type { SheetWorker } from '../workers/sheet.worker';
import { BakeCancelled } from '../workers/recipes';
import { startThread, type Thread } from '../workers/thread';
import { castAlpha, startRelief } from './castAlpha';
import { sentence, useConnection } from './connection';
import { useLibrary } from './library';
import { plain } from '../api/plain';
import { useSourceDoc } from './sourceDoc';
import { useWork, type WorkHand } from './work';

const startSheet = (): Thread<SheetWorker> =>
  startThread(new Worker(new URL('../workers/sheet.worker.ts', import.meta.url), { type: 'module' }));

/** A part of a mark smaller than this share of the sheet is a crumb of the split, not a mark. */
const CRUMB = 2e-6;

export const useSheetBench = defineStore('sheet-bench', () => {
  const library = useLibrary();
  const connection = useConnection();
  const work = useWork();
  const own = useSourceDoc<Sheet>({ togetherMs: 1200 });
  const { doc, revision, problem, unsaved } = own;
  const { edit } = own.history;
  const finding = ref(false);
  /** What was found beside the marks. */
  const found = ref<{ specks: number; hairs: number } | null>(null);
  const chosen = ref<string[]>([]);
  /** The casting of this sheet's marks. */
  const casting = computed(() => work.find(doc.value?.id));
  let thread: Thread<SheetWorker> | null = null;
  let asked: ReturnType<typeof setTimeout> | undefined;

  const marks = computed(() => doc.value?.marks ?? []);
  const included = computed(() => marks.value.filter((m) => m.included));

  async function open(id: string): Promise<void> {
    close();
    await own.open(id, 'sheet', async () => {
      thread = startSheet();
      if (doc.value!.marks === null) await find();
    });
  }

  function close(): void {
    own.close();
    clearTimeout(asked);
    thread?.end();
    thread = null;
    finding.value = false;
    found.value = null;
    chosen.value = [];
  }

  /** Looks for marks anew; those drawn by hand stay. */
  async function find(): Promise<void> {
    const on = thread;
    if (!doc.value || !on || finding.value) return;
    finding.value = true;
    problem.value = null;
    const { id, file } = doc.value;
    const settings = JSON.stringify(doc.value.find);
    try {
      const seen = await on.worker.find(plain(file), plain(doc.value.find));
      if (thread !== on) return;
      found.value = { specks: seen.specks, hairs: seen.hairs };
      edit('find', (sheet) => {
        const kept = (sheet.marks ?? []).filter((m) => m.byHand);
        sheet.paper = seen.paper;
        sheet.dark = seen.dark;
        sheet.marks = [
          ...seen.marks.map(({ outlines }) => MarkSchema.parse({ id: crypto.randomUUID(), outlines })),
          ...kept,
        ].slice(0, MOST_MARKS);
      });
      chosen.value = [];
    } catch (error) {
      if (thread !== on) return;
      connection.noticed(error);
      problem.value = sentence(error);
    } finally {
      if (thread === on) finding.value = false;
      if (thread === on && doc.value?.id === id && JSON.stringify(doc.value.find) !== settings) void find();
    }
  }

  /** The settings of finding changed: look again when the slider rests. */
  function findSoon(change: (sheet: Sheet) => void): void {
    edit('find', change);
    clearTimeout(asked);
    asked = setTimeout(() => void find(), 250);
  }

  const travel = (direction: 'undo' | 'redo'): void => {
    chosen.value = [];
    own.history[direction]();
  };

  function include(ids: readonly string[], on: boolean): void {
    edit(`include ${ids.join()}`, (sheet) =>
      sheet.marks?.forEach((m) => {
        if (ids.includes(m.id)) m.included = on;
      }),
    );
  }

  function addMark(outlines: Outline[]): void {
    if (marks.value.length >= MOST_MARKS)
      return void (problem.value = `At most ${MOST_MARKS} marks a sheet; remove some first.`);
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
    const joined: Mark = MarkSchema.parse({ id: own[0].id, outlines, byHand: true });
    edit(
      `join ${joined.id}`,
      (sheet) =>
        (sheet.marks = (sheet.marks ?? []).flatMap((m) =>
          m.id === joined.id ? [joined] : chosen.value.includes(m.id) ? [] : [m],
        )),
    );
    chosen.value = [joined.id];
  }

  /** Every mark that the line crosses becomes two. Places 0–1 of the sheet. */
  function split(x0: number, y0: number, x1: number, y1: number, ids: readonly string[]): void {
    edit(`split ${x0}`, (sheet) => {
      sheet.marks = (sheet.marks ?? []).flatMap((m) => {
        if (!ids.includes(m.id)) return [m];
        const sides = splitOutlines(m.outlines, x0, y0, x1, y1)
          .map((side) => side.filter((o) => Math.abs(areaOf(o)) > CRUMB))
          .filter((side) => side.length > 0);
        if (sides.length < 2) return [m];
        return sides.map((outlines, k) =>
          MarkSchema.parse({ id: k === 0 ? m.id : crypto.randomUUID(), outlines, included: m.included, byHand: true }),
        );
      });
    });
  }

  /** Casts every included mark, on and on while one goes elsewhere; what is done when it is cancelled stays. */
  async function castAll(): Promise<Alpha[]> {
    if (!doc.value || casting.value || included.value.length === 0) return [];
    if (unsaved.value && !(await own.save())) return [];
    if (!doc.value || casting.value) return [];
    problem.value = null;
    const sheet = plain(doc.value);
    const on = revision.value!;
    return work.run(`Casting “${sheet.card.name}”`, sheet.id, (hand) => castMarks(sheet, on, hand));
  }

  async function castMarks(sheet: Sheet, on: number, hand: WorkHand): Promise<Alpha[]> {
    const out: Alpha[] = [];
    const wanted = sheet.marks!.filter((m) => m.included);
    const of = wanted.length;
    const reader = startSheet();
    const tell = (share: number): void =>
      hand.report((out.length + share) / of, `${Math.min(of, out.length + 1)} of ${of}`);
    tell(0);
    try {
      for (const mark of wanted) {
        const recipe = await Promise.race([reader.worker.recipe(sheet, mark), reader.broken]);
        if (hand.cancelled) break;
        const name = library.freeName('alphas', `${sheet.card.name} ${out.length + 1}`);
        const cast = castAlpha(
          {
            id: crypto.randomUUID(),
            card: { name, author: sheet.card.author, tags: sheet.card.tags, notes: '' },
            size: sheet.cut.size,
            relief: startRelief('sheet'),
            format: 'grey16',
            recipe,
            made: null,
            source: { id: sheet.id, revision: on },
          },
          null,
          tell,
        );
        hand.onCancel(cast.cancel);
        out.push((await cast.done).doc);
      }
    } catch (error) {
      if (!(error instanceof BakeCancelled)) {
        connection.noticed(error);
        const why = `${out.length} of ${of} were cast. ${sentence(error)}`;
        if (doc.value?.id === sheet.id) problem.value = why;
        else work.say(`“${sheet.card.name}”: ${why}`, true);
      }
    } finally {
      reader.end();
    }
    if (doc.value?.id !== sheet.id && out.length > 0) {
      work.say(`${out.length} ${out.length === 1 ? 'alpha is' : 'alphas are'} cast from “${sheet.card.name}”.`);
    }
    return out;
  }

  const { past, future } = own.history;
  return {
    ...own,
    finding,
    found,
    chosen,
    casting,
    past,
    future,
    marks,
    included,
    open,
    close,
    find,
    findSoon,
    edit,
    undo: () => travel('undo'),
    redo: () => travel('redo'),
    include,
    addMark,
    remove,
    join,
    split,
    revert: () => own.revert(open),
    castAll,
  };
});
