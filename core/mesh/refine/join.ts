/** Joins edges that are too short. */
import { edgesOf } from '../edges';
import { neighbours, trianglesRound, type Round } from './round';
import { away, dot, quality, SMOOTH_COS, square, turned, vertexNormals } from './shape';
import { flagsOf, LONG, SHORT, type RefineOptions, type Working } from './working';

/** Joins leave no face thinner than this, of 1 for three equal sides. */
const LEAST_QUALITY = 0.3;

/** Joins short edges that have nothing to do with each other; null when there is none. */
export function joinPass(w: Working, { edge, inside }: RefineOptions): Working | null {
  const { positions: p, triangles } = w;
  const vertices = p.length / 3;
  const edges = edgesOf(triangles, vertices);
  const round = trianglesRound(triangles, vertices);
  const fixed = new Uint8Array(vertices);
  for (let e = 0; e < edges.count; e++) if (edges.uses[e] !== 2) fixed[edges.ends[e * 2]!] = fixed[edges.ends[e * 2 + 1]!] = 1;
  const normals = vertexNormals(p, triangles);
  const into = new Int32Array(vertices).fill(-1);
  const locked = new Uint8Array(vertices);
  const limit = (edge * SHORT) ** 2;
  const longest = (edge * LONG) ** 2;
  const within = flagsOf(p, inside);
  const order = Array.from({ length: edges.count }, (_, e) => e)
    .filter((e) => square(p, edges.ends[e * 2]!, edges.ends[e * 2 + 1]!) < limit && within[edges.ends[e * 2]!] && within[edges.ends[e * 2 + 1]!])
    .sort((e, f) => square(p, edges.ends[e * 2]!, edges.ends[e * 2 + 1]!) - square(p, edges.ends[f * 2]!, edges.ends[f * 2 + 1]!));
  let count = 0;
  for (const e of order) {
    for (const [from, to] of [[edges.ends[e * 2]!, edges.ends[e * 2 + 1]!], [edges.ends[e * 2 + 1]!, edges.ends[e * 2]!]] as const) {
      if (fixed[from] || locked[from] || locked[to] || !mayJoin(w, round, normals, from, to, longest)) continue;
      into[from] = to;
      count++;
      // What is touched by one join is left alone by the others of this pass.
      for (const v of [from, to]) for (const t of round.of(v)) for (let k = 0; k < 3; k++) locked[triangles[t * 3 + k]!] = 1;
      break;
    }
  }
  return count > 0 ? without(w, into, count) : null;
}

/** Link condition, lengths, and that no face turns over. */
function mayJoin({ positions: p, triangles }: Working, round: Round, normals: Float32Array, from: number, to: number, longest: number): boolean {
  // A sharp edge stays where it runs.
  if (dot(normals, from, to) < SMOOTH_COS) return false;
  const near = neighbours(triangles, round, from);
  const other = neighbours(triangles, round, to);
  let common = 0;
  for (const v of near) if (other.has(v)) common++;
  if (common !== 2 || near.size + other.size - 4 < 3 || near.size < 4) return false;
  for (const t of round.of(from)) {
    const [a, b, c] = [triangles[t * 3]!, triangles[t * 3 + 1]!, triangles[t * 3 + 2]!];
    if (a === to || b === to || c === to) continue;
    const [x, y, z] = [a === from ? to : a, b === from ? to : b, c === from ? to : c];
    if (square(p, x, y) > longest || square(p, y, z) > longest || square(p, z, x) > longest) return false;
    if (turned(p, [a, b, c], [x, y, z]) || away(p, [x, y, z], normals, to) || away(p, [x, y, z], normals, from)) return false;
    if (quality(p, x, y, z) < Math.min(LEAST_QUALITY, quality(p, a, b, c))) return false;
  }
  return true;
}

function without(w: Working, into: Int32Array, count: number): Working {
  const vertices = w.positions.length / 3;
  const place = new Uint32Array(vertices);
  let kept = 0;
  for (let v = 0; v < vertices; v++) if (into[v]! < 0) place[v] = kept++;
  for (let v = 0; v < vertices; v++) if (into[v]! >= 0) place[v] = place[into[v]!]!;
  const shrunk = (from: Float32Array): Float32Array => {
    const out = new Float32Array((vertices - count) * 3);
    for (let v = 0; v < vertices; v++) if (into[v]! < 0) for (let k = 0; k < 3; k++) out[place[v]! * 3 + k] = from[v * 3 + k]!;
    return out;
  };
  const triangles = new Uint32Array(w.triangles.length);
  let n = 0;
  for (let t = 0; t < w.triangles.length; t += 3) {
    const [a, b, c] = [place[w.triangles[t]!]!, place[w.triangles[t + 1]!]!, place[w.triangles[t + 2]!]!];
    if (a === b || b === c || c === a) continue;
    triangles[n++] = a;
    triangles[n++] = b;
    triangles[n++] = c;
  }
  return { positions: shrunk(w.positions), along: shrunk(w.along), triangles: triangles.slice(0, n) };
}
