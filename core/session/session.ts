/**
 * A sculpting session: strokes and edits on a surface as they are made, until each is a step of its history.
 *
 * What isn't kept yet, a stroke that runs or an edit that is tried, can be taken back as if it had never been.
 */
import type { ResolvedBrush } from '#core/brush';
import { applyEdit, touchesMask, type Edit } from '#core/edit';
import type { RawMesh } from '#core/mesh';
import { edited, layersBytes, Painting, resized, type Layer, type LayerEdit, type Tiles } from '#core/paint';
import { Pieces, type Piece, type PieceChange } from '#core/scene';
import { beginSpan, rewindSpan, type Surface } from '#core/sculpt';
import { copyFrame, type RefineUnder, type Sample, type StrokeRecord, type StrokeStart } from '#core/stroke';
import {
  dropUndone,
  record,
  spanChanges,
  timeline,
  type Change,
  type MeshSnapshot,
  type Stage,
  type Timeline,
} from '#core/timeline';
import { changesOf, rewind, runEnd, runner, runSamples, runWhole, type Runner } from './runner';
import type { Beside, Step, Under } from './steps';
import { placeOf, type Ground } from './target';

export interface Running {
  runner: Runner;
  record: StrokeRecord;
  /** Laid to its end already, as a path is. */
  whole: boolean;
  /** The clay that the stroke began on, while it is shown on finer clay. */
  began: Pick<Stage, 'surface' | 'base'> | null;
}

export interface Session extends Stage, Timeline<Step> {
  running: Running | null;
  /** Pieces that the body came with. */
  ownPieces: readonly Piece[];
  /** Layers that it came with, or that painting began with. */
  ownLayers: readonly Layer[];
  /** Texels a side that its texture had then. */
  ownSize: number;
  /** An edit that is shown but not kept yet. */
  trying: Edit | null;
  /** The untouched body, once its triangles are others than those it was opened with. */
  origin: MeshSnapshot | null;
}

export interface StrokeSummary {
  dabs: number;
  touched: number;
  under: Under | null;
}

export const UNDO_LIMIT_BYTES = 768 * 1024 * 1024;

export interface SessionOptions {
  replay: boolean;
  undoLimit?: number;
  /** Of parts, by their names: strokes on pieces look here. */
  meshes?: ReadonlyMap<string, RawMesh>;
}

/** `replay` keeps the untouched body, so that strokes can be run again with other settings. */
export function session(surface: Surface, { replay, undoLimit = UNDO_LIMIT_BYTES, meshes }: SessionOptions): Session {
  return sessionOn(
    {
      surface,
      base: replay ? surface.mesh.positions.slice() : null,
      level: null,
      pieces: new Pieces(meshes),
      painting: null,
      places: null,
      beside: null,
    },
    undoLimit,
  );
}

export function sessionOn(stage: Stage, undoLimit = UNDO_LIMIT_BYTES): Session {
  return {
    ...stage,
    ...timeline<Step>(undoLimit),
    running: null,
    ownPieces: [],
    ownLayers: [],
    ownSize: 0,
    trying: null,
    origin: null,
  };
}

export function beginStroke(s: Session, start: StrokeStart): void {
  abandon(s);
  const { paint } = start.brush;
  const colours = paint && { first: paint.first, second: paint.second };
  s.running = begun(s, { ...start, samples: [], ...(colours ? { colours } : {}) }, null);
}

/** Whether strokes keep the settings they were drawn with, or follow their brushes again once those are run. */
export function letStay(s: Session, stays: boolean): void {
  const settled = (step: Step): Step =>
    step.kind === 'stroke' ? { ...step, record: { ...step.record, stays } } : step;
  s.done = s.done.map((done) => ({ ...done, step: settled(done.step) }));
  s.undone = s.undone.map((undone) => ({ ...undone, step: settled(undone.step) }));
}

/** A stroke that begins on a stage; samples of its record are run when they come. */
export function begun(on: Ground, record: StrokeRecord, began: Running['began']): Running {
  const { surface, targets } = placeOf(on, record);
  return { runner: runner(surface, record, targets), record, whole: false, began };
}

export function extendStroke(s: Session, samples: readonly Sample[]): void {
  if (!s.running) return;
  s.running.record.samples.push(...samples);
  runSamples(s.running.runner, samples);
}

/** Lays the running stroke anew along other samples, to its end: a path whose nodes were moved. */
export function retrace(s: Session, samples: readonly Sample[]): void {
  if (!s.running) return;
  const { surface, targets } = s.running.runner;
  rewind(s.running.runner);
  const record: StrokeRecord = { ...s.running.record, samples: [...samples] };
  s.running = { ...s.running, runner: runWhole(surface, record, targets), record, whole: true };
}

/**
 * Ends the stroke. One that touched nothing leaves no trace in undo; one that asks for `refine` goes on asking when it
 * is run again, and answers where.
 */
export function endStroke(s: Session, refine: RefineUnder | null = null): StrokeSummary {
  if (!s.running) return { dabs: 0, touched: 0, under: null };
  backOnItsOwn(s);
  const { runner: r, whole } = s.running;
  const record: StrokeRecord = refine ? { ...s.running.record, refine } : s.running.record;
  if (!whole) runEnd(r);
  s.running = null;
  const under = finish(s, { kind: 'stroke', record }, changesOf(r)) ? underOf(r, record) : null;
  return { dabs: r.frames.length, touched: r.touched, under };
}

/** Where a stroke that asks for finer triangles lies. */
export function underOf({ frames, copies }: Runner, { refine, symmetry }: StrokeRecord): Under | null {
  return refine
    ? {
        refine,
        frames: frames.flatMap((frame) =>
          copies.map((copy, i) => (i === 0 ? frame : copyFrame(frame, copy, symmetry))),
        ),
      }
    : null;
}

/** Takes the running stroke, or the edit being tried, back as if it had never been; false when there is none. */
export function abandon(s: Session): boolean {
  if (!s.running && !s.trying) return false;
  if (s.running?.began) Object.assign(s, s.running.began);
  else if (s.running) rewind(s.running.runner);
  else rewindSpan(s.surface);
  s.running = null;
  s.trying = null;
  return true;
}

/** Lays a stroke that is shown on finer clay on the clay that it began on. */
function backOnItsOwn(s: Session): void {
  const { running } = s;
  if (!running?.began) return;
  Object.assign(s, running.began);
  s.running = begun(s, running.record, null);
  runSamples(s.running.runner, running.record.samples);
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
  return finish(s, { kind: 'edit', edit, ...(beside ? { beside } : {}) }, spanChanges(s.surface));
}

/** Tries an edit and keeps it. */
export function makeEdit(s: Session, edit: Edit): boolean {
  tryEdit(s, edit);
  return keepEdit(s);
}

/** What lies beside the clay changed. */
export function changeBeside(s: Session, beside: Beside): void {
  const last = s.done.at(-1)?.step;
  if (last?.kind === 'beside' && last.beside.id === beside.id && s.undone.length === 0)
    last.beside = { ...last.beside, after: beside.after };
  else {
    record(s, { step: { kind: 'beside', beside }, before: [{ kind: 'beside', text: beside.before }] });
    dropUndone(s);
  }
  s.beside = beside.after;
}

/** The body came with these pieces: no step of its history. */
export function bringPieces(s: Session, pieces: readonly Piece[]): void {
  s.ownPieces = pieces;
  s.pieces.make(pieces.map((piece) => [piece.id, piece]));
}

/** Painting begins, with these layers: no step of the history. Whatever was painted is gone. */
export function bringPainting(s: Session, size: number, layers?: readonly Layer[]): void {
  abandon(s);
  s.painting = new Painting(size, layers);
  s.painting.noteAll();
  s.ownLayers = s.painting.snapshot();
  s.ownSize = size;
}

/** Layers become others: one step. Throws a sentence where that can’t be. */
export function changeLayers(s: Session, edit: LayerEdit): void {
  if (!s.painting) throw new Error('This body has no texture yet.');
  abandon(s);
  const next = edited(s.painting.layers, edit);
  const last = s.done.at(-1)?.step;
  if (
    edit.kind === 'set' &&
    edit.gesture !== undefined &&
    last?.kind === 'layers' &&
    last.edit.kind === 'set' &&
    last.edit.gesture === edit.gesture &&
    s.undone.length === 0
  ) {
    s.painting.arrange(next);
    last.edit = { ...edit, to: { ...last.edit.to, ...edit.to } };
    return;
  }
  finish(s, { kind: 'layers', edit }, [arranged(s.painting, next)]);
}

/** The texture becomes larger or smaller, with what is on it: one step. */
export function resizePainting(s: Session, size: number): void {
  if (!s.painting) throw new Error('This body has no texture yet.');
  if (s.painting.size === size) return;
  abandon(s);
  finish(s, { kind: 'size', size }, [sized(s, s.painting, size)]);
}

/** Puts the painting in at another size; answers what takes that back. */
export function sized(stage: Stage, was: Painting, size: number): Change {
  const fitting = (tiles: Tiles): Tiles => resized({ size: was.size, tiles }, size).tiles;
  stage.painting = new Painting(
    size,
    was.layers.map((layer) => ({ ...layer, tiles: fitting(layer.tiles), mask: layer.mask && fitting(layer.mask) })),
  );
  stage.painting.noteAll();
  return { kind: 'painting', painting: was };
}

/** Puts other layers in; answers what takes that back. */
export function arranged(painting: Painting, next: readonly Layer[]): Change {
  const layers = painting.arrange(next);
  return { kind: 'layers', layers, bytes: layersBytes(layers, next) };
}

/** Pieces and layers that the body came with, or that the last merge left. */
export function resetScene(s: Session): void {
  const size = startingSize(s);
  if (s.painting?.size === size) s.painting.arrange(startingLayers(s));
  else if (s.painting) {
    s.painting = new Painting(size, startingLayers(s));
    s.painting.noteAll();
  }
  s.pieces.clear();
  s.pieces.make(startingPieces(s).map((piece) => [piece.id, piece]));
}

/** Pieces that stood where replay begins. */
export function startingPieces(s: Session): readonly Piece[] {
  return startingPoint(s).left;
}

/** Layers where replay begins, with lists of tiles of their own. */
export function startingLayers(s: Session): readonly Layer[] {
  return startingPoint(s).painted.map((layer) => ({
    ...layer,
    tiles: new Map(layer.tiles),
    mask: layer.mask && new Map(layer.mask),
  }));
}

/** Texels a side that the texture has where replay begins. */
export function startingSize(s: Session): number {
  return startingPoint(s).size;
}

interface StartingPoint {
  left: readonly Piece[];
  painted: readonly Layer[];
  size: number;
}

function startingPoint({ done, ownPieces, ownLayers, ownSize }: Session): StartingPoint {
  const last = done.findLast(({ step }) => step.kind === 'merge')?.step;
  return last?.kind === 'merge' ? last : { left: ownPieces, painted: ownLayers, size: ownSize };
}

/** Which of the steps is the first that is run again: what was merged isn't taken apart. */
export function firstAgain({ done }: Session): number {
  return done.findLastIndex(({ step }) => step.kind === 'merge') + 1;
}

/** Pieces become others: moved, taken away, named. One step; what can't be told from what was leaves no trace. */
export function changePieces(s: Session, changes: readonly PieceChange[]): boolean {
  abandon(s);
  const real = changes.filter(([id, piece]) => s.pieces.get(id) !== piece);
  if (real.length === 0) return false;
  return finish(s, { kind: 'pieces', changes: real }, [{ kind: 'pieces', pieces: s.pieces.make(real) }]);
}

/** Adds a step that was just made; one that changed nothing leaves no trace, and answers false. */
function finish(s: Session, step: Step, before: readonly Change[]): boolean {
  if (before.length === 0) return false;
  keep(s, step, before);
  dropUndone(s);
  return true;
}

/** Adds a step that is done; what lies beside goes along where the step says so. */
export function keep(s: Session, step: Step, before: readonly Change[]): void {
  const beside = step.kind === 'edit' ? step.beside : undefined;
  record(s, { step, before: beside ? [...before, { kind: 'beside', text: beside.before }] : before });
  if (beside) s.beside = beside.after;
}

/** The brush of a stroke, or what it was replaced by. */
export function brushIn(brushes: ReadonlyMap<string, ResolvedBrush>) {
  return ({ brush, stays }: StrokeRecord): ResolvedBrush => (stays ? brush : (brushes.get(brush.id) ?? brush));
}
