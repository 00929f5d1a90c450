/** Where pieces go when a hand moves, sizes, turns or mirrors them. */
import type { Placement } from '#core/scene';
import { cross, dot, length, minus, plus, rotated, scaled, unit, type Vec3 } from '#core/vector';

/** With every axis of a placement changed alike. */
function withAxes(at: Placement, change: (axis: Vec3) => Vec3): Placement {
  return { origin: at.origin, across: change(at.across), forward: change(at.forward), up: change(at.up) };
}

export const resized = (at: Placement, by: number): Placement => withAxes(at, (axis) => scaled(axis, by));

/** About its own up. */
export function turned(at: Placement, byRad: number): Placement {
  const about = unit(at.up);
  return { ...at, across: rotated(at.across, about, byRad), forward: rotated(at.forward, about, byRad) };
}

/**
 * How far it is turned about its up, radians, from where its across would lie along the body's own: anticlockwise as
 * seen from outside.
 */
export function turnOf({ across, forward, up }: Placement): number {
  const about = unit(up);
  const flat = (of: Vec3): Vec3 => minus(of, scaled(about, dot(of, about)));
  const own = flat([1, 0, 0]);
  const from = unit(length(own) > 0.05 ? own : flat([0, 1, 0]));
  const mirrored = dot(cross(across, forward), up) < 0 ? -1 : 1;
  const to = scaled(flat(across), mirrored);
  return Math.atan2(dot(cross(from, to), about), dot(from, to));
}

/** On the other side of the body's middle, left and right. */
export function acrossMiddle(at: Placement): Placement {
  const other = ([x, y, z]: Vec3): Vec3 => [-x, y, z];
  return { ...withAxes(at, other), origin: other(at.origin) };
}

/** Where a piece goes when the one in hand comes to a place of the surface: turned as the surface turns under it. */
export function carried(piece: Placement, lead: Placement, to: Vec3, normal: Vec3): Placement {
  const from = unit(lead.up);
  const axis = cross(from, normal);
  const sin = length(axis);
  const angle = Math.atan2(sin, dot(from, normal));
  const about = sin > 1e-9 ? unit(axis) : unit(lead.across);
  const turn = (of: Vec3): Vec3 => (sin > 1e-9 || angle > 1 ? rotated(of, about, angle) : of);
  return { ...withAxes(piece, turn), origin: plus(to, turn(minus(piece.origin, lead.origin))) };
}

/** A move of space: columns of a 4 × 4 matrix, one behind the other, as three's. */
export type Matrix = readonly number[];

/** Where a piece goes when the space round it is moved, turned or stretched. */
export function transformed(at: Placement, m: Matrix): Placement {
  const change = ([x, y, z]: Vec3): Vec3 => [
    m[0] * x + m[4] * y + m[8] * z,
    m[1] * x + m[5] * y + m[9] * z,
    m[2] * x + m[6] * y + m[10] * z,
  ];
  return { ...withAxes(at, change), origin: plus(change(at.origin), [m[12], m[13], m[14]]) };
}
