/** Owns the memory of one body and the sculpting session on it. Answers every call with what changed. */
import * as Comlink from 'comlink';
import { alphaForm, resolveBrush, type AlphaForm, type AlphaKind, type ResolvedBrush } from '#core/brush';
import type { Edit } from '#core/edit';
import { packMesh, readMesh } from '#core/formats';
import { body, buildMesh, layoutOf, maskOut, positionsOut, subdivide, type BodyName, type MeshLayout, type RawMesh } from '#core/mesh';
import type { Picture } from '#core/picture';
import { PART_CELLS, type Brush, type Frame, type Piece } from '#core/settings';
import {
  abandon, adoptBrush, beginStroke, clearStrokes, cutOff, endStroke, extendStroke, keepEdit, maskLastRaised, redo, refinedUnder, replay, retrace, session, strokesOf, takeUp, tryEdit, undo,
  type RefineUnder, type Session,
} from '#core/session';
import { canRedo, canUndo, clay, keptStep, newStep, packHistory, readHistory, redoClay, stepLevel, undoClay, type Clay, type LevelWay, type UpperLevel } from '#core/slab';
import { drainChanged, finish, surface } from '#core/sculpt';
import type { Sample, StrokeRecord, StrokeStart } from '#core/stroke';

export type Opening =
  | { kind: 'slab'; cells: number; places: ArrayBuffer | null; mask: ArrayBuffer | null; upper: UpperLevel[]; history: ArrayBuffer | null }
  /** `fresh` leaves the strokes of the body before behind; otherwise they are run again on this one. */
  | { kind: 'body'; body: { name: BodyName; density: number } | { mesh: ArrayBuffer }; levels: number; fresh: boolean };

export interface Opened {
  buffer: SharedArrayBuffer;
  layout: MeshLayout;
  spacing: number;
}

export interface Change {
  /** Leaves whose vertices changed, ascending. */
  leaves: Uint32Array;
  /** Another mesh took the place of the one that was open. */
  reopened: Opened | null;
  strokes: number;
  canUndo: boolean;
  canRedo: boolean;
  /** Radius and turn of the dab that is being laid, while it is. */
  dab: { radius: number } | null;
  level: LevelState | null;
}

/** The level of a slab that is sculpted, and how many finer ones were stepped down from. */
export interface LevelState {
  cells: number;
  upper: number;
}

/** Everything of a slab that is kept. */
export interface ClayBytes {
  cells: number;
  places: ArrayBuffer;
  mask: ArrayBuffer | null;
  upper: UpperLevel[];
  history: ArrayBuffer | null;
}

/** A stroke as it is kept: everything but its brush's settings. */
export type KeptStroke = Omit<StrokeRecord, 'brush'> & { brushId: string };

export type Begin = Omit<StrokeStart, 'brush'> & { brushId: string };

/** An edit as the page names it: an alpha by its id, its picture is here. */
export type EditOrder = Exclude<Edit, { kind: 'mask-alpha' | 'bake' }> | { kind: 'mask-alpha'; alphaId: string; frame: Frame; way: 'add' | 'take' };

const HISTORY_BYTES = 24 * 2 ** 20;

/** The body as it is sculpted: at its own density, subdivided as often as asked. */
function bodyOf({ body: of, levels }: Extract<Opening, { kind: 'body' }>): RawMesh {
  let raw = 'name' in of ? body(of.name, of.density) : readMesh(of.mesh);
  for (let level = 0; level < levels; level++) raw = subdivide(raw);
  return raw;
}

let open: { session: Session } | Clay | null = null;
/** Pieces that lie on the clay without being part of it: an edit that is shown and never kept. */
let pieces: readonly Piece[] = [];
const brushes = new Map<string, ResolvedBrush>();
const forms = new Map<string, AlphaForm>();
/** Heights of parts that lie as pieces. */
const parts = new Map<string, Picture>();

function current(): Session {
  if (!open) throw new Error('Nothing is open to sculpt on.');
  return open.session;
}

function openClay(): Clay {
  if (!open || !('cells' in open)) throw new Error('No slab is open.');
  return open;
}

function opened(): Opened {
  const { mesh, spacing } = current().surface;
  return { buffer: mesh.buffer, layout: layoutOf(mesh), spacing };
}

function change(reopened: Opened | null = null): Change {
  const s = current();
  const frame = s.running?.runner.frames.at(-1) ?? null;
  const slab = open && 'cells' in open ? open : null;
  const out: Change = {
    leaves: drainChanged(s.surface), reopened, strokes: s.done.length,
    canUndo: slab ? canUndo(slab) && !(s.trying && s.done.length === 0 && slab.past.length === 0) : s.running !== null || (s.done.at(-1)?.before ?? null) !== null,
    canRedo: slab ? canRedo(slab) : s.undone.length > 0, dab: frame && { radius: frame.radius },
    level: slab && { cells: slab.cells, upper: slab.upper.length },
  };
  return Comlink.transfer(out, [out.leaves.buffer as ArrayBuffer]);
}

/** Does something with the clay as it is without its pieces, then lays them on again. */
function onBareClay<T>(act: () => T): T {
  if (pieces.length > 0) abandon(current());
  const result = act();
  if (pieces.length > 0 && !current().running) tryEdit(current(), { kind: 'bake', pieces, parts });
  return result;
}

function ordered(order: EditOrder): Edit {
  if (order.kind !== 'mask-alpha') return order;
  const form = forms.get(order.alphaId);
  if (!form) throw new Error('The alpha is not loaded.');
  return { kind: 'mask-alpha', picture: form.pyramid.levels[0]!, frame: order.frame, way: order.way };
}

const api = {
  open(opening: Opening): Opened {
    if (opening.kind === 'body') {
      const steps = open && !opening.fresh ? open.session.done.map((d) => d.step) : [];
      // A body that can't be opened leaves the one that is open.
      const next = session(finish(surface(buildMesh(bodyOf(opening), { unfinished: true }))), { replay: true });
      takeUp(next, steps);
      drainChanged(next.surface);
      open = { session: next };
      return opened();
    }
    open = null;
    pieces = [];
    const { cells, places, mask, upper, history } = opening;
    const slab = clay({ cells, places: places && new Float32Array(places), mask: mask && new Float32Array(mask), upper });
    if (history) for (const before of readHistory(history, slab.session.surface.mesh)) keptStep(slab, before);
    open = slab;
    return opened();
  },
  state(): Change {
    return change();
  },

  setForm(alphaId: string, alpha: AlphaKind, bytes: ArrayBuffer): void {
    forms.set(alphaId, alphaForm(alpha, bytes));
  },
  setPart(heights: string, bytes: ArrayBuffer): void {
    const data = new Float32Array(bytes);
    if (data.length !== PART_CELLS ** 2) throw new Error(`A part needs ${PART_CELLS ** 2} heights, found ${data.length}.`);
    parts.set(heights, { width: PART_CELLS, height: PART_CELLS, data });
  },
  setBrush(brush: Brush): void {
    const of = (id: string | null): AlphaForm | null => (id === null ? null : forms.get(id) ?? null);
    brushes.set(brush.id, resolveBrush(brush, of(brush.form.alphaId), of(brush.tooth.alphaId)));
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
  /** Lays the running stroke along other samples: a path whose nodes were moved. */
  retrace(samples: Sample[]): Change {
    retrace(current(), samples);
    return change();
  },
  /** `refine` splits and joins triangles of a body under the stroke. */
  end(refine: RefineUnder | null): Change {
    const frames = current().running?.runner;
    const done = onBareClay(() => {
      const { touched } = endStroke(current());
      if (touched > 0 && open && 'cells' in open) newStep(open);
      return touched > 0;
    });
    const next = done && refine && frames && open && !('cells' in open) ? refinedUnder(current(), frames.frames, refine) : null;
    if (!next) return change();
    drainChanged(next.surface);
    open = { session: next };
    return change(opened());
  },
  /** Masks what the last stroke raised. */
  maskRaised(): Change {
    maskLastRaised(current());
    return change();
  },
  /** Cuts what is masked off the body; the piece as kept bytes, null when nothing whole is masked. */
  cutOff(thickness: number): { change: Change; piece: ArrayBuffer | null } {
    const piece = cutOff(current(), thickness);
    const packed = piece && packMesh(piece);
    const out = { change: change(), piece: packed };
    return Comlink.transfer(out, [out.change.leaves.buffer as ArrayBuffer, ...(packed ? [packed] : [])]);
  },
  /** The untouched body with the triangles that it has now. */
  untouched(): ArrayBuffer {
    const { base, surface: { mesh } } = current();
    const packed = packMesh({ positions: base ?? mesh.positions.slice(), triangles: mesh.triangles.slice() });
    return Comlink.transfer(packed, [packed]);
  },
  abandon(): Change {
    if (current().running) abandon(current());
    onBareClay(() => undefined);
    return change();
  },
  undo(): Change {
    if (!open || !('cells' in open)) {
      undo(current());
      return change();
    }
    const slab = open;
    const same = onBareClay(() => undoClay(slab)) !== 'level';
    return change(same ? null : opened());
  },
  redo(): Change {
    if (!open || !('cells' in open)) {
      redo(current());
      return change();
    }
    const slab = open;
    const same = onBareClay(() => redoClay(slab)) !== 'level';
    return change(same ? null : opened());
  },

  /** Shows what an edit would do; the one shown before is taken back. */
  tryEdit(order: EditOrder): Change {
    tryEdit(current(), ordered(order));
    return change();
  },
  keepEdit(): Change {
    if (keepEdit(current())) newStep(openClay());
    onBareClay(() => undefined);
    return change();
  },
  dropEdit(): Change {
    abandon(current());
    onBareClay(() => undefined);
    return change();
  },
  makeEdit(order: EditOrder): Change {
    onBareClay(() => {
      tryEdit(current(), ordered(order));
      if (keepEdit(current()) && open && 'cells' in open) newStep(open);
    });
    return change();
  },
  /** Pieces that lie on the clay from now on. */
  setPieces(next: Piece[]): Change {
    if (pieces.length > 0) abandon(current());
    pieces = next;
    onBareClay(() => undefined);
    return change();
  },
  bakePieces(): Change {
    const baked = pieces;
    abandon(current());
    pieces = [];
    tryEdit(current(), { kind: 'bake', pieces: baked, parts });
    if (keepEdit(current())) newStep(openClay());
    return change();
  },
  step(way: LevelWay): Change {
    onBareClay(() => stepLevel(openClay(), way));
    return change(opened());
  },

  adopt(from: string, to: string): void {
    adoptBrush(current(), from, to);
  },
  replay(): Change {
    replay(current(), brushes);
    return change();
  },
  /** The strokes on the body, to be laid on another or kept. A stroke's own brush goes along by its id alone. */
  strokes(): KeptStroke[] {
    return strokesOf(current()).map(({ brush, ...rest }) => ({ ...rest, brushId: brush.id }));
  },
  /** Takes everything off the body and lays these strokes; those of brushes that aren't known here take `instead`. */
  lay(strokes: KeptStroke[], instead: string): Change {
    const own = brushes.get(instead);
    if (!own) throw new Error('The brush is not loaded.');
    clearStrokes(current());
    takeUp(current(), strokes.map(({ brushId, ...rest }) => ({ kind: 'stroke', record: { ...rest, brush: brushes.get(brushId) ?? own } })));
    return change();
  },
  clear(): Change {
    clearStrokes(current());
    return change();
  },
  /** Everything that is kept of a slab, without its pieces. */
  bytes(): ClayBytes {
    const slab = openClay();
    return onBareClay(() => {
      const { mesh } = slab.session.surface;
      const places = positionsOut(mesh).buffer as ArrayBuffer;
      const masked = mesh.mask.some((m) => m !== 0);
      const mask = masked ? (maskOut(mesh).buffer as ArrayBuffer) : null;
      const history = packHistory(slab.session.done, HISTORY_BYTES)?.buffer ?? null;
      // Levels that were left don't change: they are copied, not given away.
      return Comlink.transfer({ cells: slab.cells, places, mask, upper: slab.upper, history }, [places, ...(mask ? [mask] : []), ...(history ? [history] : [])]);
    });
  },
};

export type SculptWorker = typeof api;
Comlink.expose(api);
