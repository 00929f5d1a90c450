/**
 * Runs one stroke on a surface as its samples come in.
 *
 * Trail lays dabs as it goes. Press, Grow and Move are one dab that is taken back and laid again with every
 * sample until release. Every dab is laid once for each copy of the symmetry.
 */
import { dabFrame, type DabFrame, type Ground, type ResolvedBrush, type Vec3 } from '#core/brush';
import { faceBefore, pick, pointBefore, type Hit } from '#core/mesh';
import { seeded, type Random } from '#core/random';
import { applyDabs, rewindSpan, type Surface } from '#core/sculpt';
import {
  copiesOf, copyFrame, copyVector, onFacingPlane, scattered, steadied, walk, walkEnd, walkTo, type Copy, type Sample, type Steady, type StrokeStart, type Walk,
  type WalkDab,
} from '#core/stroke';

export interface Runner {
  surface: Surface;
  start: StrokeStart;
  random: Random;
  walk: Walk;
  steady: Steady;
  copies: Copy[];
  /** The surface the stroke began on. */
  ground: Ground;
  /** Where the stroke was pressed. */
  pressed: Hit | null;
  dabs: number;
  touched: number;
  /** The last dab laid, for the cursor and the read-outs. */
  lastFrame: DabFrame | null;
}

export function runner(surface: Surface, start: StrokeStart): Runner {
  const { brush } = start;
  return {
    surface, start, random: seeded(start.seed),
    walk: walk((pressure) => Math.max(brush.spacing * 2 * radiusAt(brush, pressure), brush.radius * 1e-3), brush.turnFromStroke),
    steady: { length: brush.steady * brush.radius, toward: start.view.toward, tip: null },
    copies: copiesOf(start.symmetry),
    ground: {
      face: (triangle) => faceBefore(surface.mesh, triangle, surface.start),
      footing: (triangle, at, reach) => surface.loops.footing(surface, triangle, at, reach),
    },
    pressed: null, dabs: 0, touched: 0, lastFrame: null,
  };
}

export function runSample(r: Runner, sample: Sample): void {
  const { brush } = r.start;
  if (brush.action === 'move') return drag(r, sample);
  switch (brush.strokeType) {
    case 'trail': return trail(r, sample);
    case 'press': return press(r, sample);
    case 'grow': return grow(r, sample);
  }
}

export function runEnd(r: Runner): void {
  const { brush } = r.start;
  if (brush.action !== 'move' && brush.strokeType === 'trail') walkEnd(r.walk, (dab) => trailDab(r, dab));
}

/** Pressure takes size and strength down to their lower limits. */
function radiusAt(brush: ResolvedBrush, pressure: number): number {
  return brush.radius * (brush.sizeLow + (1 - brush.sizeLow) * pressure);
}

function trail(r: Runner, sample: Sample): void {
  const { mesh, start } = r.surface;
  r.pressed ??= pick(mesh, sample);
  const { pressed } = r;
  const drawn = pressed ? steadied(r.steady, sample, [pressed.x, pressed.y, pressed.z]) : sample;
  if (drawn) walkTo(r.walk, mesh, start, drawn, (dab) => trailDab(r, dab));
}

function trailDab(r: Runner, dab: WalkDab): void {
  const { brush, view } = r.start;
  const pressure = dab.sample.pressure ?? 1;
  const radius = radiusAt(brush, pressure);
  if (radius <= 0) return;
  const hit = scattered(r.surface.mesh, dab.hit, brush.scatter * radius, r.random);
  if (!hit) return;
  const along = brush.turnFromStroke && dab.direction ? dab.direction : view.right;
  lay(r, hit, radius, along, [0, 0, 0], pressure);
}

function press(r: Runner, sample: Sample): void {
  takeBack(r);
  const hit = pick(r.surface.mesh, sample);
  if (hit) lay(r, hit, r.start.brush.radius, r.start.view.right, [0, 0, 0], 1);
}

/** A grown stamp smaller than this many vertices across shows nothing. */
const SMALLEST = 2;

function grow(r: Runner, sample: Sample): void {
  takeBack(r);
  r.pressed ??= pick(r.surface.mesh, sample);
  const drawn = dragFrom(r, sample);
  if (!r.pressed || !drawn) return;
  const radius = Math.hypot(drawn[0], drawn[1], drawn[2]);
  if (radius < r.surface.spacing * SMALLEST) return;
  lay(r, r.pressed, radius, drawn, [0, 0, 0], 1);
}

function drag(r: Runner, sample: Sample): void {
  takeBack(r);
  r.pressed ??= pick(r.surface.mesh, sample);
  const by = dragFrom(r, sample);
  if (r.pressed && by) lay(r, r.pressed, r.start.brush.radius, r.start.view.right, by, 1);
}

function dragFrom(r: Runner, sample: Sample): Vec3 | null {
  const { pressed } = r;
  if (!pressed) return null;
  const at = onFacingPlane(sample, [pressed.x, pressed.y, pressed.z], r.start.view.toward);
  return at && [at[0] - pressed.x, at[1] - pressed.y, at[2] - pressed.z];
}

function takeBack(r: Runner): void {
  if (r.dabs === 0) return;
  rewindSpan(r.surface);
  r.dabs = 0;
  r.touched = 0;
}

function lay(r: Runner, hit: Hit, radius: number, along: Vec3, by: Vec3, pressure: number): void {
  const { brush: whole, dig, symmetry, view } = r.start;
  const { mesh, start } = r.surface;
  const brush = whole.strengthLow < 1 && pressure < 1 ? { ...whole, strength: whole.strength * (whole.strengthLow + (1 - whole.strengthLow) * pressure) } : whole;
  const stood = pointBefore(start, mesh, hit);
  const fromStart = brush.action === 'lift' || brush.action === 'mask';
  const frame = dabFrame({
    origin: fromStart ? stood : [hit.x, hit.y, hit.z], stood, triangle: hit.triangle, radius, footing: brush.footing, along, instead: view.up, turnRad: brush.turnRad,
    facing: brush.fromView ? view.toward : null,
  }, r.ground);
  const sign = dig ? -1 : 1;
  const dabs = r.copies.map((copy, i) => (i === 0 ? { frame, by } : { frame: copyFrame(frame, copy, symmetry), by: copyVector(by, copy) }));
  r.touched += applyDabs(r.surface, dabs, brush, sign);
  r.dabs++;
  r.lastFrame = frame;
}
