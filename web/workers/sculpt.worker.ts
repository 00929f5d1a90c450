/** Owns the memory of one body and the sculpting session on it. Answers every call with what changed. */
import * as Comlink from 'comlink';
import { resolveBrush, type AlphaForm, type ResolvedBrush } from '#core/brush';
import { body, buildMesh, layoutOf, plane, positionsOut, type BodyName, type MeshLayout } from '#core/mesh';
import { fromUint16, pyramid } from '#core/picture';
import { SLAB_SIDE, type Brush } from '#core/settings';
import {
  abandon, adoptBrush, beginStroke, clearStrokes, endStroke, extendStroke, redo, replay, session, undo, type Session,
} from '#core/session';
import { drainChanged, surface } from '#core/sculpt';
import type { Sample, StrokeStart } from '#core/stroke';

export type Opening =
  | { kind: 'slab'; cells: number; positions: ArrayBuffer | null }
  | { kind: 'body'; name: BodyName; density: number };

export interface Opened {
  buffer: SharedArrayBuffer;
  layout: MeshLayout;
  spacing: number;
}

export interface Change {
  /** Leaves whose vertices changed, ascending. */
  leaves: Uint32Array;
  strokes: number;
  canUndo: boolean;
  canRedo: boolean;
  /** Radius and turn of the dab that is being laid, while it is. */
  dab: { radius: number } | null;
}

export type Begin = Omit<StrokeStart, 'brush'> & { brushId: string };

let open: Session | null = null;
const brushes = new Map<string, ResolvedBrush>();
const forms = new Map<string, AlphaForm>();

function current(): Session {
  if (!open) throw new Error('Nothing is open to sculpt on.');
  return open;
}

function change(): Change {
  const s = current();
  const frame = s.running?.runner.lastFrame ?? null;
  const out: Change = {
    leaves: drainChanged(s.surface), strokes: s.done.length, canUndo: s.running !== null || (s.done.at(-1)?.before ?? null) !== null,
    canRedo: s.undone.length > 0, dab: frame && { radius: frame.radius },
  };
  return Comlink.transfer(out, [out.leaves.buffer as ArrayBuffer]);
}

const api = {
  open(opening: Opening): Opened {
    open = null;
    const raw = opening.kind === 'slab' ? plane(opening.cells, SLAB_SIDE) : body(opening.name, opening.density);
    const mesh = buildMesh(raw, opening.kind === 'slab' && opening.positions ? { places: new Float32Array(opening.positions) } : {});
    open = session(surface(mesh), { replay: opening.kind === 'body' });
    return { buffer: mesh.buffer, spacing: open.surface.spacing, layout: layoutOf(mesh) };
  },

  hasForm(alphaId: string): boolean {
    return forms.has(alphaId);
  },
  setForm(alphaId: string, size: number, greys: ArrayBuffer, relief: number): void {
    forms.set(alphaId, { pyramid: pyramid(fromUint16(new Uint16Array(greys), size)), relief });
  },
  setBrush(brush: Brush): void {
    brushes.set(brush.id, resolveBrush(brush, brush.form.alphaId === null ? null : forms.get(brush.form.alphaId) ?? null));
  },

  begin(start: Begin, samples: Sample[]): Change {
    const brush = brushes.get(start.brushId);
    if (!brush) throw new Error('The brush is not loaded.');
    beginStroke(current(), { ...start, brush });
    extendStroke(current(), samples);
    return change();
  },
  extend(samples: Sample[]): Change {
    extendStroke(current(), samples);
    return change();
  },
  end(): Change {
    endStroke(current());
    return change();
  },
  abandon(): Change {
    abandon(current());
    return change();
  },
  undo(): Change {
    undo(current());
    return change();
  },
  redo(): Change {
    redo(current());
    return change();
  },
  adopt(from: string, to: string): void {
    adoptBrush(current(), from, to);
  },
  replay(): Change {
    replay(current(), brushes);
    return change();
  },
  clear(): Change {
    clearStrokes(current());
    return change();
  },
  /** Every vertex in stored order, float32. */
  positions(): ArrayBuffer {
    const buffer = positionsOut(current().surface.mesh).buffer as ArrayBuffer;
    return Comlink.transfer(buffer, [buffer]);
  },
};

export type SculptWorker = typeof api;
Comlink.expose(api);
