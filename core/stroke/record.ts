/** A stroke as it is kept: what the hand did, in the body's own space, enough to run it again exactly. */
import type { ResolvedBrush, ResolvedPaint, Vec3 } from '#core/brush';
import type { Ray } from '#core/mesh';
import type { Symmetry } from '#core/settings';
import type { StencilRows } from './stencil';

export interface View {
  /** Unit vectors of the view at the press. */
  right: Vec3;
  up: Vec3;
  /** From the body to the eye. */
  toward: Vec3;
}

export type Stop = 'end' | 'corner' | 'join';

/** One place of the hand. */
export interface Sample extends Ray {
  /** 0–1; a hand that has no pressure to give presses fully. */
  pressure?: number;
  /** Milliseconds; only differences count. */
  time?: number;
  /** Where the pen's upper end points, radians anticlockwise from the view's right; a hand that can't lean has none. */
  lean?: number;
  /** Of a path: one of its ends, a corner, or where a closed one comes back to its beginning. */
  stop?: Stop;
  /** Unit way that a dab here looks along the path, where it isn't the way that it came. */
  way?: Vec3;
  /** Body units a second; worked out from place and time. */
  speed?: number;
}

export interface StrokeStart {
  brush: ResolvedBrush;
  seed: number;
  dig: boolean;
  symmetry: Symmetry;
  view: View;
  /** Where the stencil lay; only the mapping Stencil looks at it. */
  stencil?: StencilRows;
  /** Size of this stroke over the brush's own; 1 where it isn't said. */
  scale?: number;
  /**
   * Which of the brush's parts was picked by hand, by its place in the set; the set's own order where it isn't said.
   */
  part?: number;
  /** Pieces that the stroke goes on, by their ids; the body where it isn't said. */
  on?: readonly string[];
  /** The layer that paint goes on, or its mask; the topmost where it isn’t said. */
  layer?: { layer: string; mask: boolean };
  /** Keeps the settings that it was drawn with, whatever its brush becomes. */
  stays?: boolean;
}

/** How triangles are split and joined under a stroke. */
export interface RefineUnder {
  /** Length that edges take, body units. */
  edge: number;
  /** No more than this many triangles. */
  most: number;
}

export interface StrokeRecord extends StrokeStart {
  samples: Sample[];
  /** What was chosen when it was drawn: settings that move leave it. The brush’s own where it isn’t said. */
  colours?: Pick<ResolvedPaint, 'first' | 'second'>;
  /** Triangles are left as they are where it isn't said. */
  refine?: RefineUnder;
}

/** Where a ray meets the plane through `point` that faces the eye; null when it runs along it. */
export function onFacingPlane(ray: Ray, point: Vec3, toward: Vec3): Vec3 | null {
  const { origin: o, direction: d } = ray;
  const facing = d[0] * toward[0] + d[1] * toward[1] + d[2] * toward[2];
  if (Math.abs(facing) < 1e-9) return null;
  const t = ((point[0] - o[0]) * toward[0] + (point[1] - o[1]) * toward[1] + (point[2] - o[2]) * toward[2]) / facing;
  return [o[0] + d[0] * t, o[1] + d[1] * t, o[2] + d[2] * t];
}

/** A sample between two, at the share `t` of the way. */
export function between(a: Sample, b: Sample, t: number): Sample {
  const lerp = (p: Vec3, q: Vec3): Vec3 => [
    p[0] + (q[0] - p[0]) * t,
    p[1] + (q[1] - p[1]) * t,
    p[2] + (q[2] - p[2]) * t,
  ];
  const mix = (p: number | undefined, q: number | undefined, none: number): number =>
    (p ?? none) + ((q ?? none) - (p ?? none)) * t;
  const lean = t < 0.5 ? a.lean : b.lean;
  return {
    origin: lerp(a.origin, b.origin),
    direction: lerp(a.direction, b.direction),
    pressure: mix(a.pressure, b.pressure, 1),
    time: mix(a.time, b.time, 0),
    speed: mix(a.speed, b.speed, 0),
    ...(lean === undefined ? {} : { lean }),
  };
}

/** Whether every number of a sample is one: a pen that jumps off its tablet may send what isn't. */
export function isSound(sample: Sample): boolean {
  return [...sample.origin, ...sample.direction, sample.pressure ?? 1, sample.time ?? 0].every(Number.isFinite);
}
