/**
 * The loops a dab is made of. There are two of each: compiled ones that work on the room's memory, and plain twins
 * in TypeScript that say what they do. Both give the same bytes.
 */
import type { DabFrame, ResolvedBrush, Vec3 } from '#core/brush';
import type { Picture } from '#core/picture';
import type { StencilRows } from '#core/stroke';
import type { DabForm } from './height';
import type { Surface } from './surface';

/** Radius of the sphere that holds a dab's whole prism, body units. */
export function gatherReach(frame: DabFrame, square: boolean, reach: number): number {
  const rim = square ? Math.SQRT2 : 1;
  return frame.radius * Math.sqrt(rim * rim + reach * reach);
}

/** A dab is multiplied by base + gain × grey. */
export interface Tones {
  gain: number;
  base: number;
}

/** From u, v of the dab to x = a·u + b·v + c, y = d·u + e·v + f of a picture, in its sides, y down. */
export type FlatMap = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

/** Side of a picture on the body, body units, and its turn. */
export interface WrapMap {
  side: number;
  turnRad: number;
}

export interface Loops {
  /**
   * Mean, weighted by area, of the faces within `reach` of `at` that are turned as the face hit is; as the stroke
   * began.
   */
  footing(s: Surface, triangle: number, at: Vec3, reach: number): Vec3;
  /**
   * Finds the vertices a dab touches: fills `touched`, `u`, `v`, keeps copies of their leaves, returns how many.
   * With `fromStart` places are those at the stroke's beginning.
   */
  gather(s: Surface, frame: DabFrame, brush: ResolvedBrush, fromStart: boolean): number;
  /**
   * Fills `amount` with form × falloff × (1 − mask) of each touched vertex; without a form 1 stands in, unless `masked`
   * the mask is left out.
   */
  weigh(s: Surface, brush: ResolvedBrush, form: DabForm | null, masked: boolean): void;
  /** Multiplies `amount` by a picture that repeats over the dab's plane. */
  repeat(s: Surface, picture: Picture, map: FlatMap, tones: Tones): void;
  /**
   * Multiplies `amount` by a picture that repeats over the body as the stroke found it, blended over its three axes.
   */
  wrap(s: Surface, picture: Picture, map: WrapMap, tones: Tones): void;
  /** Multiplies `amount` by a picture that lies over the view; what is beside it is left alone. */
  stencil(s: Surface, picture: Picture, rows: StencilRows, tones: Tones): void;
  /** Moves along `along` by scale × amount; with `even`, from where the stroke began and only by the strongest dab. */
  push(s: Surface, along: Vec3, scale: number, even: boolean): void;
  /** Moves each vertex along the normal it had when the stroke began; otherwise as `push`. */
  pushOut(s: Surface, scale: number, even: boolean): void;
  /** Moves each vertex along its own normal by scale × amount. */
  inflate(s: Surface, scale: number): void;
  /** Moves along the normal by scale × amount and towards the stroke's line by `together` × v × weight. */
  crease(s: Surface, frame: DabFrame, scale: number, together: number): void;
  /** Mean height of the touched vertices over the frame's origin, weighted by amount. */
  meanHeight(s: Surface, frame: DabFrame): number;
  /**
   * Makes `amount` the move towards the height `to`, times amount × share and no longer than `most`; `from` −1 only for
   * what lies under it, 1 only for what lies over it, 0 for both.
   */
  level(s: Surface, frame: DabFrame, to: number, share: number, most: number, from: -1 | 0 | 1): void;
  /** Moves by `by` × amount. */
  carry(s: Surface, by: Vec3, share: number): void;
  /**
   * Finds the displacements (see `displacementsOf`) of one step towards the mean of the neighbours by amount × share;
   * open borders stay. They stand where u, v and the list were.
   */
  relax(s: Surface, share: number): void;
  /** Applies the displacements that were found. */
  shift(s: Surface): void;
  /**
   * Adds sign × strength × amount to the masks, 0 to 1; with `even`, from where they stood and only the strongest dab.
   */
  paintMask(s: Surface, scale: number, even: boolean): void;
  /**
   * After vertices have moved: normals where touched and one ring round, boxes of the leaves concerned, the list for
   * the view.
   */
  renew(s: Surface, vertices: Uint32Array, count: number): void;
  /**
   * Fits the boxes of the first `count` leaves in the surface's list, and what stands above them; copies of leaves
   * widen them.
   */
  refit(s: Surface, count: number): void;
}
