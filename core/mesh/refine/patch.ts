/**
 * The region of a mesh that refining can change: the faces where it may, with rings of others round them. What is
 * done to the region is put back into the whole; the vertices and faces beside it stay as they are. O(n) plain loops
 * over the whole.
 */
import type { RawMesh } from '../mesh';
import { carriedBy, carriedInRow } from '../carried';
import type { Companions, RefineOptions, Working } from './working';

export interface Patch {
  working: Working;
  /** Faces of the whole that are not in the region. */
  rest: Uint32Array;
  /** Their numbers. */
  restFaces: Uint32Array;
}

/** Null when no vertex lies inside. */
export function patchOf(
  { positions, triangles, carried }: RawMesh,
  along: Companions,
  inside: RefineOptions['inside'],
  rings: number,
): Patch | null {
  const vertices = positions.length / 3;
  const within = new Uint8Array(vertices);
  let any = false;
  for (let v = 0; v < vertices; v++) {
    if (!inside(positions[v * 3], positions[v * 3 + 1], positions[v * 3 + 2])) continue;
    within[v] = 1;
    any = true;
  }
  if (!any) return null;
  let reached: Uint8Array = within;
  let faces = facesTouching(triangles, reached);
  for (let ring = 0; ring < rings; ring++) {
    reached = cornersOf(triangles, faces, vertices);
    faces = facesTouching(triangles, reached);
  }
  const inPart = cornersOf(triangles, faces, vertices);
  const ids: number[] = [];
  const place = new Uint32Array(vertices);
  for (let v = 0; v < vertices; v++) {
    if (!inPart[v]) continue;
    place[v] = ids.length;
    ids.push(v);
  }
  const { own, rest, ownFaces, restFaces } = parted(triangles, faces, place);
  const pick = (from: Float32Array, words: number): Float32Array => {
    const out = new Float32Array(ids.length * words);
    ids.forEach((v, i) => {
      for (let k = 0; k < words; k++) out[i * words + k] = from[v * words + k];
    });
    return out;
  };
  return {
    working: {
      positions: pick(positions, 3),
      places: along.places.map((of) => pick(of, 3)),
      values: along.values.map((of) => pick(of, 1)),
      triangles: own,
      carried: carriedBy(carried, ownFaces),
      ids: Int32Array.from(ids),
      within: Uint8Array.from(ids, (v) => within[v]),
      locked: lockedBy(triangles, faces, ids, inPart),
    },
    rest,
    restFaces,
  };
}

/** The whole with the region as it is now. Vertices that are left keep their order, new ones come behind them. */
export function stitched(
  whole: RawMesh,
  along: Companions,
  { rest, restFaces }: Patch,
  done: Working,
): { mesh: RawMesh; along: Companions } {
  const vertices = whole.positions.length / 3;
  // Vertices that no face ever named are not for this to take away.
  const stays = new Uint8Array(vertices).fill(1);
  for (const v of whole.triangles) stays[v] = 0;
  for (const v of rest) stays[v] = 1;
  for (const v of done.ids) if (v >= 0) stays[v] = 1;
  const place = new Int32Array(vertices).fill(-1);
  let count = 0;
  for (let v = 0; v < vertices; v++) if (stays[v]) place[v] = count++;
  const left = count;
  const to = Uint32Array.from(done.ids, (v) => (v >= 0 ? place[v] : count++));
  const spliced = (from: Float32Array, region: Float32Array, words: number): Float32Array => {
    const out = new Float32Array(count * words);
    for (let v = 0; v < vertices; v++)
      if (place[v] >= 0) for (let k = 0; k < words; k++) out[place[v] * words + k] = from[v * words + k];
    for (let i = 0; i < to.length; i++)
      if (to[i] >= left) for (let k = 0; k < words; k++) out[to[i] * words + k] = region[i * words + k];
    return out;
  };
  const triangles = new Uint32Array(rest.length + done.triangles.length);
  for (let i = 0; i < rest.length; i++) triangles[i] = place[rest[i]];
  for (let i = 0; i < done.triangles.length; i++) triangles[rest.length + i] = to[done.triangles[i]];
  return {
    mesh: {
      positions: spliced(whole.positions, done.positions, 3),
      triangles,
      carried: carriedInRow(carriedBy(whole.carried, restFaces), done.carried),
    },
    along: {
      places: along.places.map((of, i) => spliced(of, done.places[i], 3)),
      values: along.values.map((of, i) => spliced(of, done.values[i], 1)),
    },
  };
}

function facesTouching(triangles: Uint32Array, vertices: Uint8Array): Uint8Array {
  const out = new Uint8Array(triangles.length / 3);
  for (let t = 0; t < out.length; t++)
    out[t] = vertices[triangles[t * 3]] | vertices[triangles[t * 3 + 1]] | vertices[triangles[t * 3 + 2]];
  return out;
}

function cornersOf(triangles: Uint32Array, faces: Uint8Array, vertices: number): Uint8Array {
  const out = new Uint8Array(vertices);
  for (let t = 0; t < faces.length; t++)
    if (faces[t]) out[triangles[t * 3]] = out[triangles[t * 3 + 1]] = out[triangles[t * 3 + 2]] = 1;
  return out;
}

function parted(
  triangles: Uint32Array,
  faces: Uint8Array,
  place: Uint32Array,
): { own: Uint32Array; rest: Uint32Array; ownFaces: Uint32Array; restFaces: Uint32Array } {
  let count = 0;
  for (const face of faces) count += face;
  const own = new Uint32Array(count * 3);
  const rest = new Uint32Array(triangles.length - count * 3);
  const ownFaces = new Uint32Array(count);
  const restFaces = new Uint32Array(faces.length - count);
  let [i, j] = [0, 0];
  for (let t = 0; t < faces.length; t++) {
    if (faces[t]) ownFaces[i / 3] = t;
    else restFaces[j / 3] = t;
    for (let k = 0; k < 3; k++) {
      if (faces[t]) own[i++] = place[triangles[t * 3 + k]];
      else rest[j++] = triangles[t * 3 + k];
    }
  }
  return { own, rest, ownFaces, restFaces };
}

/**
 * Vertices that faces beside the region name too, and their neighbours in it: their normals can't be told from the
 * region alone.
 */
function lockedBy(triangles: Uint32Array, faces: Uint8Array, ids: readonly number[], inPart: Uint8Array): Uint8Array {
  const rim = new Uint8Array(inPart.length);
  for (let t = 0; t < faces.length; t++)
    if (!faces[t]) for (let k = 0; k < 3; k++) if (inPart[triangles[t * 3 + k]]) rim[triangles[t * 3 + k]] = 1;
  const locked = rim.slice();
  for (let t = 0; t < faces.length; t++) {
    const [a, b, c] = [triangles[t * 3], triangles[t * 3 + 1], triangles[t * 3 + 2]];
    if (faces[t] && (rim[a] || rim[b] || rim[c])) locked[a] = locked[b] = locked[c] = 1;
  }
  return Uint8Array.from(ids, (v) => locked[v]);
}
