/**
 * The clay of a slab: the level that is sculpted and the finer ones it was stepped down from. A step to another level
 * lays out a new mesh, and is a step of the session's history like any other.
 */
import { Pieces } from '#core/scene';
import { maskOut, positionsOut, sculptBytes, type Before } from '#core/mesh';
import { abandon, sessionOn, type Session } from '#core/session';
import { LEVEL_CELLS } from '#core/settings';
import {
  dropUndone,
  follow,
  partOf,
  stageOf,
  record,
  unwatched,
  type MeshSnapshot,
  type Level,
  type UpperLevel,
} from '#core/timeline';
import { carriedUp, coarser, coarserValues, finer, finerValues } from './levels';

export interface ClayParts {
  cells: number;
  /** Null is the untouched plane. */
  places: Float32Array | null;
  mask: Float32Array | null;
  upper: UpperLevel[];
}

/** Everything of a slab that is kept. */
export interface ClayBytes {
  cells: number;
  places: ArrayBuffer;
  mask: ArrayBuffer | null;
  upper: UpperLevel[];
  history: ArrayBuffer | null;
}

/** A session on a slab. */
export type Clay = Session & { level: Level };

export function clay({ cells, places, mask, upper }: ClayParts): Clay {
  const level = { cells, upper };
  const stage = stageOf({ ...grid(level), places, mask });
  return { ...sessionOn({ ...stage, pieces: new Pieces(), painting: null, places: null, beside: null }), level };
}

function grid(level: Level): MeshSnapshot {
  return { raw: null, places: null, mask: null, base: null, spacing: null, level };
}

export type LevelDirection = 'up' | 'down';

/** Cells of the level a step leads to; null when there is none. */
export function levelAt(cells: number, direction: LevelDirection): number | null {
  const next = direction === 'up' ? cells * 2 : cells / 2;
  return (LEVEL_CELLS as readonly number[]).includes(next) ? next : null;
}

/** Memory that a level takes while it is sculpted, bytes. */
export function levelBytes(cells: number): number {
  return sculptBytes((cells + 1) ** 2);
}

/**
 * Steps a level up or down; up makes a new level where none was left. Throws OutOfMemory and StepCancelled before
 * anything changes.
 */
export function stepLevel(c: Clay, direction: LevelDirection, onProgress = unwatched): void {
  const { cells: here } = c.level;
  const cells = levelAt(here, direction);
  if (cells === null)
    throw new Error(
      direction === 'up'
        ? `A slab has at most ${LEVEL_CELLS.at(-1)} cells a side.`
        : `A slab has at least ${LEVEL_CELLS[0]} cells a side.`,
    );
  abandon(c);
  const { mesh } = c.surface;
  const [places, mask] = [positionsOut(mesh), maskOut(mesh)];
  const upper = [...c.level.upper];
  follow(onProgress, 0.1);
  let next: Pick<MeshSnapshot, 'places' | 'mask'>;
  if (direction === 'down') {
    const base = coarser(places, here);
    upper.push({ cells: here, fine: places, base });
    next = { places: base, mask: coarserValues(mask, here) };
  } else {
    const above = upper.pop();
    next = { places: above ? carriedUp(above, places) : finer(places, here), mask: finerValues(mask, here) };
  }
  follow(onProgress, 0.3);
  const left: MeshSnapshot = { ...grid(c.level), places, mask };
  Object.assign(c, stageOf({ ...grid({ cells, upper }), ...next }, partOf(onProgress, 0.3, 1)));
  record(c, { step: { kind: 'level' }, before: [{ kind: 'mesh', mesh: left, on: null }] });
  dropUndone(c);
}

/** Takes up a step of a kept history, oldest first: it can be undone, and redone from what stood after it. */
export function addEarlierStep(c: Clay, before: Before): void {
  record(c, { step: { kind: 'earlier' }, before: [{ kind: 'leaves', leaves: before }] });
}
