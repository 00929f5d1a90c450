/** Turns edges of needles to their other corners. */
import { carriedBy, copyOf, cornersMeet, groupsMeet, type Carried } from '../carried';
import { edgesOf } from '../edges';
import { joined, trianglesRound } from './round';
import { away, dot, SMOOTH_COS, vertexNormals, wideOver } from './shape';
import { sharpEdges } from '../sharpEdges';
import type { RefineOptions, Working } from './working';

const MOST_TURNS = 6;

/**
 * Turns edges to the other two corners of their triangles where that makes the thinnest angle wider (Delaunay), so that
 * splits and joins leave no needles behind. Looks at edges between vertices that are `fresh`, and then between those
 * whose faces it turned, which it marks too.
 */
export function turnEdges(w: Working, fresh: Uint8Array, { sharpCos }: Pick<RefineOptions, 'sharpCos'> = {}): Working {
  const { positions: p, within } = w;
  const triangles = w.triangles.slice();
  const carried = copyOf(w.carried);
  const vertices = p.length / 3;
  let looked: Uint8Array = fresh.slice();
  for (let pass = 0; pass < MOST_TURNS; pass++) {
    const near = facesNear(triangles, looked);
    const region = new Uint32Array(near.length * 3);
    near.forEach((t, i) => {
      for (let k = 0; k < 3; k++) region[i * 3 + k] = triangles[t * 3 + k];
    });
    const regionCarried = carried && carriedBy(carried, Uint32Array.from(near));
    const turnedOnes = turnOnce(p, region, looked, within, vertices, regionCarried, sharpCos);
    if (!turnedOnes) break;
    near.forEach((t, i) => {
      for (let k = 0; k < 3; k++) triangles[t * 3 + k] = region[i * 3 + k];
      if (!carried?.coordinates || !regionCarried?.coordinates) return;
      for (let k = 0; k < 6; k++) carried.coordinates[t * 6 + k] = regionCarried.coordinates[i * 6 + k];
    });
    for (let v = 0; v < vertices; v++) fresh[v] |= turnedOnes[v];
    looked = turnedOnes;
  }
  return { ...w, triangles, carried };
}

/**
 * Faces at the vertices looked at, and those round them: enough to know all that is round every corner of the former.
 */
function facesNear(triangles: Uint32Array, looked: Uint8Array): number[] {
  const corners = new Uint8Array(looked.length);
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i], triangles[i + 1], triangles[i + 2]];
    if (looked[a] | looked[b] | looked[c]) corners[a] = corners[b] = corners[c] = 1;
  }
  const out: number[] = [];
  for (let i = 0; i < triangles.length; i += 3)
    if (corners[triangles[i]] | corners[triangles[i + 1]] | corners[triangles[i + 2]]) out.push(i / 3);
  return out;
}

/** Turns edges that have nothing to do with each other, in place; the vertices round them, null when there is none. */
function turnOnce(
  p: Float32Array,
  triangles: Uint32Array,
  looked: Uint8Array,
  within: Uint8Array,
  vertices: number,
  carried: Carried | undefined,
  sharpCos: number | undefined,
): Uint8Array | null {
  const edges = edgesOf(triangles, vertices);
  const sharp = sharpCos === undefined ? null : sharpEdges(p, triangles, edges, sharpCos);
  const round = trianglesRound(triangles, vertices);
  const normals = vertexNormals(p, triangles);
  const sides = new Int32Array(edges.count * 2).fill(-1);
  for (let i = 0; i < triangles.length; i++)
    sides[edges.ofTriangle[i] * 2 + (sides[edges.ofTriangle[i] * 2] === -1 ? 0 : 1)] = i;
  const locked = new Uint8Array(vertices);
  let turns = 0;
  for (let e = 0; e < edges.count; e++) {
    const [from, to] = [edges.ends[e * 2], edges.ends[e * 2 + 1]];
    if (sharp?.[e] || edges.uses[e] !== 2 || !looked[from] || !looked[to] || !within[from] || !within[to]) continue;
    const [i, j] = [sides[e * 2], sides[e * 2 + 1]];
    const a = triangles[i];
    const b = after(triangles, i, 1);
    const c = after(triangles, i, 2);
    const d = after(triangles, j, 2);
    if (locked[a] || locked[b] || locked[c] || locked[d] || dot(normals, a, b) < SMOOTH_COS) continue;
    if (!wideOver(p, a, b, c, d) || joined(triangles, round, c, d)) continue;
    if (looksAway(p, a, d, c, normals) || looksAway(p, d, b, c, normals)) continue;
    if (carried && !turnCarried(carried, triangles, i, j)) continue;
    triangles.set([a, d, c], i - (i % 3));
    triangles.set([d, b, c], j - (j % 3));
    locked[a] = locked[b] = locked[c] = locked[d] = 1;
    turns++;
  }
  return turns > 0 ? locked : null;
}

/**
 * Turns what two triangles carry with their common edge, which begins at corner `i` of one and lies at `j` of the
 * other; false, and nothing happens, when a seam or the border of a group runs along it.
 */
function turnCarried(carried: Carried, triangles: Uint32Array, i: number, j: number): boolean {
  const next = (corner: number, steps: number): number => corner - (corner % 3) + (((corner % 3) + steps) % 3);
  const [otherA, otherB] = triangles[j] === triangles[i] ? [j, next(j, 1)] : [next(j, 1), j];
  if (!cornersMeet(carried, i, otherA) || !cornersMeet(carried, next(i, 1), otherB)) return false;
  if (!groupsMeet(carried, Math.floor(i / 3), Math.floor(j / 3))) return false;
  const { coordinates: c } = carried;
  if (!c) return true;
  const of = (corner: number): [number, number] => [c[corner * 2], c[corner * 2 + 1]];
  const [atA, atB, atC, atD] = [of(i), of(next(i, 1)), of(next(i, 2)), of(next(j, 2))];
  c.set([...atA, ...atD, ...atC], (i - (i % 3)) * 2);
  c.set([...atD, ...atB, ...atC], (j - (j % 3)) * 2);
  return true;
}

function looksAway(p: Float32Array, a: number, b: number, c: number, normals: Float32Array): boolean {
  return away(p, a, b, c, normals, a) || away(p, a, b, c, normals, b) || away(p, a, b, c, normals, c);
}

/** The corner so many after this one in its triangle. */
function after(triangles: Uint32Array, corner: number, steps: number): number {
  const k = corner % 3;
  return triangles[corner - k + ((k + steps) % 3)];
}
