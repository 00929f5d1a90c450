/**
 * The clay of a slab: the level that is sculpted, the finer ones it was stepped down from, and one history across them.
 * A step to another level lays out a new mesh; undo brings the old one back with its own history.
 */
import { buildMesh, maskIn, maskOut, plane, positionsOut, sculptBytes, type Before } from '#core/mesh';
import { keep, redo, session, undo, UNDO_LIMIT_BYTES, type Done, type Session, type Step } from '#core/session';
import { LEVEL_CELLS, SLAB_SIDE } from '#core/settings';
import { finish, surface } from '#core/sculpt';
import { carriedUp, coarser, coarserValues, finer, finerValues, type UpperLevel } from './levels';

export interface Clay {
  cells: number;
  session: Session;
  /** Finest first; the last is the next one up. */
  upper: UpperLevel[];
  past: Snapshot[];
  future: Snapshot[];
}

/** What the level that is sculpted has of the budget at the least. */
const LEAST_UNDO_BYTES = 128 * 2 ** 20;

/** A level as it was when it was left. */
interface Snapshot {
  cells: number;
  places: Float32Array;
  mask: Float32Array;
  upper: UpperLevel[];
  done: Done[];
  undone: Step[];
  undoBytes: number;
}

export interface ClayParts {
  cells: number;
  /** Null is the untouched plane. */
  places: Float32Array | null;
  mask: Float32Array | null;
  upper: UpperLevel[];
}

export function clay(parts: ClayParts): Clay {
  return { cells: parts.cells, session: sessionOf(parts), upper: parts.upper, past: [], future: [] };
}

function sessionOf(parts: ClayParts): Session {
  const mesh = buildMesh(plane(parts.cells, SLAB_SIDE), {
    unfinished: true,
    ...(parts.places ? { places: parts.places } : {}),
  });
  if (parts.mask) maskIn(mesh, parts.mask);
  return session(finish(surface(mesh)), { replay: false });
}

export type LevelWay = 'up' | 'down';

/** Cells of the level a step leads to; null when there is none. */
export function levelAt(cells: number, way: LevelWay): number | null {
  const next = way === 'up' ? cells * 2 : cells / 2;
  return (LEVEL_CELLS as readonly number[]).includes(next) ? next : null;
}

/** Memory that a level takes while it is sculpted, bytes. */
export function levelBytes(cells: number): number {
  return sculptBytes((cells + 1) ** 2);
}

/** Steps a level up or down; up makes a new level where none was left. Throws OutOfMemory before anything changes. */
export function stepLevel(c: Clay, way: LevelWay): void {
  const cells = levelAt(c.cells, way);
  if (cells === null)
    throw new Error(
      way === 'up'
        ? `A slab has at most ${LEVEL_CELLS.at(-1)}² cells.`
        : `A slab has at least ${LEVEL_CELLS[0]}² cells.`,
    );
  const here = snapshot(c);
  const upper = [...c.upper];
  let parts: ClayParts;
  if (way === 'down') {
    const base = coarser(here.places, c.cells);
    upper.push({ cells: c.cells, fine: here.places, base });
    parts = { cells, places: base, mask: coarserValues(here.mask, c.cells), upper };
  } else {
    const left = upper.pop();
    parts = {
      cells,
      places: left ? carriedUp(left, here.places) : finer(here.places, c.cells),
      mask: finerValues(here.mask, c.cells),
      upper,
    };
  }
  const next = sessionOf(parts);
  c.past.push(here);
  c.future = [];
  Object.assign(c, { cells, session: next, upper });
  keepBudget(c);
}

/** Levels that were left and the steps on all of them share one budget; the oldest level goes first. */
function keepBudget(c: Clay): void {
  let left = 0;
  for (const s of [...c.past, ...c.future]) left += snapshotBytes(s);
  while (left > UNDO_LIMIT_BYTES - LEAST_UNDO_BYTES && c.past.length > 0) left -= snapshotBytes(c.past.shift()!);
  c.session.undoLimit = Math.max(LEAST_UNDO_BYTES, UNDO_LIMIT_BYTES - left);
}

function snapshotBytes({ places, mask, undoBytes }: Snapshot): number {
  return places.byteLength + mask.byteLength + undoBytes;
}

export type History = 'same' | 'level' | 'nothing';

/** Undoes the last step; 'level' says that another mesh took the old one's place. */
export function undoClay(c: Clay): History {
  if (undo(c.session)) return 'same';
  if (c.session.done.length > 0 || c.past.length === 0) return 'nothing';
  c.future.push(snapshot(c));
  comeBack(c, c.past.pop()!);
  return 'level';
}

export function redoClay(c: Clay): History {
  if (redo(c.session)) return 'same';
  if (c.session.undone.length > 0 || c.future.length === 0) return 'nothing';
  c.past.push(snapshot(c));
  comeBack(c, c.future.pop()!);
  return 'level';
}

/** Takes up a step of a kept history, oldest first: it can be undone, and redone from what stood after it. */
export function keptStep(c: Clay, before: Before): void {
  keep(c.session, { step: { kind: 'kept' }, before });
}

/** A new stroke or edit ends what could be redone. */
export function newStep(c: Clay): void {
  c.future = [];
}

export function canUndo(c: Clay): boolean {
  const { running, trying, done } = c.session;
  return (
    running !== null ||
    trying !== null ||
    (done.at(-1)?.before ?? null) !== null ||
    (done.length === 0 && c.past.length > 0)
  );
}

export function canRedo(c: Clay): boolean {
  return c.session.undone.length > 0 || c.future.length > 0;
}

function snapshot(c: Clay): Snapshot {
  const { surface: s, done, undone, undoBytes } = c.session;
  return {
    cells: c.cells,
    places: positionsOut(s.mesh),
    mask: maskOut(s.mesh),
    upper: c.upper,
    done,
    undone,
    undoBytes,
  };
}

function comeBack(c: Clay, to: Snapshot): void {
  const session = sessionOf(to);
  Object.assign(session, { done: to.done, undone: to.undone, undoBytes: to.undoBytes });
  Object.assign(c, { cells: to.cells, session, upper: to.upper });
  keepBudget(c);
}
