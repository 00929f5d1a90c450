/** Joins edges that are too short. */
import { carriedBy, cornersMeet, groupsMeet, seamVertices, type Carried } from '../carried';
import { edgesOf, type Edges } from '../edges';
import { creasesOf, sharpEdges } from '../sharpEdges';
import { neighbours, trianglesRound, type Round } from './round';
import { away, dot, quality, SMOOTH_COS, square, turned, vertexNormals } from './shape';
import { LONG, SHORT, type RefineOptions, type Working } from './working';

/** Joins leave no face thinner than this, of 1 for three equal sides. */
const LEAST_QUALITY = 0.3;

/**
 * Joins short edges that have nothing to do with each other; null when there is none. Looks at edges with an end that
 * is `fresh`: elsewhere nothing changed since they were looked at last. Answers which vertices are fresh then.
 */
export function joinPass(
  w: Working,
  fresh: Uint8Array,
  { edge, sharpCos }: RefineOptions,
): { working: Working; fresh: Uint8Array } | null {
  const { positions: p, triangles } = w;
  const vertices = p.length / 3;
  const edges = edgesOf(triangles, vertices);
  const round = trianglesRound(triangles, vertices);
  // What lies on a seam or at the border of a group stays where it is.
  const fixed = seamVertices(triangles, vertices, w.carried);
  for (let e = 0; e < edges.count; e++)
    if (edges.uses[e] !== 2) fixed[edges.ends[e * 2]] = fixed[edges.ends[e * 2 + 1]] = 1;
  const sharp = sharpCos === undefined ? null : sharpEdges(p, triangles, edges, sharpCos);
  const creases = sharp && creasesOf(edges, sharp, vertices);
  const normals = vertexNormals(p, triangles);
  const into = new Int32Array(vertices).fill(-1);
  const locked = new Uint8Array(vertices);
  const limit = (edge * SHORT) ** 2;
  const looked: Looked = { round, normals, longest: (edge * LONG) ** 2, near: [], other: [] };
  let count = 0;
  for (const e of shortest(w, edges, fresh, limit)) {
    for (const [from, to] of [
      [edges.ends[e * 2], edges.ends[e * 2 + 1]],
      [edges.ends[e * 2 + 1], edges.ends[e * 2]],
    ] as const) {
      // A vertex on a sharp edge goes along it alone, a corner nowhere.
      if (creases?.[from] && (creases[from] !== 2 || !sharp![e])) continue;
      if (fixed[from] || locked[from] || locked[to] || !mayJoin(w, looked, from, to)) continue;
      if (w.carried && !sidesMeet(w, round, from, to)) continue;
      into[from] = to;
      count++;
      // What is touched by one join is left alone by the others of this pass.
      for (const v of [from, to])
        for (const t of round.of(v)) for (let k = 0; k < 3; k++) locked[triangles[t * 3 + k]] = 1;
      break;
    }
  }
  return count > 0 ? { working: without(w, into, count), fresh: locked.filter((_, v) => into[v] < 0) } : null;
}

/** The corner at which a triangle that holds both vertices names the second one. */
function cornersAt(triangles: Uint32Array, round: Round, from: number, to: number): number[] {
  return Array.from(round.of(from)).flatMap((t) =>
    [t * 3, t * 3 + 1, t * 3 + 2].filter((corner) => triangles[corner] === to),
  );
}

/** Whether the triangles that a join takes away carry the same on both sides of its edge. */
function sidesMeet({ triangles, carried }: Working, round: Round, from: number, to: number): boolean {
  const [first, ...others] = cornersAt(triangles, round, from, to);
  return others.every(
    (corner) =>
      cornersMeet(carried!, first, corner) && groupsMeet(carried!, Math.floor(first / 3), Math.floor(corner / 3)),
  );
}

/** Edges under the limit whose both ends may change, the shortest first. */
function shortest(
  { positions: p, within }: Working,
  { count, ends }: Edges,
  fresh: Uint8Array,
  limit: number,
): Uint32Array {
  const found: number[] = [];
  const squares = new Float32Array(count);
  for (let e = 0; e < count; e++) {
    const [a, b] = [ends[e * 2], ends[e * 2 + 1]];
    if (!within[a] || !within[b] || !(fresh[a] || fresh[b])) continue;
    squares[e] = square(p, a, b);
    if (squares[e] < limit) found.push(e);
  }
  return Uint32Array.from(found).sort((e, f) => squares[e] - squares[f]);
}

/** What every join of a pass is judged by, and room for the neighbours of its two ends. */
interface Looked {
  round: Round;
  normals: Float32Array;
  /** Square of the length that no edge may come to. */
  longest: number;
  near: number[];
  other: number[];
}

/** Link condition, lengths, and that no face turns over. */
function mayJoin(
  { positions: p, triangles }: Working,
  { round, normals, longest, near, other }: Looked,
  from: number,
  to: number,
): boolean {
  // A sharp edge stays where it runs.
  if (dot(normals, from, to) < SMOOTH_COS) return false;
  // Most edges are refused for their length, so that is looked at first.
  for (const t of round.of(from)) {
    for (let k = 0; k < 3; k++) {
      const v = triangles[t * 3 + k];
      if (v !== from && square(p, v, to) > longest) return false;
    }
  }
  const nearCount = neighbours(triangles, round, from, near);
  const otherCount = neighbours(triangles, round, to, other);
  let common = 0;
  for (let i = 0; i < nearCount; i++) for (let j = 0; j < otherCount; j++) if (near[i] === other[j]) common++;
  if (common !== 2 || nearCount + otherCount - 4 < 3 || nearCount < 4) return false;
  for (const t of round.of(from)) {
    const [a, b, c] = [triangles[t * 3], triangles[t * 3 + 1], triangles[t * 3 + 2]];
    if (a === to || b === to || c === to) continue;
    const [x, y, z] = [a === from ? to : a, b === from ? to : b, c === from ? to : c];
    if (turned(p, a, b, c, x, y, z) || away(p, x, y, z, normals, to) || away(p, x, y, z, normals, from)) return false;
    if (quality(p, x, y, z) < Math.min(LEAST_QUALITY, quality(p, a, b, c))) return false;
  }
  return true;
}

function without(w: Working, into: Int32Array, count: number): Working {
  const vertices = w.positions.length / 3;
  const place = new Uint32Array(vertices);
  let kept = 0;
  for (let v = 0; v < vertices; v++) if (into[v] < 0) place[v] = kept++;
  for (let v = 0; v < vertices; v++) if (into[v] >= 0) place[v] = place[into[v]];
  const shrunk = (from: Float32Array, words: number): Float32Array => {
    const out = new Float32Array((vertices - count) * words);
    for (let v = 0; v < vertices; v++)
      if (into[v] < 0) for (let k = 0; k < words; k++) out[place[v] * words + k] = from[v * words + k];
    return out;
  };
  const stayed = new Uint32Array(w.triangles.length / 3);
  const triangles = new Uint32Array(w.triangles.length);
  let n = 0;
  for (let t = 0; t < w.triangles.length; t += 3) {
    const [a, b, c] = [place[w.triangles[t]], place[w.triangles[t + 1]], place[w.triangles[t + 2]]];
    if (a === b || b === c || c === a) continue;
    stayed[n / 3] = t / 3;
    triangles[n++] = a;
    triangles[n++] = b;
    triangles[n++] = c;
  }
  const left = <T extends Int32Array | Uint8Array>(from: T): T => from.filter((_, v) => into[v] < 0) as T;
  return {
    positions: shrunk(w.positions, 3),
    places: w.places.map((of) => shrunk(of, 3)),
    values: w.values.map((of) => shrunk(of, 1)),
    triangles: triangles.slice(0, n),
    carried: carriedBy(joinedCarried(w, into), stayed.subarray(0, n / 3)),
    ids: left(w.ids),
    within: left(w.within),
    locked: left(w.locked),
  };
}

/** Corners of vertices that are joined into others take the others’ coordinates. */
function joinedCarried({ triangles, carried, ids }: Working, into: Int32Array): Carried | undefined {
  if (!carried?.coordinates) return carried;
  const from = carried.coordinates;
  const coordinates = from.slice();
  const round = trianglesRound(triangles, ids.length);
  for (let corner = 0; corner < triangles.length; corner++) {
    const to = into[triangles[corner]];
    if (to < 0) continue;
    const [at] = cornersAt(triangles, round, triangles[corner], to);
    coordinates[corner * 2] = from[at * 2];
    coordinates[corner * 2 + 1] = from[at * 2 + 1];
  }
  return { ...carried, coordinates };
}
