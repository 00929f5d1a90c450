/**
 * A mesh cut open along its seams, for formats and cards that know one coordinate a vertex: vertices on a seam are
 * there once for each of their coordinates. Welding joins them again.
 */
import type { RawMesh } from './mesh';

export interface CutOpen {
  positions: Float32Array;
  triangles: Uint32Array;
  /** u, v of each vertex; null where the mesh has none. */
  coordinates: Float32Array | null;
  /** Which vertex each was; null where none was cut. */
  from: Uint32Array | null;
}

export function cutAtSeams({ positions, triangles, carried }: RawMesh): CutOpen {
  const from = carried?.coordinates;
  if (!from) return { positions, triangles, coordinates: null, from: null };
  const vertices = positions.length / 3;
  /** The first copy of each vertex, and the copy behind each copy. */
  const first = new Int32Array(vertices).fill(-1);
  const next: number[] = [];
  const of: number[] = [];
  const coordinates: number[] = [];
  const out = new Uint32Array(triangles.length);
  for (let corner = 0; corner < triangles.length; corner++) {
    const v = triangles[corner];
    const [x, y] = [from[corner * 2], from[corner * 2 + 1]];
    let copy = first[v];
    while (copy >= 0 && (coordinates[copy * 2] !== x || coordinates[copy * 2 + 1] !== y)) copy = next[copy];
    if (copy < 0) {
      copy = of.length;
      of.push(v);
      coordinates.push(x, y);
      next.push(first[v]);
      first[v] = copy;
    }
    out[corner] = copy;
  }
  const cut = new Float32Array(of.length * 3);
  of.forEach((v, i) => cut.set(positions.subarray(v * 3, v * 3 + 3), i * 3));
  return { positions: cut, triangles: out, coordinates: Float32Array.from(coordinates), from: Uint32Array.from(of) };
}
