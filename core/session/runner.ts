/**
 * Runs one stroke on a surface as its samples come in.
 *
 * Trail, Linger and Path stamp as they go. Ruler, Press, Grow, Pull and Move are drawn anew with every sample until
 * release. Every dab is stamped once for each copy of the symmetry.
 */
import { dabFrame, type DabFrame, type Ground, type ResolvedBrush, type Vec3 } from '#core/brush';
import { faceBefore, pick, pointBefore, type Hit } from '#core/mesh';
import { seeded } from '#core/random';
import { exhausted } from '#core/settings';
import type { Dab, Surface } from '#core/sculpt';
import {
  copiesOf,
  copyFrame,
  copyStencil,
  copyVector,
  isSound,
  lengthOf,
  onFacingPlane,
  paced,
  restingPlace,
  steadied,
  stepAt,
  straight,
  vary,
  walk,
  walkEnd,
  walkTo,
  type Copy,
  type Pace,
  type Place,
  type PlacedDab,
  type Sample,
  type Steady,
  type StrokeRecord,
  type Variation,
  type Walk,
} from '#core/stroke';

import type { Change } from '#core/timeline';
import { clayTarget } from './clayTarget';
import type { Target } from './target';

export interface Runner {
  /** Where the hand meets the body: what is picked, and how it stood when the stroke began. */
  surface: Surface;
  /** What takes the dabs. */
  targets: readonly Target[];
  record: StrokeRecord;
  variation: Variation;
  walk: Walk;
  steady: Steady;
  pace: Pace;
  copies: Copy[];
  /** The surface the stroke began on. */
  ground: Ground;
  /** Where the stroke was pressed. */
  pressed: Hit | null;
  first: Sample | null;
  /** When a resting hand makes its next dab, ms. */
  due: number | null;
  /** How much longer than asked for a step is, so that dabs meet the ends of a path. */
  stretch: { by: number };
  /** Of every dab stamped, without the symmetry's copies. */
  frames: DabFrame[];
  touched: number;
}

/** Begins a stroke on clay, or on the targets given, which began with it. */
export function runner(
  surface: Surface,
  record: StrokeRecord,
  targets: readonly Target[] = [clayTarget(surface, record.brush)],
): Runner {
  const { brush, scale = 1, view, seed } = record;
  const radius = brush.radius * scale;
  const stretch = { by: 1 };
  const variation: Variation = { brush, radius, view, random: seeded(seed), total: null, drawn: null };
  return {
    surface,
    targets,
    record,
    variation,
    walk: newWalk(variation, stretch),
    stretch,
    copies: copiesOf(record.symmetry),
    steady: { length: brush.steady * radius, toward: view.toward, tip: null },
    pace: { toward: view.toward, at: null, time: 0, speed: 0 },
    ground: {
      face: (triangle) => faceBefore(surface.mesh, triangle, surface.start),
      footing: (triangle, at, reach) => surface.loops.footing(surface, triangle, at, reach),
    },
    pressed: null,
    first: null,
    due: null,
    frames: [],
    touched: 0,
  };
}

/**
 * Takes samples that came together. A sample of a pen that jumped off its tablet is left out. What is drawn anew with
 * every sample is stamped for the last of them alone: the others would be taken back at once.
 */
export function runSamples(r: Runner, samples: readonly Sample[]): void {
  const sound = samples.filter(isSound);
  if (r.walk.meets) return runToStops(r, sound);
  const first = isDrawnAnew(r.record.brush) ? sound.length - 1 : 0;
  sound.forEach((sample, i) => runSample(r, sample, i >= first));
}

/** From stop to stop of a path, with a step that leads from one to the other. */
function runToStops(r: Runner, samples: readonly Sample[]): void {
  const { mesh, start } = r.surface;
  const ends = samples.flatMap(({ stop }, i) => (stop && i > 0 ? [i] : []));
  let first = 0;
  const runs = [...ends, samples.length - 1].map((last) => {
    const run = samples.slice(first, last + 1);
    first = last;
    return { run, length: lengthOf(mesh, start, run) };
  });
  runs.forEach(({ run, length }, i) => {
    r.stretch.by = 1;
    const step = r.walk.stepAt({ sample: run[0], travelled: r.walk.travelled });
    if (length > 0) r.stretch.by = length / (Math.max(1, Math.round(length / step)) * step);
    // The step after the stop is known already.
    if (r.walk.lastHit) r.walk.step = step * r.stretch.by;
    for (const sample of i === 0 ? run : run.slice(1)) runSample(r, sample, true);
  });
}

function runSample(r: Runner, sample: Sample, makesDabs: boolean): void {
  const { brush } = r.record;
  const { mesh } = r.surface;
  if (isDrawnAnew(brush)) restart(r);
  r.pressed ??= pick(mesh, sample);
  const { pressed } = r;
  const hand = pressed ? paced(r.pace, sample, [pressed.x, pressed.y, pressed.z]) : sample;
  r.first ??= hand;
  if (!makesDabs) return;
  if (brush.action === 'move') return drag(r, hand);
  switch (brush.strokeType) {
    case 'trail':
    case 'path':
      return trail(r, hand);
    case 'linger':
      return linger(r, hand);
    case 'ruler':
      return ruler(r, r.first, hand);
    case 'press':
      return press(r, hand);
    case 'grow':
      return grow(r, hand);
    case 'pull':
      return pull(r, hand);
    default:
      return exhausted(brush.strokeType);
  }
}

/** What is left to lay at release. A taper at the end needs the whole length, so the stroke is drawn anew. */
export function runEnd(r: Runner): void {
  const { brush, samples } = r.record;
  if (brush.action === 'move') return;
  if (brush.strokeType === 'ruler') return walkEnd(r.walk, (place) => stampAt(r, place));
  if (brush.strokeType !== 'trail' && brush.strokeType !== 'linger' && brush.strokeType !== 'path') return;
  if (brush.taper.end > 0 && r.variation.total === null) {
    rewind(r);
    const again = runner(r.surface, r.record, r.targets);
    again.variation.total = lengthOf(r.surface.mesh, r.surface.start, drawn(again, samples));
    again.steady.tip = null;
    runSamples(again, samples);
    walkEnd(again.walk, (place) => stampAt(again, place));
    Object.assign(r, { frames: again.frames, touched: again.touched });
    return;
  }
  walkEnd(r.walk, (place) => stampAt(r, place));
}

/** Takes off again everything that was stamped; the stroke goes on. */
export function rewind({ targets }: Runner): void {
  for (const target of targets) target.rewind();
}

/** What brings back what stood before the stroke, once it has ended; empty when it changed nothing. */
export function changesOf({ targets }: Runner): Change[] {
  return targets.flatMap((target) => target.end());
}

/** Runs a whole stroke. */
export function runWhole(surface: Surface, record: StrokeRecord, targets?: readonly Target[]): Runner {
  const r = runner(surface, record, targets);
  runSamples(r, record.samples);
  runEnd(r);
  return r;
}

function isDrawnAnew({ action, strokeType }: ResolvedBrush): boolean {
  return (
    action === 'move' ||
    strokeType === 'ruler' ||
    strokeType === 'press' ||
    strokeType === 'grow' ||
    strokeType === 'pull'
  );
}

function newWalk(variation: Variation, stretch: Runner['stretch']): Walk {
  const { turnFrom, strokeType, toEnds } = variation.brush;
  const meets = strokeType === 'path' && toEnds;
  return walk((place) => stepAt(variation, place) * stretch.by, turnFrom === 'stroke', meets);
}

/** The samples as a steadied hand takes them. */
function drawn(r: Runner, samples: readonly Sample[]): Sample[] {
  return samples.filter(isSound).flatMap((sample) => {
    r.pressed ??= pick(r.surface.mesh, sample);
    const { pressed } = r;
    return (pressed ? steadied(r.steady, sample, [pressed.x, pressed.y, pressed.z]) : sample) ?? [];
  });
}

function trail(r: Runner, sample: Sample): void {
  const { mesh, start } = r.surface;
  const { pressed } = r;
  const taken = pressed ? steadied(r.steady, sample, [pressed.x, pressed.y, pressed.z]) : sample;
  if (taken) walkTo(r.walk, mesh, start, taken, (place) => stampAt(r, place));
}

/** A gap in time longer than this, e.g. a page that was hidden, counts as no longer. */
const LONGEST_REST_MS = 1000;

function linger(r: Runner, sample: Sample): void {
  const time = sample.time ?? 0;
  const every = 1000 / r.record.brush.rate;
  const stamped = r.frames.length;
  trail(r, sample);
  if (r.frames.length > stamped || r.due === null) {
    r.due = time + every;
    return;
  }
  r.due = Math.max(r.due, time - LONGEST_REST_MS);
  for (; r.due <= time; r.due += every) {
    const place = restingPlace(r.walk, r.surface.mesh);
    if (place) stampAt(r, place);
  }
}

function ruler(r: Runner, from: Sample, to: Sample): void {
  const { mesh, start } = r.surface;
  const line = straight(from, to);
  if (r.record.brush.taper.end > 0) r.variation.total = lengthOf(mesh, start, line);
  r.walk = newWalk(r.variation, r.stretch);
  for (const sample of line) walkTo(r.walk, mesh, start, sample, (place) => stampAt(r, place));
}

function press(r: Runner, sample: Sample): void {
  const hit = pick(r.surface.mesh, sample);
  if (hit) stampAt(r, { hit, direction: null, sample, travelled: 0 });
}

/** A grown stamp smaller than this many vertices across shows nothing. */
const SMALLEST = 2;

function grow(r: Runner, sample: Sample): void {
  const by = dragFrom(r, sample);
  if (!r.pressed || !by) return;
  const radius = Math.hypot(by[0], by[1], by[2]);
  if (radius < r.surface.spacing * SMALLEST) return;
  r.variation.radius = radius;
  stampAt(r, { hit: r.pressed, direction: null, sample, travelled: 0 }, { along: by });
}

/** The height of the drag is read along the face's normal as seen; one that looks at the eye is read upwards. */
const SEEN_NORMAL = 0.3;

function pull(r: Runner, sample: Sample): void {
  const by = dragFrom(r, sample);
  if (!r.pressed || !by) return;
  const { toward, up } = r.record.view;
  const n = r.ground.face(r.pressed.triangle);
  const length = Math.hypot(n[0], n[1], n[2]) || 1;
  const facing = dotted(n, toward) / length;
  const flat: Vec3 = [
    n[0] / length - facing * toward[0],
    n[1] / length - facing * toward[1],
    n[2] / length - facing * toward[2],
  ];
  const seen = Math.hypot(flat[0], flat[1], flat[2]);
  const dragged = seen > SEEN_NORMAL ? dotted(by, flat) / (seen * seen) : dotted(by, up);
  const set = r.record.brush.pull;
  const height = set > 0 ? (dragged < 0 ? -set : set) : dragged;
  if (height === 0) return;
  stampAt(r, { hit: r.pressed, direction: null, sample, travelled: 0 }, { height });
}

function drag(r: Runner, sample: Sample): void {
  const by = dragFrom(r, sample);
  if (r.pressed && by) stampAt(r, { hit: r.pressed, direction: null, sample, travelled: 0 }, { by });
}

function dragFrom(r: Runner, sample: Sample): Vec3 | null {
  const { pressed } = r;
  if (!pressed) return null;
  const at = onFacingPlane(sample, [pressed.x, pressed.y, pressed.z], r.record.view.toward);
  return at && [at[0] - pressed.x, at[1] - pressed.y, at[2] - pressed.z];
}

/** The stroke as it was before its first dab, with the same chances ahead. */
function restart(r: Runner): void {
  r.variation.random = seeded(r.record.seed);
  r.variation.drawn = null;
  if (r.frames.length === 0) return;
  rewind(r);
  r.frames = [];
  r.touched = 0;
}

function stampAt(r: Runner, place: Place, hand: { along?: Vec3; by?: Vec3; height?: number } = {}): void {
  for (const dab of vary(r.variation, r.surface.mesh, place)) applyDab(r, dab, hand);
}

function applyDab(r: Runner, placed: PlacedDab, hand: { along?: Vec3; by?: Vec3; height?: number }): void {
  const { brush: whole, dig, symmetry, view, stencil = null } = r.record;
  const { mesh, start } = r.surface;
  const { hit, radius, strength } = placed;
  const brush =
    strength === 1 && hand.height === undefined
      ? whole
      : { ...whole, strength: whole.strength * strength, height: hand.height ?? null };
  const stood = pointBefore(start, mesh, hit);
  const fromStart = brush.action === 'lift' || brush.action === 'mask';
  const round = dabFrame(
    {
      origin: fromStart ? stood : [hit.x, hit.y, hit.z],
      stood,
      triangle: hit.triangle,
      radius,
      footing: brush.footing,
      along: hand.along ?? placed.along,
      instead: view.up,
      turnRad: placed.turnRad,
      facing: brush.mapping === 'view' ? view.toward : null,
    },
    r.ground,
  );
  const frame = shaped(round, placed);
  const dab: Dab = {
    frame,
    triangle: hit.triangle,
    by: hand.by ?? [0, 0, 0],
    along: wayOf(brush, frame, view.toward),
    shuffle: placed.shuffle,
    stencil,
    stop: placed.stop,
    share: strength,
    travelled: placed.travelled,
  };
  const dabs = r.copies.map((copy, i) =>
    i === 0
      ? dab
      : {
          ...dab,
          triangle: null,
          frame: copyFrame(frame, copy, symmetry),
          by: copyVector(dab.by, copy),
          along: dab.along && copyVector(dab.along, copy),
          stencil: stencil && copyStencil(stencil, copy, symmetry),
        },
  );
  for (const target of r.targets) r.touched += target.gather(dabs, dig ? -1 : 1, brush);
  for (const target of r.targets) target.apply();
  r.frames.push(frame);
}

/** A narrowed dab has a longer tangent, a mirrored one a turned one. */
function shaped(frame: DabFrame, { squash, mirrored }: PlacedDab): DabFrame {
  if (squash === 1 && !mirrored) return frame;
  const by = (mirrored ? -1 : 1) / squash;
  const { tangent: t } = frame;
  return { ...frame, tangent: [t[0] * by, t[1] * by, t[2] * by] };
}

/** Axes are taken the way the dab looks, so that Lift always lifts. */
function wayOf(brush: ResolvedBrush, { normal }: DabFrame, toward: Vec3): Vec3 | null {
  switch (brush.direction) {
    case 'dab':
      return normal;
    case 'own':
      return null;
    case 'view':
      return toward;
    case 'x':
      return [normal[0] < 0 ? -1 : 1, 0, 0];
    case 'y':
      return [0, normal[1] < 0 ? -1 : 1, 0];
    case 'z':
      return [0, 0, normal[2] < 0 ? -1 : 1];
  }
}

function dotted(a: Vec3, b: Vec3): number {
  return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
}
