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
}

export function flagsOf(p: Float32Array, inside: RefineOptions['inside']): Uint8Array {
  const out = new Uint8Array(p.length / 3);
  for (let v = 0; v < out.length; v++) if (inside(p[v * 3]!, p[v * 3 + 1]!, p[v * 3 + 2]!)) out[v] = 1;
  return out;
}

/** Edges longer than the first share of the aim are split, shorter than the second are joined. */
export const LONG = 4 / 3;
export const SHORT = 4 / 5;
