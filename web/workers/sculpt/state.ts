/**
 * What the worker holds: the body or slab that is open, the set forms on it, and the brushes and pictures that were
 * sent.
 */
import * as Comlink from 'comlink';
import type { AlphaColours, AlphaForm, PartForm, ResolvedBrush } from '#core/brush';
import { layoutOf, type Mesh, type RawMesh } from '#core/mesh';
import type { Painting } from '#core/paint';
import type { Picture, Pyramid } from '#core/picture';
import { drainChanged, type Surface } from '#core/sculpt';
import { abandon, canRedo, canUndo, firstAgain, tryEdit, UNDO_LIMIT_BYTES, type Session } from '#core/session';
import type { SetForm } from '#core/settings';
import type { RefineUnder } from '#core/stroke';
import type { Clay } from '#core/slab';
import { StepCancelled, type OnProgress } from '#core/timeline';
import type { Cancelled } from '../castResult';
import type { Change, Followed, Opened } from './messages';
import { paintedSince } from './painted';
import { DraftedTiles } from './paintDraft';

export const state: {
  open: Session | Clay | null;
  /** Set forms that lie on the clay without being part of it: an edit that is shown and never kept. */
  setForms: readonly SetForm[];
  /** What strokes may keep for undo, bytes. */
  undoLimit: number;
  /** The stroke of the hand that runs; orders of others are too late. */
  stroke: number | null;
  /** When the running stroke may be shown on finer clay next, ms; null while it asks for none. */
  finer: { refine: RefineUnder; notBefore: number } | null;
  /** What the page knows: the mesh that it looks at, and what lies beside the clay. */
  told: { surface: Surface | null; beside: string | null; painted: { painting: Painting; mesh: Mesh } | null };
  /** What of the painting is in the browser’s store, and what it is drafted as. */
  drafted: { tiles: DraftedTiles; as: string | null };
  /** What stood when the body was handed out to be merged into: a step since then makes the answer stale. */
  handedOut: { session: Session; steps: readonly unknown[] } | null;
  /** One number that the page writes: the call that it gives up. */
  givenUp: Int32Array | null;
} = {
  open: null,
  setForms: [],
  undoLimit: UNDO_LIMIT_BYTES,
  stroke: null,
  finer: null,
  told: { surface: null, beside: null, painted: null },
  drafted: { tiles: new DraftedTiles(), as: null },
  handedOut: null,
  givenUp: null,
};

export const brushes = new Map<string, ResolvedBrush>();
export const forms = new Map<string, AlphaForm>();
/** Colours that were cast beside alphas’ heights, by the alphas. */
export const colours = new Map<string, AlphaColours>();
/** Parts that brushes set down, by their ids. */
export const partForms = new Map<string, PartForm>();
/** Their meshes, by their names, and those of pieces that strokes go on. */
export const partMeshes = new Map<string, RawMesh>();
/** Heights of parts that lie as set forms. */
export const parts = new Map<string, Picture>();

export function current(): Session {
  if (!state.open) throw new Error('Nothing is open to sculpt on.');
  return state.open;
}

/** The slab that is open; null while a body is. */
export function clayOrNull(): Clay | null {
  return state.open?.level ? (state.open as Clay) : null;
}

export function openClay(): Clay {
  const slab = clayOrNull();
  if (!slab) throw new Error('No slab is open.');
  return slab;
}

export function opened(): Opened {
  const { surface, running } = current();
  const { mesh, spacing } = surface;
  drainChanged(surface);
  state.told.surface = surface;
  return { buffer: mesh.buffer, layout: layoutOf(mesh), spacing, passing: Boolean(running?.began) };
}

/** Who hears how far a call is, until the page gives that call up. */
export function following({ call, told }: Followed): OnProgress {
  return (share) => {
    told?.(share);
    return !state.givenUp || Atomics.load(state.givenUp, 0) !== call;
  };
}

/** What it answers; where the page gave it up, that it did. */
export function orCancelled<T>(act: () => T): T | Cancelled {
  try {
    return act();
  } catch (error) {
    if (error instanceof StepCancelled) return { cancelled: true };
    throw error;
  }
}

/** What changed since the page was told last. */
export function change(): Change {
  const s = current();
  const reopened = s.surface === state.told.surface ? null : opened();
  const beside = s.beside === state.told.beside ? null : s.beside;
  state.told.beside = s.beside;
  const frame = s.running?.runner.frames.at(-1) ?? null;
  const slab = clayOrNull();
  const painted = paintedSince(s, state.told);
  const out: Change = {
    leaves: drainChanged(s.surface),
    reopened,
    strokes: s.done.filter((d) => d.step.kind !== 'beside').length,
    canUndo: canUndo(s),
    canRedo: canRedo(s),
    dab: frame && { radius: frame.radius },
    stroking: s.running !== null,
    pieces: s.pieces.drain(),
    merged: firstAgain(s) > 0,
    level: slab && { cells: slab.level.cells, upper: slab.level.upper.length },
    beside,
    painted,
  };
  const bulk = [out.leaves, painted?.bytes, painted?.tiles, painted?.on?.coordinates];
  return Comlink.transfer(
    out,
    bulk.flatMap((of) => (of ? [of.buffer as ArrayBuffer] : [])),
  );
}

/** The pictures of these alphas, and of the strokes that can be run again. */
export function neededForms(ids: readonly string[]): Set<Pyramid> {
  const out = new Set(ids.flatMap((id) => forms.get(id)?.pyramid ?? []));
  const s = state.open;
  for (const { step } of s ? [...s.done, ...s.undone] : []) {
    if (step.kind !== 'stroke') continue;
    const { ofAlpha, tooth } = step.record.brush;
    if (ofAlpha) out.add(ofAlpha);
    if (tooth) out.add(tooth.picture);
  }
  return out;
}

/**
 * Does something with the clay as it is without its set forms, then lays them on again, also where that failed. A
 * stroke that runs took them off already, and goes on.
 */
export function onBareClay<T>(act: () => T): T {
  if (state.setForms.length > 0 && !current().running) abandon(current());
  try {
    return act();
  } finally {
    if (state.setForms.length > 0 && !current().running)
      tryEdit(current(), { kind: 'bake', setForms: state.setForms, parts });
  }
}
