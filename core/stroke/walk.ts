/**
 * Walks a trail: turns the places a pointer went through into dabs at even distances along the surface.
 *
 * Works one sample at a time and keeps its own place, so the dabs don't depend on how samples are grouped.
 * Between two samples the ray is interpolated and the surface asked again, so dabs lie on the surface and not
 * on a chord through it. A sample that misses the surface breaks the line; the next hit begins a new one.
 */
import { pick, pointBefore, type Hit, type LeafCopies, type Mesh } from '#core/mesh';
import type { Vec3 } from '#core/brush';
import type { Sample } from './record';

export interface WalkDab {
  hit: Hit;
  /** Unit direction of the stroke; null before it has one. */
  direction: Vec3 | null;
  sample: Sample;
}

export interface Walk {
  /** Body units from a dab of the given pressure to the next. */
  stepAt: (pressure: number) => number;
  /** The step after the last dab. */
  step: number;
  /** A stroke that turns with its own direction waits for one before its first dab. */
  waits: boolean;
  lastHit: Hit | null;
  /** Where the last hit lay on the surface the stroke began on; distances are taken there. */
  lastPoint: Vec3;
  last: Sample | null;
  /** Distance since the last dab; null when the line has no dab yet. */
  since: number | null;
}

export function walk(stepAt: (pressure: number) => number, waits: boolean): Walk {
  return { stepAt, step: stepAt(1), waits, lastHit: null, lastPoint: [0, 0, 0], last: null, since: null };
}

/** A hand that rests for this share of a step has no direction yet. */
const RESTING = 0.1;

/** Takes one sample; `emit` is called for each dab, and may change the surface before the next is placed. */
export function walkTo(state: Walk, mesh: Mesh, before: LeafCopies, sample: Sample, emit: (dab: WalkDab) => void): void {
  const hit = pick(mesh, sample);
  if (!hit) {
    state.lastHit = null;
    state.last = null;
    state.since = null;
    return;
  }
  const point = pointBefore(before, mesh, hit);
  const { lastHit, lastPoint, last } = state;
  if (!lastHit || !last) {
    state.lastHit = hit;
    state.lastPoint = point;
    state.last = sample;
    state.since = null;
    state.step = state.stepAt(sample.pressure ?? 1);
    if (!state.waits) {
      state.since = 0;
      emit({ hit, direction: null, sample });
    }
    return;
  }
  const length = Math.hypot(point[0] - lastPoint[0], point[1] - lastPoint[1], point[2] - lastPoint[2]);
  if (length === 0 || (state.since === null && length < state.step * RESTING)) return;
  const direction: Vec3 = [(point[0] - lastPoint[0]) / length, (point[1] - lastPoint[1]) / length, (point[2] - lastPoint[2]) / length];
  if (state.since === null) {
    emit({ hit: lastHit, direction, sample: last });
    state.since = 0;
  }
  let dab = -state.since;
  for (;;) {
    const at = dab + state.step;
    if (at > length) break;
    dab = at;
    const between = mix(last, sample, at / length);
    state.step = state.stepAt(between.pressure ?? 1);
    const place = pick(mesh, between);
    if (place) emit({ hit: place, direction, sample: between });
  }
  state.since = length - dab;
  state.lastHit = hit;
  state.lastPoint = point;
  state.last = sample;
}

/** A press that never found a direction still leaves its one dab at release. */
export function walkEnd(state: Walk, emit: (dab: WalkDab) => void): void {
  if (state.waits && state.since === null && state.lastHit && state.last) {
    emit({ hit: state.lastHit, direction: null, sample: state.last });
  }
}

function mix(a: Sample, b: Sample, t: number): Sample {
  const lerp = (p: Vec3, q: Vec3): Vec3 => [p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t];
  const pressure = (a.pressure ?? 1) + ((b.pressure ?? 1) - (a.pressure ?? 1)) * t;
  return { origin: lerp(a.origin, b.origin), direction: lerp(a.direction, b.direction), pressure };
}
