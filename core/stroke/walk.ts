/**
 * Walks a trail: turns the places a pointer went through into dabs at even distances along the surface.
 *
 * Works one sample at a time and keeps its own place, so the dabs don't depend on how samples are grouped.
 * Between two samples the ray is interpolated and the surface asked again, so dabs lie on the surface and not
 * on a chord through it. A sample that misses the surface breaks the line; the next hit begins a new one.
 */
import { pick, pointBefore, type Hit, type LeafCopies, type Mesh } from '#core/mesh';
import type { Vec3 } from '#core/brush';
import { between, type Sample } from './record';
import type { Place } from './vary';

/** Body units from the dab at a sample to the next. */
export type StepAt = (place: { sample: Sample; travelled: number }) => number;

export interface Walk {
  stepAt: StepAt;
  /** The step after the last dab. */
  step: number;
  /** A stroke that turns with its own direction waits for one before its first dab. */
  waits: boolean;
  /** Its dabs meet the ends and corners of a path. */
  meets: boolean;
  lastHit: Hit | null;
  /** Where the last hit lay on the surface the stroke began on; distances are taken there. */
  lastPoint: Vec3;
  last: Sample | null;
  /** Distance since the last dab; null when the line has no dab yet. */
  since: number | null;
  direction: Vec3 | null;
  /** Length of the line so far, without what was drawn beside the body. */
  travelled: number;
}

export function walk(stepAt: StepAt, waits: boolean, meets = false): Walk {
  return {
    stepAt,
    step: 0,
    waits,
    meets,
    lastHit: null,
    lastPoint: [0, 0, 0],
    last: null,
    since: null,
    direction: null,
    travelled: 0,
  };
}

/** A hand that rests for this share of a step has no direction yet. */
const RESTING = 0.1;
/** Share of a step before a stop that is left free. */
const BEFORE_STOP = 0.3;
/** Dabs between two samples, at most: a pen that jumps lays a line, not a long wait. */
const MOST_DABS = 4000;

/** Takes one sample; `emit` is called for each dab, and may change the surface before the next is placed. */
export function walkTo(
  state: Walk,
  mesh: Mesh,
  before: LeafCopies,
  sample: Sample,
  emit: (place: Place) => void,
): void {
  const hit = pick(mesh, sample);
  if (!hit) {
    state.lastHit = null;
    state.last = null;
    state.since = null;
    return;
  }
  const point = pointBefore(before, mesh, hit);
  const { lastHit, lastPoint, last } = state;
  const { travelled } = state;
  if (!lastHit || !last) {
    state.lastHit = hit;
    state.lastPoint = point;
    state.last = sample;
    state.since = null;
    state.step = state.stepAt({ sample, travelled });
    if (!state.waits) {
      state.since = 0;
      emit({ hit, direction: null, sample, travelled });
    }
    return;
  }
  const length = Math.hypot(point[0] - lastPoint[0], point[1] - lastPoint[1], point[2] - lastPoint[2]);
  if (length === 0 || (state.since === null && length < state.step * RESTING)) return;
  const direction: Vec3 = [
    (point[0] - lastPoint[0]) / length,
    (point[1] - lastPoint[1]) / length,
    (point[2] - lastPoint[2]) / length,
  ];
  state.direction = direction;
  if (state.since === null) {
    emit({ hit: lastHit, direction: last.way ?? direction, sample: last, travelled });
    state.since = 0;
  }
  const stops = state.meets && sample.stop !== undefined;
  // The dab at a stop is its own: none comes right before it.
  const end = stops ? length - state.step * BEFORE_STOP : length * (1 + 1e-9);
  let dab = -state.since;
  for (let n = 0; n < MOST_DABS; n++) {
    const at = dab + state.step;
    // Rounding doesn't cost a stroke its last dab.
    if (at > end) break;
    dab = at;
    const there = between(last, sample, at / length);
    state.step = state.stepAt({ sample: there, travelled: travelled + at });
    const place = pick(mesh, there);
    if (place) emit({ hit: place, direction, sample: there, travelled: travelled + at });
  }
  state.since = Math.max(0, Math.min(length - dab, state.step));
  if (stops) {
    // A closed path has its dab there already.
    if (sample.stop !== 'join')
      emit({ hit, direction: sample.way ?? direction, sample, travelled: travelled + length });
    state.since = 0;
  }
  state.lastHit = hit;
  state.lastPoint = point;
  state.last = sample;
  state.travelled = travelled + length;
}

/** A press that never found a direction still leaves its one dab at release. */
export function walkEnd(state: Walk, emit: (place: Place) => void): void {
  if (state.waits && state.since === null && state.lastHit && state.last) {
    emit({ hit: state.lastHit, direction: null, sample: state.last, travelled: state.travelled });
  }
}

/** Where a hand that rests lays its next dab; null beside the body or before the stroke has begun. */
export function restingPlace(state: Walk, mesh: Mesh): Place | null {
  const { last, direction, travelled } = state;
  const hit = last && state.since !== null ? pick(mesh, last) : null;
  return last && hit && { hit, direction, sample: last, travelled };
}

/** Length of the line through the samples on the surface as it stands. */
export function lengthOf(mesh: Mesh, before: LeafCopies, samples: readonly Sample[]): number {
  const state = walk(() => Infinity, false);
  for (const sample of samples) walkTo(state, mesh, before, sample, () => undefined);
  return state.travelled;
}
