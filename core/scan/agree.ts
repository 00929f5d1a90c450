/**
 * Which triangles have to be turned so that neighbours agree on what is outside: found by walking from triangle to
 * triangle over edges that two of them share. A component that is closed is turned outward by its volume; one with open
 * rims as most of its area was. O(triangles).
 */
import { edgesOf, type Edges, type RawMesh } from '#core/mesh';

export interface Agreement {
  /** 1 for each triangle to turn. */
  turn: Uint8Array;
  turned: number;
}

export function agree(mesh: RawMesh, edges: Edges = edgesOf(mesh.triangles, mesh.positions.length / 3)): Agreement {
  const { triangles } = mesh;
  const count = triangles.length / 3;
  const turn = new Uint8Array(count);
  const beside = besideEdges(triangles, edges);
  const seen = new Uint8Array(count);
  const stack = new Uint32Array(count);
  let turned = 0;
  for (let first = 0; first < count; first++) {
    if (seen[first]) continue;
    seen[first] = 1;
    let depth = 0;
    let end = 0;
    stack[end++] = first;
    let open = false;
    // The stack is kept whole: it is the list of the component's triangles.
    for (; depth < end; depth++) {
      const t = stack[depth];
      for (let k = 0; k < 3; k++) {
        const corner = t * 3 + k;
        const e = edges.ofTriangle[corner];
        if (edges.uses[e] !== 2) {
          open = true;
          continue;
        }
        const other = beside[e * 2] === corner ? beside[e * 2 + 1] : beside[e * 2];
        const neighbour = Math.floor(other / 3);
        if (seen[neighbour]) continue;
        seen[neighbour] = 1;
        // Two that agree walk their edge in opposite directions.
        const same = triangles[corner] === triangles[other] ? 1 : 0;
        turn[neighbour] = turn[t] ^ same;
        stack[end++] = neighbour;
      }
    }
    const component = stack.subarray(0, end);
    const outward = open ? areaAgreed(mesh, component, turn) >= 0 : volume(mesh, component, turn) >= 0;
    for (const t of component) {
      if (!outward) turn[t] ^= 1;
      turned += turn[t];
    }
  }
  return { turn, turned };
}

/** With every triangle turned as its neighbours are. */
export function agreed(mesh: RawMesh): RawMesh {
  const { turn } = agree(mesh);
  const triangles = mesh.triangles.slice();
  const coordinates = mesh.carried?.coordinates?.slice() ?? null;
  for (let t = 0; t < turn.length; t++) {
    if (!turn[t]) continue;
    [triangles[t * 3 + 1], triangles[t * 3 + 2]] = [triangles[t * 3 + 2], triangles[t * 3 + 1]];
    if (!coordinates) continue;
    for (let k = 0; k < 2; k++) {
      const at = t * 6 + k;
      [coordinates[at + 2], coordinates[at + 4]] = [coordinates[at + 4], coordinates[at + 2]];
    }
  }
  return { ...mesh, triangles, carried: mesh.carried && { ...mesh.carried, coordinates } };
}

/** Two corners at which each edge begins; of edges with more than two users the last ones. */
function besideEdges(triangles: Uint32Array, { count, ofTriangle }: Edges): Uint32Array {
  const out = new Uint32Array(count * 2);
  const filled = new Uint8Array(count);
  for (let corner = 0; corner < triangles.length; corner++) {
    const e = ofTriangle[corner];
    out[e * 2 + filled[e]] = corner;
    filled[e] = 1;
  }
  return out;
}

/** Six times the volume that the triangles, turned as said, close in. */
function volume({ positions: p, triangles }: RawMesh, component: Uint32Array, turn: Uint8Array): number {
  let sum = 0;
  for (const t of component) {
    const a = triangles[t * 3] * 3;
    const b = triangles[t * 3 + 1] * 3;
    const c = triangles[t * 3 + 2] * 3;
    const six =
      p[a] * (p[b + 1] * p[c + 2] - p[b + 2] * p[c + 1]) +
      p[a + 1] * (p[b + 2] * p[c] - p[b] * p[c + 2]) +
      p[a + 2] * (p[b] * p[c + 1] - p[b + 1] * p[c]);
    sum += turn[t] ? -six : six;
  }
  return sum;
}

/** Area that stays as it was less area that is turned. */
function areaAgreed({ positions: p, triangles }: RawMesh, component: Uint32Array, turn: Uint8Array): number {
  let sum = 0;
  for (const t of component) {
    const [a, b, c] = [triangles[t * 3] * 3, triangles[t * 3 + 1] * 3, triangles[t * 3 + 2] * 3];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const area = Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
    sum += turn[t] ? -area : area;
  }
  return sum;
}
