/** A triangle mesh as flat arrays, ordered so that neighbours in space are neighbours in memory. */
import type { MeshLayout } from './layout';

export interface Mesh extends MeshLayout {
  buffer: ArrayBufferLike;
  /** x, y, z of each vertex, body units. */
  positions: Float32Array;
  /** Unit normals of the vertices, area-weighted. */
  normals: Float32Array;
  /** Three vertices of each triangle, anticlockwise from outside. */
  triangles: Uint32Array;
  /** Twice the area times the unit normal of each triangle. */
  faceNormals: Float32Array;
  /** Triangles round vertex v: fans[fanStarts[v] … fanStarts[v + 1]). */
  fanStarts: Uint32Array;
  fans: Uint32Array;
  /** Triangles of leaf i: leafTriangles[i] … leafTriangles[i + 1]). */
  leafTriangles: Uint32Array;
  /** min x, y, z, max x, y, z of each node of the leaf tree. */
  boxes: Float32Array;
  /** Vertex number in the maker's own order, so that files don't depend on ours. */
  order: Uint32Array;
}

/** Looks at a mesh that lies in `buffer`. No copy. */
export function meshView(buffer: ArrayBufferLike, layout: MeshLayout): Mesh {
  const { vertexCount: v, triangleCount: t, offsets: o } = layout;
  return {
    ...layout,
    buffer,
    positions: new Float32Array(buffer, o.positions, v * 3),
    normals: new Float32Array(buffer, o.normals, v * 3),
    triangles: new Uint32Array(buffer, o.triangles, t * 3),
    faceNormals: new Float32Array(buffer, o.faceNormals, t * 3),
    fanStarts: new Uint32Array(buffer, o.fanStarts, v + 1),
    fans: new Uint32Array(buffer, o.fans, t * 3),
    leafTriangles: new Uint32Array(buffer, o.leafTriangles, layout.leafCount + 1),
    boxes: new Float32Array(buffer, o.boxes, layout.leafBase * 2 * 6),
    order: new Uint32Array(buffer, o.order, v),
  };
}

/** A mesh as its maker gives it. */
export interface RawMesh {
  positions: Float32Array;
  triangles: Uint32Array;
}
