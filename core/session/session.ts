/**
 * A sculpting session: strokes on a surface with undo, redo, abandon and replay.
 *
 * Undo keeps the leaves a stroke touched as they stood before it. Redo and replay run the kept samples again:
 * the same samples, seed and brush give the same bytes. Replay goes back to the untouched body and runs every
 * stroke with the settings its brush has now.
 */
import type { ResolvedBrush } from '#core/brush';
import type { Ray } from '#core/mesh';
import { beginSpan, bytesOf, endSpan, restore, rewindSpan, type Before, type Surface } from '#core/sculpt';
import type { StrokeRecord, StrokeStart } from '#core/stroke';
import { runEnd, runSample, runner, type Runner } from './runner';

interface Done {
  record: StrokeRecord;
  /** Null once it was dropped to keep within the undo limit. */
  before: Before | null;
}

export interface Session {
  surface: Surface;
  done: Done[];
  undone: StrokeRecord[];
  running: { runner: Runner; record: StrokeRecord } | null;
  undoBytes: number;
  /** Undo copies beyond this are dropped, oldest first. */
  undoLimit: number;
  /** Whether replay is wanted: then the untouched body is kept in whole. */
  base: Float32Array | null;
}

export interface StrokeSummary {
  dabs: number;
  touched: number;
}

export const UNDO_LIMIT_BYTES = 768 * 1024 * 1024;

export function session(surface: Surface, options: { replay: boolean; undoLimit?: number }): Session {
  return {
    surface, done: [], undone: [], running: null, undoBytes: 0, undoLimit: options.undoLimit ?? UNDO_LIMIT_BYTES,
    base: options.replay ? surface.mesh.positions.slice() : null,
  };
}

export function beginStroke(s: Session, start: StrokeStart): void {
  if (s.running) abandonStroke(s);
  beginSpan(s.surface);
  s.running = { runner: runner(s.surface, start), record: { ...start, samples: [] } };
}

export function extendStroke(s: Session, samples: readonly Ray[]): void {
  if (!s.running) return;
  for (const ray of samples) {
    s.running.record.samples.push(ray);
    runSample(s.running.runner, ray);
  }
}

/** Ends the stroke. One that touched nothing leaves no trace in undo. */
export function endStroke(s: Session): StrokeSummary {
  if (!s.running) return { dabs: 0, touched: 0 };
  const { runner: r, record } = s.running;
  runEnd(r);
  s.running = null;
  const before = endSpan(s.surface);
  if (before.leaves.length > 0) {
    keep(s, { record, before });
    s.undone = [];
  }
  return { dabs: r.dabs, touched: r.touched };
}

/** Takes the running stroke back as if it had never been. */
export function abandonStroke(s: Session): void {
  if (!s.running) return;
  rewindSpan(s.surface);
  s.running = null;
}

/** Takes back the last stroke; false when there is none that can be. */
export function undo(s: Session): boolean {
  if (s.running) {
    abandonStroke(s);
    return true;
  }
  const last = s.done[s.done.length - 1];
  if (!last?.before) return false;
  s.done.pop();
  restore(s.surface, last.before);
  s.undoBytes -= bytesOf(last.before);
  s.undone.push(last.record);
  return true;
}

export function redo(s: Session): boolean {
  if (s.running) return false;
  const record = s.undone.pop();
  if (!record) return false;
  run(s, record);
  return true;
}

/**
 * Runs every stroke again from the untouched body. Strokes of a brush in `brushes` take its settings,
 * the others keep their own.
 */
export function replay(s: Session, brushes: ReadonlyMap<string, ResolvedBrush>): void {
  if (!s.base) throw new Error('This session keeps no untouched body to replay from.');
  if (s.running) abandonStroke(s);
  const renewed = (record: StrokeRecord): StrokeRecord => ({ ...record, brush: brushes.get(record.brush.id) ?? record.brush });
  const records = s.done.map((d) => renewed(d.record));
  toUntouched(s);
  s.undone = s.undone.map(renewed);
  for (const record of records) run(s, record);
}

/** Strokes of one brush become strokes of another, e.g. of the copy that was made to change it. */
export function adoptBrush(s: Session, from: string, to: string): void {
  const adopted = (record: StrokeRecord): StrokeRecord => (record.brush.id === from ? { ...record, brush: { ...record.brush, id: to } } : record);
  for (const done of s.done) done.record = adopted(done.record);
  s.undone = s.undone.map(adopted);
}

/** Takes all strokes off the body. */
export function clearStrokes(s: Session): void {
  if (s.running) abandonStroke(s);
  toUntouched(s);
  s.undone = [];
}

function toUntouched(s: Session): void {
  // Undo copies hold what stood before each stroke; where some were dropped, the whole body is put back.
  if (s.done.every((d) => d.before)) {
    for (let i = s.done.length - 1; i >= 0; i--) restore(s.surface, s.done[i]!.before!);
  } else if (s.base) {
    const { mesh } = s.surface;
    const all = Uint32Array.from({ length: mesh.leafCount }, (_, i) => i);
    restore(s.surface, { leaves: all, positions: padded(s.base, mesh.leafCount) });
  }
  s.done = [];
  s.undoBytes = 0;
}

function padded(base: Float32Array, leafCount: number): Float32Array {
  const out = new Float32Array(leafCount * 768);
  out.set(base);
  return out;
}

function run(s: Session, record: StrokeRecord): void {
  beginSpan(s.surface);
  const r = runner(s.surface, record);
  for (const ray of record.samples) runSample(r, ray);
  runEnd(r);
  keep(s, { record, before: endSpan(s.surface) });
}

function keep(s: Session, done: { record: StrokeRecord; before: Before }): void {
  s.done.push(done);
  s.undoBytes += bytesOf(done.before);
  for (let i = 0; s.undoBytes > s.undoLimit && i < s.done.length - 1; i++) {
    const old = s.done[i]!;
    if (!old.before) continue;
    s.undoBytes -= bytesOf(old.before);
    old.before = null;
  }
}
