/**
 * Rims of holes, and filling them: rings of new vertices run from the rim to its middle, and are relaxed so that the
 * slope round the hole goes on into it. O(triangles) to find; a hole of n edges gets about n²/6 vertices at most.
 */
import { edgesOf, type Edges, type RawMesh } from '#core/mesh';

export interface Hole {
  /** Vertices round it, so that the missing face would be turned as those round it are. */
  rim: number[];
  /** Of the rim, body units. */
  length: number;
}

/** Longest first. Where two rims touch at a vertex, they are walked as they come. */
export function holesOf({ positions: p, triangles }: RawMesh, edges: Edges = edgesOf(triangles, p.length / 3)): Hole[] {
  // From each vertex of a rim to the next: against the way its triangle walks the edge.
  const next = new Map<number, number[]>();
  for (let corner = 0; corner < triangles.length; corner++) {
    if (edges.uses[edges.ofTriangle[corner]] !== 1) continue;
    const after = triangles[corner % 3 === 2 ? corner - 2 : corner + 1];
    const list = next.get(after);
    if (list) list.push(triangles[corner]);
    else next.set(after, [triangles[corner]]);
  }
  const out: Hole[] = [];
  for (const [first, after] of next) {
    while (after.length > 0) {
      const rim = [first];
      let at = after.pop()!;
      while (at !== first) {
        rim.push(at);
        const on = next.get(at)?.pop();
        if (on === undefined) break;
        at = on;
      }
      if (at === first && rim.length >= 3) out.push({ rim, length: lengthOf(p, rim) });
    }
  }
  return out.sort((a, b) => b.length - a.length);
}

function lengthOf(p: Float32Array, rim: readonly number[]): number {
  return rim.reduce((sum, v, i) => {
    const to = rim[(i + 1) % rim.length];
    return sum + Math.hypot(p[to * 3] - p[v * 3], p[to * 3 + 1] - p[v * 3 + 1], p[to * 3 + 2] - p[v * 3 + 2]);
  }, 0);
}

/** Larger rims are left: rings of them would be a mesh of their own. */
const MOST_RIM = 1500;
const MOST_RINGS = 40;

export interface Filled {
  mesh: RawMesh;
  /** Holes that were filled. */
  count: number;
}

/** Which holes are filled: those whose rim is no longer than this, body units, or those that are chosen. */
export type WhichHoles = { longest: number } | { which: (hole: Hole) => boolean };

export function fillHoles(mesh: RawMesh, chosen: WhichHoles): Filled {
  const which =
    'which' in chosen ? chosen.which : ({ rim, length }: Hole) => length <= chosen.longest && rim.length <= MOST_RIM;
  const holes = holesOf(mesh).filter(which);
  const places = [...holes].reduce((sum, { rim }) => sum + ringsOf(rim) * rim.length + 1, 0);
  const vertices = mesh.positions.length / 3;
  const positions = new Float32Array((vertices + places) * 3);
  positions.set(mesh.positions);
  const colours = mesh.colours && new Uint8Array((vertices + places) * 3);
  colours?.set(mesh.colours!);
  const faces: number[] = [];
  let at = vertices;
  for (const { rim } of holes) at = fillOne({ positions, colours, faces }, rim, at);
  const triangles = new Uint32Array(mesh.triangles.length + faces.length);
  triangles.set(mesh.triangles);
  triangles.set(faces, mesh.triangles.length);
  // What new faces carry isn't known: a filled scan is without coordinates and groups.
  return { mesh: { positions, triangles, ...(colours ? { colours } : {}) }, count: holes.length };
}

const ringsOf = (rim: readonly number[]): number =>
  Math.max(0, Math.min(MOST_RINGS, Math.round(rim.length / (2 * Math.PI)) - 1));

interface Growing {
  positions: Float32Array;
  colours: Uint8Array | undefined;
  faces: number[];
}

/** Answers the number of the next vertex. */
function fillOne({ positions: p, colours, faces }: Growing, rim: readonly number[], first: number): number {
  const n = rim.length;
  const rings = ringsOf(rim);
  const middle = first + rings * n;
  const at = (ring: number, i: number): number => (ring === 0 ? rim[i % n] : first + (ring - 1) * n + (i % n));
  for (let k = 0; k < 3; k++) {
    let sum = 0;
    let tint = 0;
    for (const v of rim) {
      sum += p[v * 3 + k];
      if (colours) tint += colours[v * 3 + k];
    }
    p[middle * 3 + k] = sum / n;
    if (colours) colours[middle * 3 + k] = tint / n;
    for (let ring = 1; ring <= rings; ring++) {
      const share = ring / (rings + 1);
      for (let i = 0; i < n; i++) {
        p[at(ring, i) * 3 + k] = p[rim[i] * 3 + k] + (sum / n - p[rim[i] * 3 + k]) * share;
        if (colours)
          colours[at(ring, i) * 3 + k] = colours[rim[i] * 3 + k] + (tint / n - colours[rim[i] * 3 + k]) * share;
      }
    }
  }
  const begun = faces.length;
  for (let ring = 0; ring < rings; ring++) {
    for (let i = 0; i < n; i++) {
      const [a, b, c, d] = [at(ring, i), at(ring, i + 1), at(ring + 1, i), at(ring + 1, i + 1)];
      faces.push(a, b, d, a, d, c);
    }
  }
  for (let i = 0; i < n; i++) faces.push(at(rings, i), at(rings, i + 1), middle);
  relax(p, faces.slice(begun), first, middle);
  return middle + 1;
}

const ROUNDS = 60;

/** Moves the new vertices to the mean of their neighbours, again and again. */
function relax(p: Float32Array, faces: readonly number[], first: number, last: number): void {
  const round: Set<number>[] = Array.from({ length: last - first + 1 }, () => new Set());
  for (let i = 0; i < faces.length; i += 3) {
    for (let k = 0; k < 3; k++) {
      const v = faces[i + k];
      if (v < first) continue;
      round[v - first].add(faces[i + ((k + 1) % 3)]).add(faces[i + ((k + 2) % 3)]);
    }
  }
  const lists = round.map((set) => [...set]);
  for (let n = 0; n < ROUNDS; n++) {
    lists.forEach((list, i) => {
      for (let k = 0; k < 3; k++) p[(first + i) * 3 + k] = list.reduce((sum, v) => sum + p[v * 3 + k], 0) / list.length;
    });
  }
}
