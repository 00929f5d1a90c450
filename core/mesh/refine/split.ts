/** Splits edges that are too long, all of a pass at once. */
import { carriedBySplit } from '../carried';
import { edgesOf, type Edges } from '../edges';
import { faceCross } from '../faceCross';
import { dot, SMOOTH_COS, square, TURN_COS, vertexNormals } from './shape';
import { LONG, type RefineOptions, type Working } from './working';

const MOST_TRIES = 4;

/** Share of the way to the tangent planes. */
const ROUND = 0.75;

/** Null when nothing is left to split, or no more may be; 'out' when a split would leave the region. */
export function splitPass(w: Working, { edge, inside, most, sharpCos }: RefineOptions): Working | null | 'out' {
  const { positions: p, triangles, within, locked } = w;
  const vertices = p.length / 3;
  const edges = edgesOf(triangles, vertices);
  const middle = new Int32Array(edges.count).fill(-1);
  const limit = (edge * LONG) ** 2;
  const chosen = new Uint8Array(edges.count);
  for (let e = 0; e < edges.count; e++) {
    const a = edges.ends[e * 2];
    const b = edges.ends[e * 2 + 1];
    if (square(p, a, b) > limit && (within[a] || within[b])) chosen[e] = 1;
  }
  withLongest(chosen, w, edges);
  let added = 0;
  for (let e = 0; e < edges.count; e++) {
    if (!chosen[e]) continue;
    if (locked[edges.ends[e * 2]] || locked[edges.ends[e * 2 + 1]]) return 'out';
    middle[e] = vertices + added++;
  }
  if (added === 0 || triangles.length / 3 + added * 2 > most) return null;
  const out: Working = {
    positions: grown(p, (vertices + added) * 3),
    places: w.places.map((of) => grown(of, (vertices + added) * 3)),
    values: w.values.map((of) => grown(of, vertices + added)),
    triangles: new Uint32Array(triangles.length + added * 6),
    carried: undefined,
    ids: new Int32Array(vertices + added).fill(-1),
    within: new Uint8Array(vertices + added),
    locked: new Uint8Array(vertices + added),
  };
  out.ids.set(w.ids);
  out.within.set(within);
  out.locked.set(locked);
  // Whoever keeps sharp edges pulls the middles back on a surface of their own.
  const flat = edges.uses.map((n) => (n === 2 && sharpCos === undefined ? 0 : 1));
  const parents = new Uint32Array(out.triangles.length / 3);
  const corners = new Uint8Array(out.triangles.length);
  let words = 0;
  // Where a rounded point would turn a face over, it lies straight between its ends instead.
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    placeMiddles(out, w, edges, middle, flat);
    words = splitTriangles(out.triangles, parents, corners, triangles, edges, middle, out.positions);
    if (!flattenTurned(out, words, parents, w, edges, middle, flat)) break;
  }
  out.triangles = out.triangles.slice(0, words);
  out.carried = carriedBySplit(w.carried, parents, corners.subarray(0, words));
  const q = out.positions;
  for (let v = vertices; v < vertices + added; v++)
    out.within[v] = inside(q[v * 3], q[v * 3 + 1], q[v * 3 + 2]) ? 1 : 0;
  return out;
}

/**
 * A triangle that is split at all is split at its longest edge, so that no needles come of it at the dab's rim
 * (M. C. Rivara, "Algorithms for refining triangular grids", 1984).
 */
function withLongest(chosen: Uint8Array, { positions: p, triangles }: Working, { ofTriangle, ends }: Edges): void {
  const length = (e: number): number => square(p, ends[e * 2], ends[e * 2 + 1]);
  for (let more = true; more;) {
    more = false;
    for (let t = 0; t < triangles.length; t += 3) {
      const [e, f, g] = [ofTriangle[t], ofTriangle[t + 1], ofTriangle[t + 2]];
      if (!chosen[e] && !chosen[f] && !chosen[g]) continue;
      const [a, b, c] = [length(e), length(f), length(g)];
      const longest = a >= b && a >= c ? e : b >= c ? f : g;
      if (chosen[longest]) continue;
      chosen[longest] = 1;
      more = true;
    }
  }
}

/** Marks the split edges of triangles that have a child turned over; false when there is none. */
function flattenTurned(
  out: Working,
  words: number,
  parents: Uint32Array,
  w: Working,
  { ofTriangle }: Edges,
  middle: Int32Array,
  flat: Uint8Array,
): boolean {
  let found = false;
  const child = new Float64Array(3);
  const parent = new Float64Array(3);
  for (let i = 0; i < words; i += 3) {
    const t = parents[i / 3] * 3;
    for (let shape = -1; shape < w.places.length; shape++) {
      const [now, was] = shape < 0 ? [out.positions, w.positions] : [out.places[shape], w.places[shape]];
      faceCross(now, out.triangles[i], out.triangles[i + 1], out.triangles[i + 2], child);
      faceCross(was, w.triangles[t], w.triangles[t + 1], w.triangles[t + 2], parent);
      if (
        child[0] * parent[0] + child[1] * parent[1] + child[2] * parent[2] >
        TURN_COS *
          Math.sqrt(
            (child[0] ** 2 + child[1] ** 2 + child[2] ** 2) * (parent[0] ** 2 + parent[1] ** 2 + parent[2] ** 2),
          )
      )
        continue;
      for (let k = 0; k < 3; k++) {
        const e = ofTriangle[t + k];
        if (middle[e] < 0 || flat[e]) continue;
        flat[e] = 1;
        found = true;
      }
    }
  }
  return found;
}

function placeMiddles(out: Working, w: Working, edges: Edges, middle: Int32Array, flat: Uint8Array): void {
  const normals = vertexNormals(w.positions, w.triangles);
  const before = w.places.map((of) => vertexNormals(of, w.triangles));
  for (let e = 0; e < edges.count; e++) {
    const to = middle[e];
    if (to < 0) continue;
    const a = edges.ends[e * 2];
    const b = edges.ends[e * 2 + 1];
    roundMiddle(out.positions, w.positions, normals, a, b, to, flat[e] === 1);
    w.places.forEach((of, i) => roundMiddle(out.places[i], of, before[i], a, b, to, flat[e] === 1));
    w.values.forEach((of, i) => (out.values[i][to] = (of[a] + of[b]) / 2));
  }
}

function roundMiddle(
  out: Float32Array,
  p: Float32Array,
  normals: Float32Array,
  a: number,
  b: number,
  to: number,
  flat: boolean,
): void {
  const middle = [0, 1, 2].map((k) => (p[a * 3 + k] + p[b * 3 + k]) / 2);
  if (flat || dot(normals, a, b) < SMOOTH_COS) {
    for (let k = 0; k < 3; k++) out[to * 3 + k] = middle[k];
    return;
  }
  // How far the middle lies over the tangent plane of each end.
  const over = [a, b].map((v) =>
    [0, 1, 2].reduce((sum, k) => sum + (middle[k] - p[v * 3 + k]) * normals[v * 3 + k], 0),
  );
  for (let k = 0; k < 3; k++)
    out[to * 3 + k] = middle[k] - ROUND * 0.5 * (over[0] * normals[a * 3 + k] + over[1] * normals[b * 3 + k]);
}

/** Each triangle by which of its edges are split; answers how many words were written. */
function splitTriangles(
  out: Uint32Array,
  parents: Uint32Array,
  corners: Uint8Array,
  triangles: Uint32Array,
  { ofTriangle }: Edges,
  middle: Int32Array,
  p: Float32Array,
): number {
  let n = 0;
  let parent = 0;
  /** Vertices at the corners of the parent, then in the middle of its edges. */
  const at = new Int32Array(6);
  const put = (a: number, b: number, c: number): void => {
    parents[n / 3] = parent;
    for (const corner of [a, b, c]) {
      corners[n] = corner;
      out[n++] = at[corner];
    }
  };
  for (let t = 0; t < triangles.length; t += 3, parent++) {
    for (let k = 0; k < 3; k++) {
      at[k] = triangles[t + k];
      at[3 + k] = middle[ofTriangle[t + k]];
    }
    const mid = at.subarray(3);
    const count = (mid[0] >= 0 ? 1 : 0) + (mid[1] >= 0 ? 1 : 0) + (mid[2] >= 0 ? 1 : 0);
    if (count === 0) put(0, 1, 2);
    else if (count === 3) {
      put(0, 3, 5);
      put(3, 1, 4);
      put(5, 4, 2);
      put(3, 4, 5);
    } else {
      // Turned so that the first edge is split, and with two the last isn't.
      const k = count === 1 ? mid.findIndex((m) => m >= 0) : (mid.findIndex((m) => m < 0) + 1) % 3;
      const [a, b, c] = [k, (k + 1) % 3, (k + 2) % 3];
      const m = 3 + k;
      if (count === 1) {
        put(a, m, c);
        put(m, b, c);
      } else {
        const second = 3 + b;
        put(m, b, second);
        // The four corners that are left are cut along the shorter way.
        if (square(p, at[a], at[second]) < square(p, at[m], at[c])) {
          put(a, m, second);
          put(a, second, c);
        } else {
          put(a, m, c);
          put(m, second, c);
        }
      }
    }
  }
  return n;
}

function grown(from: Float32Array, length: number): Float32Array {
  const out = new Float32Array(length);
  out.set(from);
  return out;
}
