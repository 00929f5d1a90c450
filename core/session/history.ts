/**
 * Undo, redo and replay of a session's steps.
 *
 * Undo makes the changes that the step kept. Redo and replay run the step again: the same samples, seed and brush give
 * the same bytes. Replay goes back to the untouched body and runs every stroke with the settings its brush has now.
 */
import type { ResolvedBrush } from '#core/brush';
import { applyEdit, touchesMask } from '#core/edit';
import { LEAF, type RawMesh } from '#core/mesh';
import { edited } from '#core/paint';
import { beginSpan, restore } from '#core/sculpt';
import {
  apply,
  back,
  dropDone,
  dropUndone,
  follow,
  forth,
  snapshot,
  stageOf,
  spanChanges,
  timeline,
  unwatched,
  type Change,
} from '#core/timeline';
import { healCut, maskRaised, cutting } from './cutOff';
import { refinedMesh, refineUnderLast } from './refine';
import { changesOf, runWhole } from './runner';
import { abandon, arranged, brushIn, firstAgain, keep, resetScene, sized, underOf, type Session } from './session';
import { placeOf } from './target';
import { runsAgain, withBrushes, type Step, type Under } from './steps';

/** Takes back what isn't kept yet, else the last step; false when there is none that can be. */
export function undo(s: Session): boolean {
  if (abandon(s)) return true;
  const last = s.done.at(-1)?.step;
  if (back(s, s, runsAgain)) {
    if (last?.kind === 'merge') s.origin = last.origin;
    return true;
  }
  return s.done.length > firstAgain(s) && s.base !== null && undoAgain(s);
}

/** What stood before was dropped from memory: every step before the last is run again from the untouched body. */
function undoAgain(s: Session): boolean {
  const { step } = s.done.at(-1)!;
  const steps = s.done.slice(firstAgain(s), -1).map((done) => done.step);
  toOrigin(s);
  for (const one of steps) run(s, one, true);
  s.undone.push({ step, after: null });
  if (step.kind === 'beside') s.beside = step.beside.before;
  return true;
}

export function redo(s: Session): boolean {
  if (s.running || s.trying) return false;
  const next = s.undone.at(-1)?.step;
  if (!forth(s, s, (step) => run(s, step, true))) return false;
  if (next?.kind === 'merge') s.origin = null;
  return true;
}

export function canUndo(s: Session): boolean {
  return (
    s.running !== null || (s.done.at(-1)?.before ?? null) !== null || (s.done.length > firstAgain(s) && s.base !== null)
  );
}

export function canRedo(s: Session): boolean {
  return s.undone.length > 0;
}

/** Masks what the last stroke raised; false when there is none to look at. */
export function maskLastRaised(s: Session): boolean {
  abandon(s);
  if (!raisedBy(s)) return false;
  run(s, { kind: 'mask-raised' });
  dropUndone(s);
  return true;
}

/** Cuts what is masked off the body and answers it as a closed mesh; null when nothing whole is masked. */
export function cutOff(s: Session, thickness: number): RawMesh | null {
  abandon(s);
  const cut = s.base && cutting(s.surface, s.base, thickness);
  if (!cut) return null;
  run(s, { kind: 'cut' });
  dropUndone(s);
  return cut;
}

/** Takes back a cut as if it had never been; false when it isn't the last step. */
export function uncut(s: Session): boolean {
  if (s.done.at(-1)?.step.kind !== 'cut' || !undo(s)) return false;
  s.undone.pop();
  return true;
}

/**
 * Runs every step again from the untouched body, with the triangles it has now. Strokes of a brush in `brushes` take
 * its settings, the others keep their own. Answers where finer triangles are asked for now.
 */
export function replay(s: Session, brushes: ReadonlyMap<string, ResolvedBrush>): Under[] {
  if (!s.base) throw new Error('This session keeps no untouched body to replay from.');
  abandon(s);
  const done = s.done.slice(firstAgain(s));
  const steps = done.map(({ step }) => withBrushes(step, brushIn(brushes)));
  const stays = ({ step }: { step: Step }): boolean => step.kind === 'stroke' && step.record.stays === true;
  if (done.some(stays) && done.every((one) => stays(one) || one.step.kind !== 'stroke')) return [];
  toUntouched(s);
  s.undone = s.undone.map((undone) => ({ ...undone, step: withBrushes(undone.step, brushIn(brushes)) }));
  return runAll(s, steps);
}

/**
 * Runs kept steps on this surface, e.g. those of the same body at another density. What is only kept as bytes stays
 * behind. Answers where finer triangles are asked for.
 */
export function takeUpSteps(s: Session, steps: readonly Step[], onProgress = unwatched): Under[] {
  abandon(s);
  return runAll(s, steps.filter(runsAgain), onProgress);
}

/** Throws StepCancelled between two steps: those before have been run. */
export function runAll(s: Session, steps: readonly Step[], onProgress = unwatched): Under[] {
  const all = steps.map((step, i) => {
    follow(onProgress, i / steps.length);
    return run(s, step);
  });
  return all.filter((under) => under !== null);
}

/**
 * The untouched body is refined under all of these, as the clay stands now, and every step is run again on it. False
 * when nothing had to be changed. A session that is given up midway is of no more use.
 */
export function refineUnderAll(s: Session, places: readonly Under[], onProgress = unwatched): boolean {
  if (!s.base) throw new Error('This session keeps no untouched body to refine.');
  const finer = places.length > 0 && refinedMesh(s, { places: s.base, mask: null }, places);
  if (!finer) return false;
  resetScene(s);
  const next: Session = { ...s, ...stageOf(finer), ...timeline<Step>(s.undoLimit), origin: null };
  const again = dropDone(s, firstAgain(s));
  runAll(
    next,
    again.map(({ step }) => step),
    onProgress,
  );
  const { surface, base } = next;
  Object.assign(s, { surface, base, origin: null, undoBytes: s.undoBytes + next.undoBytes });
  s.done.push(...next.done);
  return true;
}

/** Strokes of one brush become strokes of another, e.g. of the copy that was made to change it. */
export function adoptBrush(s: Session, from: string, to: string): void {
  const adopted = (step: Step): Step =>
    withBrushes(step, ({ brush }) => (brush.id === from ? { ...brush, id: to } : brush));
  for (const done of s.done) done.step = adopted(done.step);
  for (const undone of s.undone) undone.step = adopted(undone.step);
}

/** Takes all steps off the body. What was merged so long ago that nothing of before is known stays in it. */
export function clearStrokes(s: Session): void {
  abandon(s);
  do toUntouched(s);
  while (undo(s));
  dropUndone(s);
}

/**
 * Pieces become part of the body: `mesh` is all of it in one, as core/scene merges it. Throws OutOfMemory and changes
 * nothing.
 */
export function mergePieces(s: Session, ids: readonly string[], mesh: RawMesh): void {
  abandon(s);
  const next = stageOf({ raw: mesh, places: null, mask: null, base: mesh.positions, spacing: null, level: null });
  const was: Change = { kind: 'mesh', mesh: snapshot(s), on: null };
  Object.assign(s, next);
  const pieces = s.pieces.make(ids.map((id) => [id, null]));
  const { painting } = s;
  const painted = painting?.snapshot() ?? [];
  keep(s, { kind: 'merge', left: s.pieces.list(), painted, size: painting?.size ?? 0, origin: s.origin }, [
    was,
    { kind: 'pieces', pieces },
  ]);
  s.origin = null;
  dropUndone(s);
}

/** The body as it was opened. */
function toOrigin(s: Session): void {
  if (s.origin) {
    resetScene(s);
    apply(s, { kind: 'mesh', mesh: s.origin, on: null });
    s.origin = null;
    dropDone(s, firstAgain(s));
  } else toUntouched(s);
}

/** The untouched body with the triangles it has now, which it keeps from here on. */
function toUntouched(s: Session): void {
  s.origin = null;
  // Undo copies hold what stood before each step; where some were dropped, or are of other triangles, the whole body is
  // put back.
  const steps = dropDone(s, firstAgain(s));
  const changes = steps.flatMap(({ before }): readonly (Change | null)[] => before ?? [null]);
  if (changes.every((change) => change !== null && change.kind !== 'mesh')) {
    for (const change of changes.reverse()) if (change) apply(s, change);
  } else if (s.base) {
    resetScene(s);
    const { leafCount } = s.surface.mesh;
    const positions = new Float32Array(leafCount * LEAF * 3);
    positions.set(s.base);
    restore(s.surface, {
      leaves: Uint32Array.from({ length: leafCount }, (_, i) => i),
      positions,
      mask: new Float32Array(leafCount * LEAF),
    });
  }
}

/** What the last step changed, if it was a stroke that moves clay. */
function raisedBy({ done }: Session) {
  const last = done.at(-1);
  if (last?.step.kind !== 'stroke' || last.step.record.brush.action === 'mask') return null;
  const change = last.before?.[0];
  return change?.kind === 'leaves' ? change.leaves : change?.kind === 'mesh' ? change.on : null;
}

/**
 * Runs a step and adds it to what is done. `refines` splits and joins triangles as the stroke did when it was drawn.
 */
function run(s: Session, step: Step, refines = false): Under | null {
  switch (step.kind) {
    case 'edit':
      beginSpan(s.surface, touchesMask(step.edit));
      applyEdit(s.surface, step.edit);
      keep(s, step, spanChanges(s.surface));
      return null;
    case 'stroke': {
      const { surface, targets } = placeOf(s, step.record);
      const r = runWhole(surface, step.record, targets);
      const under = underOf(r, step.record);
      keep(s, step, changesOf(r));
      if (refines && under) refineUnderLast(s, under);
      return under;
    }
    case 'mask-raised': {
      const raised = raisedBy(s);
      beginSpan(s.surface, true);
      if (raised) maskRaised(s.surface, raised);
      keep(s, step, spanChanges(s.surface));
      return null;
    }
    case 'cut':
      beginSpan(s.surface, true);
      if (s.base) healCut(s.surface, s.base);
      keep(s, step, spanChanges(s.surface));
      return null;
    case 'beside':
      keep(s, step, [{ kind: 'beside', text: s.beside }]);
      s.beside = step.beside.after;
      return null;
    case 'layers':
      if (s.painting) keep(s, step, [arranged(s.painting, edited(s.painting.layers, step.edit))]);
      return null;
    case 'size':
      if (s.painting) keep(s, step, [sized(s, s.painting, step.size)]);
      return null;
    case 'pieces':
      keep(s, step, [{ kind: 'pieces', pieces: s.pieces.make(step.changes) }]);
      return null;
    case 'merge':
    case 'level':
    case 'earlier':
      throw new Error('This step is known by what it changed alone, and can’t be run again.');
  }
}
