/** A mesh while it is refined, and where it may change. */

export interface RefineOptions {
  /** Body units. */
  edge: number;
  /** Whether a point lies where triangles may change. */
  inside: (x: number, y: number, z: number) => boolean;
  /** No more than this many triangles. */
  most: number;
}

export interface Working {
  positions: Float32Array;
  along: Float32Array;
  triangles: Uint32Array;
  /** Which vertex of the whole mesh each one is; −1 for new ones. */
  ids: Int32Array;
  /** Whether triangles may change round each vertex. */
  within: Uint8Array;
  /** Vertices at the rim of the part, whose edges must stay whole. */
  held: Uint8Array;
}

/** Edges longer than the first share of the aim are split, shorter than the second are joined. */
export const LONG = 4 / 3;
export const SHORT = 4 / 5;
