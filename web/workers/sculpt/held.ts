/**
 * What the worker holds: the body or slab that is open, the pieces on it, and the brushes and pictures that were sent.
 */
import * as Comlink from 'comlink';
import type { AlphaForm, ResolvedBrush } from '#core/brush';
import { layoutOf } from '#core/mesh';
import type { Picture, Pyramid } from '#core/picture';
import { drainChanged } from '#core/sculpt';
import { abandon, tryEdit, type Session } from '#core/session';
import type { Piece } from '#core/settings';
import { canRedo, canUndo, type Clay } from '#core/slab';
import type { Change, Opened } from './messages';

export const held: {
  open: { session: Session } | Clay | null;
  /** Pieces that lie on the clay without being part of it: an edit that is shown and never kept. */
  pieces: readonly Piece[];
  /** The stroke of the hand that runs; orders of others are too late. */
  stroke: number | null;
  /** The page still looks at a mesh whose place this one took. */
  unseen: boolean;
} = { open: null, pieces: [], stroke: null, unseen: false };

export const brushes = new Map<string, ResolvedBrush>();
export const forms = new Map<string, AlphaForm>();
/** Heights of parts that lie as pieces. */
export const parts = new Map<string, Picture>();

export function current(): Session {
  if (!held.open) throw new Error('Nothing is open to sculpt on.');
  return held.open.session;
}

/** The slab that is open; null while a body is. */
export function clayOrNull(): Clay | null {
  return held.open && 'cells' in held.open ? held.open : null;
}

export function openClay(): Clay {
  const slab = clayOrNull();
  if (!slab) throw new Error('No slab is open.');
  return slab;
}

export function opened(passing = false): Opened {
  const { mesh, spacing } = current().surface;
  held.unseen = false;
  return { buffer: mesh.buffer, layout: layoutOf(mesh), spacing, passing };
}

export function change(told: Opened | null = null, beside: string | null = null): Change {
  const reopened = told ?? (held.unseen ? opened(true) : null);
  const s = current();
  const frame = s.running?.runner.frames.at(-1) ?? null;
  const slab = clayOrNull();
  const out: Change = {
    leaves: drainChanged(s.surface),
    reopened,
    strokes: s.done.filter((d) => d.step.kind !== 'beside').length,
    canUndo: slab
      ? canUndo(slab) && !(s.trying && s.done.length === 0 && slab.past.length === 0)
      : s.running !== null || (s.done.at(-1)?.before ?? null) !== null,
    canRedo: slab ? canRedo(slab) : s.undone.length > 0,
    dab: frame && { radius: frame.radius },
    stroking: s.running !== null,
    level: slab && { cells: slab.cells, upper: slab.upper.length },
    beside,
  };
  return Comlink.transfer(out, [out.leaves.buffer as ArrayBuffer]);
}

/** The pictures of these alphas, and of the strokes that can be run again. */
export function neededForms(ids: readonly string[]): Set<Pyramid> {
  const out = new Set(ids.flatMap((id) => forms.get(id)?.pyramid ?? []));
  const s = held.open?.session;
  for (const step of s ? [...s.done.map((d) => d.step), ...s.undone] : []) {
    if (step.kind !== 'stroke') continue;
    const { alpha, tooth } = step.record.brush;
    if (alpha) out.add(alpha);
    if (tooth) out.add(tooth.picture);
  }
  return out;
}

/**
 * Does something with the clay as it is without its pieces, then lays them on again. A stroke that runs took them off
 * already, and goes on.
 */
export function onBareClay<T>(act: () => T): T {
  if (held.pieces.length > 0 && !current().running) abandon(current());
  const result = act();
  if (held.pieces.length > 0 && !current().running) tryEdit(current(), { kind: 'bake', pieces: held.pieces, parts });
  return result;
}
