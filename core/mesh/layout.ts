/**
 * Where a mesh's arrays lie in one buffer.
 *
 * All arrays of a body are views over a single (usually shared) buffer, so that another thread can look at
 * them through the same layout without a copy, and compiled loops can work on them in place.
 * Offsets are in bytes and multiples of 16.
 */

/** Vertices of a leaf: a run of neighbours in space, and the unit of undo, bounds and upload. */
export const LEAF = 256;
export const LEAF_SHIFT = 8;

export interface MeshLayout {
  vertexCount: number;
  triangleCount: number;
  leafCount: number;
  /** Leaves rounded up to a power of two: node `leafBase + i` of the box tree is leaf i, node 1 the root. */
  leafBase: number;
  offsets: {
    positions: number; normals: number; triangles: number; faceNormals: number;
    fanStarts: number; fans: number; leafTriangles: number; boxes: number; order: number;
  };
  bytes: number;
}

export function meshLayout(vertexCount: number, triangleCount: number): MeshLayout {
  const leafCount = Math.ceil(vertexCount / LEAF);
  let leafBase = 1;
  while (leafBase < leafCount) leafBase *= 2;
  let at = 0;
  const take = (words: number): number => {
    const offset = at;
    at += Math.ceil((words * 4) / 16) * 16;
    return offset;
  };
  const offsets = {
    positions: take(vertexCount * 3),
    normals: take(vertexCount * 3),
    triangles: take(triangleCount * 3),
    faceNormals: take(triangleCount * 3),
    fanStarts: take(vertexCount + 1),
    fans: take(triangleCount * 3),
    leafTriangles: take(leafCount + 1),
    boxes: take(leafBase * 2 * 6),
    order: take(vertexCount),
  };
  return { vertexCount, triangleCount, leafCount, leafBase, offsets, bytes: at };
}
