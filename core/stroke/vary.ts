/**
 * What a place on the stroke becomes: dabs with their size and strength (pen, taper, fade) and their drift.
 *
 * Every dab draws the same count of random numbers whatever is set, so that one setting doesn't change another's
 * chance. Drift is even within its limits, both ways. Places vary by the dab even where the rest varies by the stroke.
 */
import type { PenCurve, ResolvedBrush } from '#core/brush';
import { curveAt } from '#core/falloff';
import { faceNormal, pick, type Hit, type Mesh } from '#core/mesh';
import type { Random } from '#core/random';
import { cross, type Vec3 } from '#core/vector';
import type { Sample, Stop, View } from './record';

export interface PlacedDab {
  hit: Hit;
  radius: number;
  /** Share of the brush's strength. */
  strength: number;
  /** Direction that a turn of 0 points to. */
  along: Vec3;
  turnRad: number;
  /** Width over height. */
  squash: number;
  mirrored: boolean;
  /** Where a shuffled dab reads its picture, in sides. */
  shuffle: readonly [number, number];
  /** It stands at an end or a corner of a path. */
  stop: Stop | null;
  /** Length of the stroke so far, body units. */
  travelled: number;
}

/** A place that the walk came to. */
export interface Place {
  hit: Hit;
  /** Unit direction of the stroke; null before it has one. */
  direction: Vec3 | null;
  sample: Sample;
  /** Length of the stroke so far, body units. */
  travelled: number;
}

export interface Variation {
  brush: ResolvedBrush;
  /** Radius before pen, taper and drift. */
  radius: number;
  view: View;
  random: Random;
  /** Whole length of the stroke, once it is known. */
  total: number | null;
  /** What a stroke that varies as a whole drew. */
  drawn: Draw | null;
}

interface Draw {
  size: number;
  turn: number;
  squash: number;
  flip: number;
}

/** Dabs of one step; those that would lie beside the body are left out. */
export function vary(v: Variation, mesh: Mesh, place: Place): PlacedDab[] {
  const { brush, view, random } = v;
  const { drift } = brush;
  const whole = v.radius * sizeShare(v, place);
  const strength = strengthShare(v, place);
  const run = place.direction ?? view.right;
  const along = alongOf(brush, place, view);
  const out: PlacedDab[] = [];
  for (let i = 0; i < drift.count; i++) {
    const ahead = (random() * 2 - 1) * drift.along;
    const aside = (random() * 2 - 1) * drift.across;
    const own: Draw = { size: random(), turn: random(), squash: random(), flip: random() };
    const spun = random();
    const shuffle = [random(), random()] as const;
    v.drawn ??= own;
    const draw = drift.perStroke ? v.drawn : own;
    const least = Math.max(drift.leastSize, 1 - drift.size);
    const radius = whole * (drift.size > 0 ? least + (1 + drift.size - least) * draw.size : 1);
    const hit = ahead === 0 && aside === 0 ? place.hit : beside(mesh, place.hit, run, ahead * whole, aside * whole);
    if (!hit || radius <= 0 || strength <= 0) continue;
    out.push({
      hit,
      radius,
      strength,
      along,
      shuffle,
      stop: place.sample.stop ?? null,
      travelled: place.travelled,
      squash: 1 - drift.squash * draw.squash,
      mirrored: draw.flip < drift.flip,
      turnRad:
        brush.turnRad +
        (draw.turn * 2 - 1) * drift.turnRad +
        (brush.turnFrom === 'random' ? (spun * 2 - 1) * Math.PI : 0),
    });
  }
  return out;
}

/** Distance to the next dab, body units: spacing × the diameter that pen and taper leave. */
export function stepAt(v: Variation, place: Omit<Place, 'hit' | 'direction'>): number {
  return Math.max(v.brush.spacing * 2 * v.radius * sizeShare(v, place), v.radius * LEAST_STEP);
}

/** Share of the radius that a stroke goes on by at least, so that it comes to an end. */
const LEAST_STEP = 0.02;

function sizeShare(v: Variation, { sample, travelled }: Omit<Place, 'hit' | 'direction'>): number {
  const { pen, fast, taper } = v.brush;
  return (
    led(pen.pressureSize, sample.pressure ?? 1) *
    led(pen.speedSize, (sample.speed ?? 0) / fast) *
    tapered(v, travelled, taper.size)
  );
}

function strengthShare(v: Variation, { sample, travelled }: Place): number {
  const { pen, fast, taper, fade } = v.brush;
  const faded = fade > 0 ? Math.max(0, 1 - travelled / (fade * v.radius)) : 1;
  return (
    led(pen.pressureStrength, sample.pressure ?? 1) *
    led(pen.speedStrength, (sample.speed ?? 0) / fast) *
    tapered(v, travelled, taper.strength) *
    faded
  );
}

function led(link: PenCurve | null, x: number): number {
  return link ? link.low + (link.high - link.low) * curveAt(link.curve, Math.max(0, Math.min(1, x))) : 1;
}

/** From `tip` at either end to 1 within the taper's length. */
function tapered({ brush: { taper }, radius, total }: Variation, travelled: number, tip: number): number {
  const into = taper.start > 0 ? Math.min(1, travelled / (taper.start * radius)) : 1;
  const left = taper.end > 0 && total !== null ? Math.min(1, Math.max(0, total - travelled) / (taper.end * radius)) : 1;
  return tip + (1 - tip) * Math.min(into, left);
}

function alongOf(brush: ResolvedBrush, { direction, sample }: Place, view: View): Vec3 {
  switch (brush.turnFrom) {
    case 'stroke':
      return direction ?? view.right;
    case 'lean': {
      if (sample.lean === undefined) return view.right;
      const c = Math.cos(sample.lean);
      const s = Math.sin(sample.lean);
      return [
        view.right[0] * c + view.up[0] * s,
        view.right[1] * c + view.up[1] * s,
        view.right[2] * c + view.up[2] * s,
      ];
    }
    case 'fixed':
    case 'random':
      return view.right;
  }
}

/**
 * The surface beside a hit: `ahead` along the run and `aside` to its left, body units; null when it falls off the body.
 */
function beside(mesh: Mesh, hit: Hit, run: Vec3, ahead: number, aside: number): Hit | null {
  const n = unit(faceNormal(mesh, hit.triangle));
  const left = cross(n, run);
  const b = Math.hypot(...left) > 1e-6 ? unit(left) : unit(cross(n, Math.abs(n[0]) < 0.9 ? [1, 0, 0] : [0, 1, 0]));
  const a = cross(b, n);
  const over = Math.hypot(ahead, aside);
  const to = (k: 0 | 1 | 2, at: number): number => at + a[k] * ahead + b[k] * aside + n[k] * over;
  return pick(mesh, { origin: [to(0, hit.x), to(1, hit.y), to(2, hit.z)], direction: [-n[0], -n[1], -n[2]] });
}

function unit(v: Vec3): Vec3 {
  const length = Math.hypot(v[0], v[1], v[2]);
  return length > 0 ? [v[0] / length, v[1] / length, v[2] / length] : [0, 0, 1];
}
