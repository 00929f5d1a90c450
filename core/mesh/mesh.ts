/** A triangle mesh as flat arrays, ordered so that neighbours in space are neighbours in memory. */
import type { Room } from '#core/memory';
import type { Carried } from './carried';
import type { MeshLayout } from './layout';

export interface MeshArrays extends MeshLayout {
  buffer: SharedArrayBuffer;
  /** x, y, z of each vertex, body units. */
  positions: Float32Array;
  /** Unit normals of the vertices, area-weighted. */
  normals: Float32Array;
  /** 0 takes every dab, 1 none. */
  mask: Float32Array;
  /** Three vertices of each triangle, anticlockwise from outside. */
  triangles: Uint32Array;
  /**
   * Neighbours round vertex v, anticlockwise: rings[ringStarts[v] … ringStarts[v + 1]). Two that follow each other
   * make a triangle with v, unless the second wears RING_BREAK. A closed ring names its first neighbour again.
   */
  ringStarts: Uint32Array;
  rings: Uint32Array;
  /** Triangles of leaf i: leafTriangles[i] … leafTriangles[i + 1]). */
  leafTriangles: Uint32Array;
  /** Vertices of other leaves that the triangles of leaf i name: strays[strayStarts[i] … strayStarts[i + 1]). */
  strayStarts: Uint32Array;
  strays: Uint32Array;
  /** min x, y, z, max x, y, z of each node of the leaf tree. */
  boxes: Float32Array;
  /** Vertex number in the maker's own order, so that files don't depend on ours. */
  order: Uint32Array;
  /** Rays that meet this one first don't meet the mesh. */
  hiddenBy?: MeshArrays;
}

/** A mesh and the memory it lives in; other threads have the arrays alone. */
export interface Mesh extends MeshArrays {
  room: Room;
  /** Beside the shape, by the triangles as they are ordered here. */
  carried?: Carried | undefined;
}

/** Begins another chain of the ring: no triangle between the neighbour before and this one. */
export const RING_BREAK = 0x80000000;
export const RING_VERTEX = 0x7fffffff;

/** Looks at a mesh that lies in `buffer`. No copy. */
export function meshView(buffer: SharedArrayBuffer, layout: MeshLayout): MeshArrays {
  const { vertexCount: v, triangleCount: t, offsets: o } = layout;
  return {
    ...layout,
    buffer,
    positions: new Float32Array(buffer, o.positions, v * 3),
    normals: new Float32Array(buffer, o.normals, v * 3),
    mask: new Float32Array(buffer, o.mask, v),
    triangles: new Uint32Array(buffer, o.triangles, t * 3),
    ringStarts: new Uint32Array(buffer, o.ringStarts, v + 1),
    rings: new Uint32Array(buffer, o.rings, layout.ringCount),
    leafTriangles: new Uint32Array(buffer, o.leafTriangles, layout.leafCount + 1),
    strayStarts: new Uint32Array(buffer, o.strayStarts, layout.leafCount + 1),
    strays: new Uint32Array(buffer, o.strays, layout.strayCount),
    boxes: new Float32Array(buffer, o.boxes, layout.leafBase * 2 * 6),
    order: new Uint32Array(buffer, o.order, v),
  };
}

/** The layout alone, to be sent to another thread. */
export function layoutOf(mesh: MeshArrays): MeshLayout {
  const { vertexCount, triangleCount, ringCount, strayCount, leafCount, leafBase, offsets, bytes } = mesh;
  return { vertexCount, triangleCount, ringCount, strayCount, leafCount, leafBase, offsets, bytes };
}

/** A mesh as its maker gives it. */
export interface RawMesh {
  positions: Float32Array;
  triangles: Uint32Array;
  carried?: Carried | undefined;
  /** Red, green, blue of each vertex, sRGB bytes; of scans alone. */
  colours?: Uint8Array | undefined;
}
