/** Turns edges of needles to their other corners. */
import { edgesOf } from '../edges';
import { neighbours, trianglesRound } from './round';
import { angle, away, dot, SMOOTH_COS, vertexNormals } from './shape';
import { flagsOf, type RefineOptions, type Working } from './working';

const MOST_TURNS = 6;

/**
 * Turns edges to the other two corners of their triangles where that makes the thinnest angle wider (Delaunay), so that
 * splits and joins leave no needles behind.
 */
export function turnEdges(w: Working, { inside }: RefineOptions): Working {
  const { positions: p } = w;
  const triangles = w.triangles.slice();
  const vertices = p.length / 3;
  const within = flagsOf(p, inside);
  for (let pass = 0; pass < MOST_TURNS; pass++) {
    const edges = edgesOf(triangles, vertices);
    const round = trianglesRound(triangles, vertices);
    const normals = vertexNormals(p, triangles);
    const sides = new Int32Array(edges.count * 2).fill(-1);
    for (let i = 0; i < triangles.length; i++) sides[edges.ofTriangle[i]! * 2 + (sides[edges.ofTriangle[i]! * 2] === -1 ? 0 : 1)] = i;
    const locked = new Uint8Array(vertices);
    let turns = 0;
    for (let e = 0; e < edges.count; e++) {
      if (edges.uses[e] !== 2) continue;
      const [i, j] = [sides[e * 2]!, sides[e * 2 + 1]!];
      const [a, b, c] = fromCorner(triangles, i);
      const d = fromCorner(triangles, j)[2];
      if (locked[a] || locked[b] || locked[c] || locked[d] || !within[a] || !within[b] || dot(normals, a, b) < SMOOTH_COS) continue;
      if (angle(p, c, a, b) + angle(p, d, a, b) < Math.PI + 1e-3 || neighbours(triangles, round, c).has(d)) continue;
      if ([[a, d, c], [d, b, c]].some((face) => face.some((v) => away(p, face as [number, number, number], normals, v)))) continue;
      triangles.set([a, d, c], i - (i % 3));
      triangles.set([d, b, c], j - (j % 3));
      for (const v of [a, b, c, d]) locked[v] = 1;
      turns++;
    }
    if (turns === 0) break;
  }
  return { ...w, triangles };
}

/** A triangle's corners, begun with this one. */
function fromCorner(triangles: Uint32Array, corner: number): [number, number, number] {
  const t = corner - (corner % 3);
  const k = corner % 3;
  return [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!, triangles[t + ((k + 2) % 3)]!];
}
