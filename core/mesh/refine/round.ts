/** Which triangles stand round each vertex. */

export interface Round {
  of: (vertex: number) => Uint32Array;
}

export function trianglesRound(triangles: Uint32Array, vertices: number): Round {
  const starts = new Uint32Array(vertices + 1);
  for (const v of triangles) starts[v + 1]++;
  for (let v = 0; v < vertices; v++) starts[v + 1] += starts[v];
  const filled = starts.slice();
  const list = new Uint32Array(triangles.length);
  for (let i = 0; i < triangles.length; i++) list[filled[triangles[i]]++] = Math.floor(i / 3);
  return { of: (v) => list.subarray(starts[v], starts[v + 1]) };
}

/** The vertices that faces join to one, each once, into `out`; answers how many. */
export function neighbours(triangles: Uint32Array, round: Round, vertex: number, out: number[]): number {
  let count = 0;
  for (const t of round.of(vertex)) {
    for (let k = 0; k < 3; k++) {
      const v = triangles[t * 3 + k];
      if (v === vertex) continue;
      let i = 0;
      while (i < count && out[i] !== v) i++;
      if (i === count) out[count++] = v;
    }
  }
  return count;
}

/** Whether an edge joins two vertices. */
export function joined(triangles: Uint32Array, round: Round, a: number, b: number): boolean {
  for (const t of round.of(a))
    if (triangles[t * 3] === b || triangles[t * 3 + 1] === b || triangles[t * 3 + 2] === b) return true;
  return false;
}
