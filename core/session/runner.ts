/**
 * Runs one stroke on a surface as its samples come in.
 *
 * Trail lays dabs as it goes. Press, Grow and Move are one dab that is taken back and laid again with every
 * sample until release. Every dab is laid once for each mirror copy.
 */
import { dabFrame, mirrored, type DabFrame, type Vec3 } from '#core/brush';
import { pick, type Hit, type Ray } from '#core/mesh';
import { seeded, type Random } from '#core/random';
import { applyDab, rewindSpan, type Surface } from '#core/sculpt';
import { onViewPlane, scattered, walk, walkEnd, walkTo, type StrokeStart, type Walk, type WalkDab } from '#core/stroke';

export interface Runner {
  surface: Surface;
  start: StrokeStart;
  random: Random;
  walk: Walk;
  /** Where a Grow or a Move was pressed. */
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
    walk: walk(Math.max(brush.spacing * 2 * brush.radius, brush.radius * 1e-3), brush.turnFromStroke),
    pressed: null, dabs: 0, touched: 0, lastFrame: null,
  };
}

export function runSample(r: Runner, ray: Ray): void {
  const { brush } = r.start;
  if (brush.action === 'move') return drag(r, ray);
  switch (brush.strokeType) {
    case 'trail': return walkTo(r.walk, r.surface.mesh, r.surface.start, ray, (dab) => trailDab(r, dab));
    case 'press': return press(r, ray);
    case 'grow': return grow(r, ray);
  }
}

export function runEnd(r: Runner): void {
  const { brush } = r.start;
  if (brush.action !== 'move' && brush.strokeType === 'trail') walkEnd(r.walk, (dab) => trailDab(r, dab));
}

function trailDab(r: Runner, dab: WalkDab): void {
  const { brush, view } = r.start;
  const hit = scattered(r.surface.mesh, dab.hit, brush.scatter * brush.radius, r.random);
  if (!hit) return;
  const along = brush.turnFromStroke && dab.direction ? dab.direction : view.right;
  lay(r, hit, brush.radius, along, [0, 0, 0]);
}

function press(r: Runner, ray: Ray): void {
  takeBack(r);
  const hit = pick(r.surface.mesh, ray);
  if (hit) lay(r, hit, r.start.brush.radius, r.start.view.right, [0, 0, 0]);
}

/** A grown stamp smaller than this many vertices across shows nothing. */
const SMALLEST = 2;

function grow(r: Runner, ray: Ray): void {
  takeBack(r);
  r.pressed ??= pick(r.surface.mesh, ray);
  const drawn = dragFrom(r, ray);
  if (!r.pressed || !drawn) return;
  const radius = Math.hypot(drawn[0], drawn[1], drawn[2]);
  if (radius < r.surface.spacing * SMALLEST) return;
  lay(r, r.pressed, radius, drawn, [0, 0, 0]);
}

function drag(r: Runner, ray: Ray): void {
  takeBack(r);
  r.pressed ??= pick(r.surface.mesh, ray);
  const by = dragFrom(r, ray);
  if (r.pressed && by) lay(r, r.pressed, r.start.brush.radius, r.start.view.right, by);
}

function dragFrom(r: Runner, ray: Ray): Vec3 | null {
  const { pressed } = r;
  if (!pressed) return null;
  const at = onViewPlane(ray, [pressed.x, pressed.y, pressed.z], r.start.view.toward);
  return at && [at[0] - pressed.x, at[1] - pressed.y, at[2] - pressed.z];
}

function takeBack(r: Runner): void {
  if (r.dabs === 0) return;
  rewindSpan(r.surface);
  r.dabs = 0;
  r.touched = 0;
}

function lay(r: Runner, hit: Hit, radius: number, along: Vec3, by: Vec3): void {
  const { brush, dig, mirrorX, mirrorY, view } = r.start;
  const { mesh, leaves } = r.surface;
  const sign = dig ? -1 : 1;
  const frame = dabFrame(mesh, {
    hit, radius, footing: brush.footing, along, instead: view.up, turnRad: brush.turnRad, fromStart: brush.action === 'lift',
    facing: brush.fromView ? view.toward : null,
  }, leaves, r.surface.start);
  const one = (x: boolean, y: boolean): void => {
    const at = x || y ? mirrored(frame, x, y) : frame;
    r.touched += applyDab(r.surface, at, brush, { sign, by: [x ? -by[0] : by[0], y ? -by[1] : by[1], by[2]] });
  };
  one(false, false);
  if (mirrorX) one(true, false);
  if (mirrorY) one(false, true);
  if (mirrorX && mirrorY) one(true, true);
  r.dabs++;
  r.lastFrame = frame;
}
