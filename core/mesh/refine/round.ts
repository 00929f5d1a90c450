/** Which triangles stand round each vertex. */

export interface Round {
  of: (vertex: number) => Uint32Array;
}

export function trianglesRound(triangles: Uint32Array, vertices: number): Round {
  const starts = new Uint32Array(vertices + 1);
  for (const v of triangles) starts[v + 1]!++;
  for (let v = 0; v < vertices; v++) starts[v + 1]! += starts[v]!;
  const filled = starts.slice();
  const list = new Uint32Array(triangles.length);
  for (let i = 0; i < triangles.length; i++) list[filled[triangles[i]!]!++] = Math.floor(i / 3);
  return { of: (v) => list.subarray(starts[v]!, starts[v + 1]!) };
}

export function neighbours(triangles: Uint32Array, round: Round, vertex: number): Set<number> {
  const out = new Set<number>();
  for (const t of round.of(vertex)) for (let k = 0; k < 3; k++) if (triangles[t * 3 + k] !== vertex) out.add(triangles[t * 3 + k]!);
  return out;
}
