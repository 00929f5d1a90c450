/**
 * One history of steps with one budget of bytes. A step that can be run again is redone by running it, which costs no
 * memory; of any other what stood after it is kept.
 */
import { applied, apply, changeBytes, type Change } from './change';
import type { Stage } from './stage';

export interface Done<S> {
  step: S;
  /** What brings back what stood before it, in this order; null once it was dropped to keep within the budget. */
  before: readonly Change[] | null;
}

export interface Undone<S> {
  step: S;
  /** What brings it on again, in this order; null for a step that is run again. */
  after: readonly Change[] | null;
}

export interface Timeline<S> {
  /** Oldest first. */
  done: Done<S>[];
  /** The next to be redone is the last. */
  undone: Undone<S>[];
  /** Of all changes that are kept. */
  undoBytes: number;
  /** Changes beyond this are dropped, those of the oldest steps first. */
  undoLimit: number;
}

export function timeline<S>(undoLimit: number): Timeline<S> {
  return { done: [], undone: [], undoBytes: 0, undoLimit };
}

/**
 * Adds a step that was done. What could be redone stays: a new step of the hand drops it, one that is redone doesn't.
 */
export function record<S>(t: Timeline<S>, done: Done<S>): void {
  t.done.push(done);
  t.undoBytes += bytesIn(done.before);
  trim(t);
}

/** Keeps within another budget from now on; what no longer fits goes at once, that of the oldest steps first. */
export function limitUndo<S>(t: Timeline<S>, bytes: number): void {
  t.undoLimit = bytes;
  trim(t);
}

function trim<S>(t: Timeline<S>): void {
  for (let i = 0; t.undoBytes > t.undoLimit && i < t.done.length - 1; i++) {
    const old = t.done[i];
    t.undoBytes -= bytesIn(old.before);
    old.before = null;
  }
}

/** The last step changed something else than was kept of it. */
export function replaceLast<S>(t: Timeline<S>, before: readonly Change[]): void {
  const last = t.done.pop();
  if (!last) return;
  t.undoBytes -= bytesIn(last.before);
  record(t, { step: last.step, before });
}

export function dropUndone<S>(t: Timeline<S>): void {
  for (const { after } of t.undone) t.undoBytes -= bytesIn(after);
  t.undone = [];
}

/** Forgets what was done, from this step on, and leaves what could be redone. */
export function dropDone<S>(t: Timeline<S>, from = 0): Done<S>[] {
  const dropped = t.done.splice(from);
  for (const { before } of dropped) t.undoBytes -= bytesIn(before);
  return dropped;
}

/** Takes back the last step; false when there is none, or what stood before it was dropped. */
export function back<S>(t: Timeline<S>, stage: Stage, runsAgain: (step: S) => boolean): boolean {
  const last = t.done.at(-1);
  if (!last?.before) return false;
  let after: Change[] | null = null;
  // A change that can't be made, for want of memory, is the first: nothing has happened then.
  if (runsAgain(last.step)) for (const change of last.before) apply(stage, change);
  else after = last.before.map((change) => applied(stage, change)).reverse();
  t.done.pop();
  t.undone.push({ step: last.step, after });
  t.undoBytes += bytesIn(after) - bytesIn(last.before);
  return true;
}

/** Makes the last step that was taken back again; `run` runs a step and records it. False when there is none. */
export function forth<S>(t: Timeline<S>, stage: Stage, run: (step: S) => void): boolean {
  const next = t.undone.at(-1);
  if (!next) return false;
  const { step, after } = next;
  if (!after) run(step);
  else {
    const before = after.map((change) => applied(stage, change)).reverse();
    record(t, { step, before });
  }
  t.undone.pop();
  t.undoBytes -= bytesIn(after);
  return true;
}

function bytesIn(changes: readonly Change[] | null): number {
  return changes?.reduce((sum, change) => sum + changeBytes(change), 0) ?? 0;
}
