/**
 * A sculpting session: strokes and edits on a surface with undo, redo, abandon and replay.
 *
 * Undo keeps the leaves a step touched as they stood before it. Redo and replay run the kept steps again: the same
 * samples, seed and brush give the same bytes. Replay goes back to the untouched body and runs every stroke with the
 * settings its brush has now.
 */
import type { DabFrame, ResolvedBrush } from '#core/brush';
import { applyEdit, touchesMask, type Edit } from '#core/edit';
import { LEAF, type RawMesh } from '#core/mesh';
import { beginSpan, bytesOf, endSpan, restore, rewindSpan, takeLeaves, type Before, type Surface } from '#core/sculpt';
import { copyFrame, type RefineUnder, type Sample, type StrokeRecord, type StrokeStart } from '#core/stroke';
import { healCut, maskRaised, pieceOf } from './cutOff';
import { looksAtNormals, runEnd, runner, runSamples, runWhole, type Runner } from './runner';

/** What lies beside the clay, as text that whoever opened the session reads: placements, symmetry, the frame. */
export interface Beside {
  /** Changes of one id that follow each other are one step. */
  id: number;
  before: string;
  after: string;
}

export type Step =
  | { kind: 'stroke'; record: StrokeRecord }
  | { kind: 'edit'; edit: Edit; beside?: Beside }
  /** The clay stays; what lies beside it changed. */
  | { kind: 'beside'; beside: Beside }
  /** Masks what the step before it raised. */
  | { kind: 'mask-raised' }
  /** Takes what is masked off the body. */
  | { kind: 'cut' }
  /** A step of which only what stood before it, or after it, is known. */
  | { kind: 'kept'; beside?: Beside }
  | { kind: 'swap'; after: Before; beside?: Beside };

export interface Done {
  step: Step;
  /** Null once it was dropped to keep within the undo limit. */
  before: Before | null;
}

export interface Running {
  runner: Runner;
  record: StrokeRecord;
  /** Laid to its end already, as a path is. */
  whole: boolean;
}

export interface Session {
  surface: Surface;
  done: Done[];
  undone: Step[];
  running: Running | null;
  /** An edit that is shown but not kept yet. */
  trying: Edit | null;
  undoBytes: number;
  /** Undo copies beyond this are dropped, oldest first. */
  undoLimit: number;
  /** Whether replay is wanted: then the untouched body is kept in whole. */
  base: Float32Array | null;
}

export interface StrokeSummary {
  dabs: number;
  touched: number;
  under: Under | null;
}

/** Dabs of a stroke that asks for finer triangles, those of the symmetry's copies among them. */
export interface Under {
  frames: readonly DabFrame[];
  refine: RefineUnder;
}

export const UNDO_LIMIT_BYTES = 768 * 1024 * 1024;

export function session(surface: Surface, options: { replay: boolean; undoLimit?: number }): Session {
  return {
    surface,
    done: [],
    undone: [],
    running: null,
    trying: null,
    undoBytes: 0,
    undoLimit: options.undoLimit ?? UNDO_LIMIT_BYTES,
    base: options.replay ? surface.mesh.positions.slice() : null,
  };
}

export function beginStroke(s: Session, start: StrokeStart): void {
  abandon(s);
  const record: StrokeRecord = { ...start, samples: [] };
  beginSpan(s.surface, start.brush.action === 'mask', looksAtNormals(start.brush));
  s.running = { runner: runner(s.surface, record), record, whole: false };
}

export function extendStroke(s: Session, samples: readonly Sample[]): void {
  if (!s.running) return;
  s.running.record.samples.push(...samples);
  runSamples(s.running.runner, samples);
}

/** Lays the running stroke anew along other samples, to its end: a path whose nodes were moved. */
export function retrace(s: Session, samples: readonly Sample[]): void {
  if (!s.running) return;
  rewindSpan(s.surface);
  const record: StrokeRecord = { ...s.running.record, samples: [...samples] };
  s.running = { runner: runWhole(s.surface, record), record, whole: true };
}

/**
 * Ends the stroke. One that touched nothing leaves no trace in undo; one that asks for `refine` goes on asking when it
 * is run again.
 */
export function endStroke(s: Session, refine: RefineUnder | null = null): StrokeSummary {
  if (!s.running) return { dabs: 0, touched: 0, under: null };
  const { runner: r, whole } = s.running;
  const record: StrokeRecord = refine ? { ...s.running.record, refine } : s.running.record;
  if (!whole) runEnd(r);
  s.running = null;
  const under = finish(s, { kind: 'stroke', record }) ? underOf(r, record) : null;
  return { dabs: r.frames.length, touched: r.touched, under };
}

function underOf({ frames, copies }: Runner, { refine, symmetry }: StrokeRecord): Under | null {
  return refine
    ? {
        refine,
        frames: frames.flatMap((frame) =>
          copies.map((copy, i) => (i === 0 ? frame : copyFrame(frame, copy, symmetry))),
        ),
      }
    : null;
}

/** What was laid so far of the running stroke; null when there is none, or one that is laid as a whole. */
export function underRunning(s: Session, refine: RefineUnder): Under | null {
  return s.running && !s.running.whole ? underOf(s.running.runner, { ...s.running.record, refine }) : null;
}

/** Takes the running stroke, or the edit being tried, back as if it had never been; false when there is none. */
export function abandon(s: Session): boolean {
  if (!s.running && !s.trying) return false;
  rewindSpan(s.surface);
  s.running = null;
  s.trying = null;
  return true;
}

/** Shows what an edit would do, in place of the one that was shown before. */
export function tryEdit(s: Session, edit: Edit): void {
  abandon(s);
  beginSpan(s.surface, touchesMask(edit));
  s.trying = edit;
  applyEdit(s.surface, edit);
}

/** Keeps the edit that is shown, with what changes beside the clay; false when it changed nothing. */
export function keepEdit(s: Session, beside?: Beside): boolean {
  if (!s.trying) return false;
  const edit = s.trying;
  s.trying = null;
  return finish(s, { kind: 'edit', edit, ...(beside ? { beside } : {}) });
}

/** What lies beside the clay changed. */
export function changeBeside(s: Session, beside: Beside): void {
  const last = s.done.at(-1)?.step;
  if (last?.kind === 'beside' && last.beside.id === beside.id && s.undone.length === 0) {
    last.beside = { ...last.beside, after: beside.after };
    return;
  }
  keep(s, { step: { kind: 'beside', beside }, before: nothing() });
  s.undone = [];
}

export function besideOf(step: Step | undefined): Beside | null {
  return step && 'beside' in step ? (step.beside ?? null) : null;
}

/** No leaf changed. */
function nothing(): Before {
  return { leaves: new Uint32Array(0), positions: new Float32Array(0), mask: null };
}

/** Tries an edit and keeps it. */
export function makeEdit(s: Session, edit: Edit): boolean {
  tryEdit(s, edit);
  return keepEdit(s);
}

/** Masks what the last stroke raised; false when there is none to look at. */
export function maskLastRaised(s: Session): boolean {
  abandon(s);
  const last = s.done.at(-1);
  if (last?.step.kind !== 'stroke' || !last.before || last.step.record.brush.action === 'mask') return false;
  run(s, { kind: 'mask-raised' });
  s.undone = [];
  return true;
}

/** Cuts what is masked off the body and answers it as a closed mesh; null when nothing whole is masked. */
export function cutOff(s: Session, thickness: number): RawMesh | null {
  abandon(s);
  const piece = s.base && pieceOf(s.surface, s.base, thickness);
  if (!piece) return null;
  run(s, { kind: 'cut' });
  s.undone = [];
  return piece;
}

/** Takes back the last step; false when there is none that can be. */
export function undo(s: Session): boolean {
  if (abandon(s)) return true;
  const last = s.done[s.done.length - 1];
  if (!last?.before) return false;
  s.done.pop();
  const after = last.step.kind === 'kept' ? takeLeaves(s.surface, last.before) : null;
  restore(s.surface, last.before);
  s.undoBytes -= bytesOf(last.before);
  const beside = besideOf(last.step);
  s.undone.push(after ? { kind: 'swap', after, ...(beside ? { beside } : {}) } : last.step);
  return true;
}

export function redo(s: Session): boolean {
  if (s.running || s.trying) return false;
  const step = s.undone.pop();
  if (!step) return false;
  run(s, step);
  return true;
}

/**
 * Runs every step again from the untouched body. Strokes of a brush in `brushes` take its settings,
 * the others keep their own. Answers where finer triangles are asked for now.
 */
export function replay(s: Session, brushes: ReadonlyMap<string, ResolvedBrush>): Under[] {
  if (!s.base) throw new Error('This session keeps no untouched body to replay from.');
  abandon(s);
  const renewed = (step: Step): Step =>
    step.kind === 'stroke'
      ? { ...step, record: { ...step.record, brush: brushes.get(step.record.brush.id) ?? step.record.brush } }
      : step;
  const steps = s.done.map((d) => renewed(d.step));
  toUntouched(s);
  s.undone = s.undone.map(renewed);
  return runAll(s, steps);
}

function runAll(s: Session, steps: readonly Step[]): Under[] {
  return steps.map((step) => run(s, step)).filter((under) => under !== null);
}

/**
 * Runs kept steps on this surface, e.g. those of the same body at another density. What is only kept as bytes stays
 * behind. Answers where finer triangles are asked for.
 */
export function takeUp(s: Session, steps: readonly Step[]): Under[] {
  abandon(s);
  return runAll(
    s,
    steps.filter(({ kind }) => kind !== 'kept' && kind !== 'swap'),
  );
}

/** Strokes of one brush become strokes of another, e.g. of the copy that was made to change it. */
export function adoptBrush(s: Session, from: string, to: string): void {
  const adopted = (step: Step): Step =>
    step.kind === 'stroke' && step.record.brush.id === from
      ? { ...step, record: { ...step.record, brush: { ...step.record.brush, id: to } } }
      : step;
  for (const done of s.done) done.step = adopted(done.step);
  s.undone = s.undone.map(adopted);
}

/** Takes all steps off the body. */
export function clearStrokes(s: Session): void {
  abandon(s);
  toUntouched(s);
  s.undone = [];
}

function toUntouched(s: Session): void {
  // Undo copies hold what stood before each step; where some were dropped, the whole body is put back.
  if (s.done.every((d) => d.before)) {
    for (let i = s.done.length - 1; i >= 0; i--) restore(s.surface, s.done[i]!.before!);
  } else if (s.base) {
    const { leafCount } = s.surface.mesh;
    const positions = new Float32Array(leafCount * LEAF * 3);
    positions.set(s.base);
    restore(s.surface, {
      leaves: Uint32Array.from({ length: leafCount }, (_, i) => i),
      positions,
      mask: new Float32Array(leafCount * LEAF),
    });
  }
  s.done = [];
  s.undoBytes = 0;
}

function run(s: Session, step: Step): Under | null {
  let under: Under | null = null;
  switch (step.kind) {
    case 'edit':
      beginSpan(s.surface, touchesMask(step.edit));
      applyEdit(s.surface, step.edit);
      break;
    case 'stroke': {
      const { brush } = step.record;
      beginSpan(s.surface, brush.action === 'mask', looksAtNormals(brush));
      under = underOf(runWhole(s.surface, step.record), step.record);
      break;
    }
    case 'mask-raised': {
      const last = s.done.at(-1)?.before;
      beginSpan(s.surface, true);
      if (last) maskRaised(s.surface, last);
      break;
    }
    case 'cut':
      beginSpan(s.surface, true);
      if (s.base) healCut(s.surface, s.base);
      break;
    case 'swap': {
      const before = takeLeaves(s.surface, step.after);
      restore(s.surface, step.after);
      keep(s, { step: { kind: 'kept', ...(step.beside ? { beside: step.beside } : {}) }, before });
      return null;
    }
    case 'beside':
      keep(s, { step, before: nothing() });
      return null;
    case 'kept':
      return null;
  }
  keep(s, { step, before: endSpan(s.surface) });
  return under;
}

function finish(s: Session, step: Step): boolean {
  const before = endSpan(s.surface);
  if (before.leaves.length === 0) return false;
  keep(s, { step, before });
  s.undone = [];
  return true;
}

/** Adds a step that is done; also used where a kept history is taken up again. */
export function keep(s: Session, done: Done): void {
  s.done.push(done);
  s.undoBytes += done.before ? bytesOf(done.before) : 0;
  for (let i = 0; s.undoBytes > s.undoLimit && i < s.done.length - 1; i++) {
    const old = s.done[i]!;
    if (!old.before) continue;
    s.undoBytes -= bytesOf(old.before);
    old.before = null;
  }
}
