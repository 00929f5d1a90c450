/** The edges of a triangle list, each named once, with the triangles on both its sides. */

export interface Edges {
  count: number;
  /** Two vertices of each edge, the lower first. */
  ends: Uint32Array;
  /** Edge opposite each corner's next: edge k of triangle t runs from its corner k to its corner k + 1. */
  ofTriangle: Uint32Array;
  /** Third vertices of the triangles on its two sides; the second is NONE at a border. */
  across: Uint32Array;
  /** How many triangles name the edge. */
  uses: Uint8Array;
}

export const NONE = 0xffffffff;

/** O(n) for meshes whose vertices have few neighbours. */
export function edgesOf(triangles: Uint32Array, vertexCount: number): Edges {
  const corners = triangles.length;
  const starts = new Uint32Array(vertexCount + 1);
  const low = (i: number): number => Math.min(triangles[i], triangles[next(i)]);
  for (let i = 0; i < corners; i++) starts[low(i) + 1]++;
  for (let v = 0; v < vertexCount; v++) starts[v + 1] += starts[v];
  const highs = new Uint32Array(corners);
  const edges = new Uint32Array(corners);
  const filled = new Uint32Array(vertexCount);
  const ends = new Uint32Array(corners * 2);
  const across = new Uint32Array(corners * 2).fill(NONE);
  const uses = new Uint8Array(corners);
  const ofTriangle = new Uint32Array(corners);
  let count = 0;
  for (let i = 0; i < corners; i++) {
    const a = low(i);
    const b = Math.max(triangles[i], triangles[next(i)]);
    const first = starts[a];
    const end = first + filled[a];
    let k = first;
    while (k < end && highs[k] !== b) k++;
    if (k === end) {
      highs[k] = b;
      edges[k] = count;
      ends[count * 2] = a;
      ends[count * 2 + 1] = b;
      count++;
      filled[a]++;
    }
    const edge = edges[k];
    ofTriangle[i] = edge;
    if (uses[edge] < 2) across[edge * 2 + uses[edge]] = triangles[next(next(i))];
    if (uses[edge] < 255) uses[edge]++;
  }
  return {
    count,
    ends: ends.slice(0, count * 2),
    ofTriangle,
    across: across.slice(0, count * 2),
    uses: uses.slice(0, count),
  };
}

/** The corner after this one in its triangle. */
function next(corner: number): number {
  return corner % 3 === 2 ? corner - 2 : corner + 1;
}
