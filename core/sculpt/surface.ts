/** A mesh that is being sculpted: the mesh, its copies, its work lists, and what has changed since it was last drawn. */
import { leafCopies, meanSpacing, type LeafCopies, type Mesh } from '#core/mesh';

export interface Surface {
  mesh: Mesh;
  /** Mean distance from vertex to vertex when the surface was made, body units. */
  spacing: number;
  /** The surface at the beginning of the running stroke. */
  start: LeafCopies;
  /** Strongest displacement so far of each vertex in `start`, for strokes whose overlaps are even. */
  strongest: Float32Array;
  /** Vertices of the running dab and their place in it: u, v, w in radii. Grown to the largest dab. */
  touched: Uint32Array;
  u: Float32Array;
  v: Float32Array;
  w: Float32Array;
  touchedCount: number;
  /** Leaves met by the last query. */
  leaves: Uint32Array;
  nodes: Uint32Array;
  vertexMark: Uint32Array;
  triangleMark: Uint32Array;
  leafMark: Uint32Array;
  triangleList: Uint32Array;
  mark: number;
  /** Leaves whose positions or normals changed since the last drain. */
  changed: Uint32Array;
  changedCount: number;
  isChanged: Uint8Array;
}

export function surface(mesh: Mesh): Surface {
  const work = 1 << 14;
  return {
    mesh,
    spacing: meanSpacing(mesh),
    start: leafCopies(mesh),
    strongest: new Float32Array(16 * 256),
    touched: new Uint32Array(work),
    u: new Float32Array(work),
    v: new Float32Array(work),
    w: new Float32Array(work),
    touchedCount: 0,
    leaves: new Uint32Array(mesh.leafCount),
    nodes: new Uint32Array(mesh.leafCount + 1),
    vertexMark: new Uint32Array(mesh.vertexCount),
    triangleMark: new Uint32Array(mesh.triangleCount),
    leafMark: new Uint32Array(mesh.leafCount),
    triangleList: new Uint32Array(work * 2),
    mark: 0,
    changed: new Uint32Array(mesh.leafCount),
    changedCount: 0,
    isChanged: new Uint8Array(mesh.leafCount),
  };
}

/** Makes room for `count` touched vertices. */
export function reserve(s: Surface, count: number): void {
  if (count <= s.touched.length) return;
  const size = Math.max(count, s.touched.length * 2);
  const touched = new Uint32Array(size);
  touched.set(s.touched);
  s.touched = touched;
  for (const key of ['u', 'v', 'w'] as const) {
    const next = new Float32Array(size);
    next.set(s[key]);
    s[key] = next;
  }
}

/** Leaves changed since the last call, ascending. */
export function drainChanged(s: Surface): Uint32Array {
  const out = s.changed.slice(0, s.changedCount).sort();
  for (let i = 0; i < s.changedCount; i++) s.isChanged[s.changed[i]!] = 0;
  s.changedCount = 0;
  return out;
}
