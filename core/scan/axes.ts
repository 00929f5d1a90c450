/** The axes of a patch's frame, and the frame that lies on a surface. */
import type { Patch } from '#core/settings';
import { cross, unit, type Vec3 } from '#core/vector';

export interface PatchFrame {
  at: Vec3;
  /** Unit vectors: right and up in the picture, out of the surface. */
  right: Vec3;
  up: Vec3;
  out: Vec3;
  /** Body units. */
  side: number;
}

/** Nearer than this to the upright axis, the picture's up is taken from another one. */
const STEEP = 0.94;

/** Up in the picture is up in the world as far as it can be, then turned by `cast.frame.turn`, anticlockwise. */
export function patchFrame({ at, normal, cast }: Pick<Patch, 'at' | 'normal' | 'cast'>): PatchFrame {
  const out = unit([normal.x, normal.y, normal.z]);
  const upright: Vec3 = Math.abs(out[1]) > STEEP ? [0, 0, out[1] > 0 ? -1 : 1] : [0, 1, 0];
  const across = unit(cross(upright, out));
  const along = cross(out, across);
  const turn = (cast.frame.turn * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return {
    at: [at.x, at.y, at.z],
    right: [0, 1, 2].map((k) => across[k] * c + along[k] * s) as unknown as Vec3,
    up: [0, 1, 2].map((k) => along[k] * c - across[k] * s) as unknown as Vec3,
    out,
    side: cast.frame.side,
  };
}
