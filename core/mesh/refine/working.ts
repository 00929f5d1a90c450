/** A mesh while it is refined, and where it may change. */
import type { Carried } from '../carried';

export interface RefineOptions {
  /** Body units. */
  edge: number;
  /** Whether a point lies where triangles may change. */
  inside: (x: number, y: number, z: number) => boolean;
  /** No more than this many triangles. */
  most: number;
  /**
   * Cosine of the angle from which an edge is sharp: corners and edges stay then, however coarse it gets, and new
   * points lie straight between their ends.
   */
  sharpCos?: number;
}

/** What goes along with the vertices. */
export interface Companions {
  /** Points, x, y, z a vertex, e.g. where they stood before the strokes; new ones follow the curvature as the mesh. */
  places: readonly Float32Array[];
  /** Numbers, one a vertex, e.g. masks; new ones lie halfway between their neighbours’. */
  values: readonly Float32Array[];
}

export interface Working extends Companions {
  positions: Float32Array;
  triangles: Uint32Array;
  carried: Carried | undefined;
  /** Which vertex of the whole mesh each one is; −1 for new ones. */
  ids: Int32Array;
  /** Whether triangles may change round each vertex. */
  within: Uint8Array;
  /** Vertices at the rim of the region, whose edges must stay whole. */
  locked: Uint8Array;
}

/** Edges longer than the first share of the aim are split, shorter than the second are joined. */
export const LONG = 4 / 3;
export const SHORT = 4 / 5;
