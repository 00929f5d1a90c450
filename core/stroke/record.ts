/** A stroke as it is kept: what the hand did, in the body's own space, enough to run it again exactly. */
import type { ResolvedBrush, Vec3 } from '#core/brush';
import type { Ray } from '#core/mesh';
import type { Symmetry } from '#core/settings';

export interface View {
  /** Unit vectors of the view at the press. */
  right: Vec3;
  up: Vec3;
  /** From the body to the eye. */
  toward: Vec3;
}

/** One place of the hand. */
export interface Sample extends Ray {
  /** 0–1; a hand that has no pressure to give presses fully. */
  pressure?: number;
}

export interface StrokeStart {
  brush: ResolvedBrush;
  seed: number;
  dig: boolean;
  symmetry: Symmetry;
  view: View;
}

export interface StrokeRecord extends StrokeStart {
  samples: Sample[];
}

/** Where a ray meets the plane through `point` that faces the eye; null when it runs along it. */
export function onFacingPlane(ray: Ray, point: Vec3, toward: Vec3): Vec3 | null {
  const { origin: o, direction: d } = ray;
  const facing = d[0] * toward[0] + d[1] * toward[1] + d[2] * toward[2];
  if (Math.abs(facing) < 1e-9) return null;
  const t = ((point[0] - o[0]) * toward[0] + (point[1] - o[1]) * toward[1] + (point[2] - o[2]) * toward[2]) / facing;
  return [o[0] + d[0] * t, o[1] + d[1] * t, o[2] + d[2] * t];
}
