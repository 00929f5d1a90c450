/**
 * Where a mesh's arrays lie in one memory.
 *
 * All arrays of a body are views over a single shared buffer, so that another thread can look at them through the
 * same layout without a copy, and compiled loops work on them in place. Offsets are in bytes, multiples of 16.
 */

/** Vertices of a leaf: a run of neighbours in space, and the unit of undo, bounds and upload. */
export const LEAF = 256;
export const LEAF_SHIFT = 8;

export interface MeshCounts {
  vertexCount: number;
  triangleCount: number;
  /** Entries of all rings together. */
  ringCount: number;
  /** Vertices that triangles of a leaf name in other leaves, all leaves together. */
  strayCount: number;
}

export interface MeshLayout extends MeshCounts {
  leafCount: number;
  /** Leaves rounded up to a power of two: node `leafBase + i` of the box tree is leaf i, node 1 the root. */
  leafBase: number;
  offsets: {
    positions: number;
    normals: number;
    mask: number;
    triangles: number;
    ringStarts: number;
    rings: number;
    leafTriangles: number;
    strayStarts: number;
    strays: number;
    boxes: number;
    order: number;
  };
  bytes: number;
}

/** `at` is the address of the first array. */
export function meshLayout(counts: MeshCounts, at: number): MeshLayout {
  const { vertexCount, triangleCount, ringCount, strayCount } = counts;
  const leafCount = Math.ceil(vertexCount / LEAF);
  let leafBase = 1;
  while (leafBase < leafCount) leafBase *= 2;
  let next = at;
  const allocate = (words: number): number => {
    const offset = next;
    next += Math.ceil((words * 4) / 16) * 16;
    return offset;
  };
  const offsets = {
    positions: allocate(vertexCount * 3),
    normals: allocate(vertexCount * 3),
    mask: allocate(vertexCount),
    triangles: allocate(triangleCount * 3),
    ringStarts: allocate(vertexCount + 1),
    rings: allocate(ringCount),
    leafTriangles: allocate(leafCount + 1),
    strayStarts: allocate(leafCount + 1),
    strays: allocate(strayCount),
    boxes: allocate(leafBase * 2 * 6),
    order: allocate(vertexCount),
  };
  return { ...counts, leafCount, leafBase, offsets, bytes: next - at };
}

/**
 * Memory of a closed or plane-like body of so many vertices while it is sculpted, without undo: six triangles meet in
 * a vertex, so there are twice as many triangles as vertices and seven ring entries a vertex.
 */
export function sculptBytes(vertexCount: number): number {
  const mesh = meshLayout(
    {
      vertexCount,
      triangleCount: vertexCount * 2,
      ringCount: vertexCount * 7,
      strayCount: Math.ceil(vertexCount * 0.3),
    },
    0,
  );
  return mesh.bytes + vertexCount * WORK_BYTES;
}

/** Work lists of a surface that is sculpted, a vertex: touched, u, v, amount, the list to renew, and its mark. */
export const WORK_BYTES = 24;
