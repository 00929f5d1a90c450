/**
 * What a mesh carries beside its shape. It hangs on triangles and their corners, not on vertices, so that one vertex
 * may have several texture coordinates: where those of two triangles differ at a vertex they share, a seam runs.
 */

export interface Carried {
  /** u, v of each corner of each triangle, six numbers a triangle; null where the mesh has none. */
  coordinates: Float32Array | null;
  /** The number of the name of each triangle’s group; null where all are one. */
  groups: Groups | null;
}

export interface Groups {
  names: readonly string[];
  of: Uint16Array;
}

/** Where a corner of a split triangle lies: at corner 0, 1 or 2 of the whole, or 3 + k in the middle of k and k + 1. */
export type SplitCorner = 0 | 1 | 2 | 3 | 4 | 5;

export function copyOf(carried: Carried | undefined): Carried | undefined {
  return carried && { coordinates: carried.coordinates && carried.coordinates.slice(), groups: carried.groups };
}

/** What the triangles `from` of a mesh carry, in that order. */
export function carriedBy(carried: Carried | undefined, from: Uint32Array): Carried | undefined {
  if (!carried) return undefined;
  const { coordinates: c, groups } = carried;
  let coordinates: Float32Array | null = null;
  if (c) {
    coordinates = new Float32Array(from.length * 6);
    for (let i = 0; i < from.length; i++) for (let k = 0; k < 6; k++) coordinates[i * 6 + k] = c[from[i] * 6 + k];
  }
  return { coordinates, groups: groups && { names: groups.names, of: groupsOf(groups.of, from) } };
}

function groupsOf(of: Uint16Array, from: Uint32Array): Uint16Array {
  const out = new Uint16Array(from.length);
  for (let i = 0; i < from.length; i++) out[i] = of[from[i]];
  return out;
}

/**
 * What the triangles of a split carry: triangle i of them lies in triangle `parents[i]` of the whole, its corners at
 * `corners`. Coordinates run straight across a triangle, so a seam stays where it is.
 */
export function carriedBySplit(
  carried: Carried | undefined,
  parents: Uint32Array,
  corners: Uint8Array,
): Carried | undefined {
  if (!carried) return undefined;
  const { coordinates: c, groups } = carried;
  const count = corners.length / 3;
  let coordinates: Float32Array | null = null;
  if (c) {
    coordinates = new Float32Array(count * 6);
    for (let i = 0; i < corners.length; i++) {
      const parent = parents[Math.floor(i / 3)] * 6;
      const at = corners[i];
      const [a, b] = at < 3 ? [at, at] : [at - 3, (at - 2) % 3];
      for (let k = 0; k < 2; k++) {
        const [from, to] = [c[parent + a * 2 + k], c[parent + b * 2 + k]];
        coordinates[i * 2 + k] = a === b ? from : (from + to) / 2;
      }
    }
  }
  return {
    coordinates,
    groups: groups && { names: groups.names, of: groupsOf(groups.of, parents.subarray(0, count)) },
  };
}

/** What two runs of triangles carry, one behind the other. Both carry the same kinds of things. */
export function carriedInRow(first: Carried | undefined, second: Carried | undefined): Carried | undefined {
  if (!first || !second) return undefined;
  return {
    coordinates: first.coordinates && second.coordinates && rowOf(first.coordinates, second.coordinates),
    groups: first.groups &&
      second.groups && { names: first.groups.names, of: rowOf(first.groups.of, second.groups.of) },
  };
}

function rowOf<T extends Float32Array | Uint16Array>(a: T, b: T): T {
  const out = new (a.constructor as new (length: number) => T)(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
}

/** Whether two corners (3 × triangle + 0, 1 or 2) have the same coordinates. */
export function cornersMeet({ coordinates: c }: Carried, a: number, b: number): boolean {
  return !c || (c[a * 2] === c[b * 2] && c[a * 2 + 1] === c[b * 2 + 1]);
}

/** Whether two triangles are of one group. */
export function groupsMeet({ groups }: Carried, a: number, b: number): boolean {
  return !groups || groups.of[a] === groups.of[b];
}

/** Vertices that a seam, or the border between two groups, runs through: 1 for those. */
export function seamVertices(triangles: Uint32Array, vertices: number, carried: Carried | undefined): Uint8Array {
  const out = new Uint8Array(vertices);
  if (!carried) return out;
  const met = new Int32Array(vertices).fill(-1);
  for (let corner = 0; corner < triangles.length; corner++) {
    const v = triangles[corner];
    const first = met[v];
    if (first < 0) met[v] = corner;
    else if (
      !cornersMeet(carried, first, corner) ||
      !groupsMeet(carried, Math.floor(first / 3), Math.floor(corner / 3))
    )
      out[v] = 1;
  }
  return out;
}

/** Throws when what is carried doesn’t fit so many triangles, or a coordinate isn’t finite. */
export function checkCarried({ coordinates, groups }: Carried, triangles: number): void {
  if (coordinates && coordinates.length !== triangles * 6)
    throw new Error(`Expected ${triangles * 6} texture coordinates, found ${coordinates.length}.`);
  const broken = coordinates?.findIndex((x) => x - x !== 0) ?? -1;
  if (broken >= 0)
    throw new Error(`A texture coordinate of triangle ${Math.floor(broken / 6)} of ${triangles} is not a number.`);
  if (!groups) return;
  if (groups.of.length !== triangles)
    throw new Error(`Expected groups of ${triangles} triangles, found ${groups.of.length}.`);
  const strange = groups.of.findIndex((g) => g >= groups.names.length);
  if (strange >= 0) throw new Error(`Triangle ${strange} is of group ${groups.of[strange]} of ${groups.names.length}.`);
}
