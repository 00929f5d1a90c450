/**
 * Triangles of about one size: edges are split and joined until they are about as long as the budget asks, vertices
 * are moved to the middle of their neighbours along the surface, and pulled back on it.
 *
 * After M. Botsch and L. Kobbelt, on remeshing while a surface is modelled, SGP 2004; sharp edges and borders stay
 * where they are, and are split and joined along themselves alone.
 */
import {
  buildMesh,
  creasesOf,
  edgesOf,
  faceCross,
  nearestOn,
  refine,
  sharpEdges,
  trianglesRound,
  type Edges,
  type RawMesh,
} from '#core/mesh';
import { areaOf } from './measure';

/** Rounds of splitting, joining and moving; more where the count hasn’t come out. */
const ROUNDS = 5;
const MOST_ROUNDS = 9;
/** A count this much below the budget will do. */
const NEAR_ENOUGH = 0.9;
/** Edges over which faces turn by more than this are sharp. */
const SHARP_COS = Math.cos((40 * Math.PI) / 180);

/**
 * At most so many faces, if its borders let it, beginning with a mesh of about as many and pulled back on a finer one
 * of the same shape. Throws a sentence when nothing is left.
 */
export function evenFaces(mesh: RawMesh, shape: RawMesh, faces: number): RawMesh {
  const on = nearestOn(buildMesh(shape, { ringless: true }));
  const area = areaOf(shape);
  if (!(area > 0)) throw new Error('The part has no area, so it can’t be made of even faces.');
  // Of equal triangles with sides of this length.
  let edge = Math.sqrt((area / faces) * (4 / Math.sqrt(3)));
  let at: RawMesh = mesh;
  let best: RawMesh | null = null;
  for (let round = 1; round <= MOST_ROUNDS; round++) {
    at = refine(at, { places: [], values: [] }, { edge, inside: everywhere, most: 4e6, sharpCos: SHARP_COS }).mesh;
    at = { positions: relaxed(at, on), triangles: at.triangles };
    const count = at.triangles.length / 3;
    const fits = count <= faces && count >= faces * NEAR_ENOUGH;
    // What comes later is more even.
    if (!best || fits || isNearer(count, best.triangles.length / 3, faces)) best = at;
    if (fits && round >= ROUNDS) break;
    if (!fits) edge *= Math.sqrt(count / (faces * (1 + NEAR_ENOUGH) * 0.5));
  }
  return best!;
}

const everywhere = (): boolean => true;

/** The most faces within the budget; where none are, the fewest. */
function isNearer(count: number, than: number, budget: number): boolean {
  return than > budget ? count < than : count <= budget && count > than;
}

/**
 * Every vertex goes to the middle of its neighbours, back on the surface, where that turns none of its faces over: one
 * after the other, so that each sees where the ones before it went.
 */
function relaxed({ positions, triangles }: RawMesh, on: ReturnType<typeof nearestOn>): Float32Array {
  const p = positions.slice();
  const count = p.length / 3;
  const edges = edgesOf(triangles, count);
  const sharp = sharpEdges(p, triangles, edges, SHARP_COS);
  const creases = creasesOf(edges, sharp, count);
  const beside = besideVertices(edges, count);
  const round = trianglesRound(triangles, count);
  const was = new Float64Array(3);
  for (let v = 0; v < count; v++) {
    const list = beside[v];
    if (list.length === 0 || creases[v] > 0) continue;
    for (let k = 0; k < 3; k++) was[k] = p[v * 3 + k];
    const middle = [0, 1, 2].map((k) => list.reduce((sum, u) => sum + p[u * 3 + k], 0) / list.length);
    // Where it is lies on the surface already, so that nothing farther off is looked at.
    const far = Math.hypot(middle[0] - was[0], middle[1] - was[1], middle[2] - was[2]);
    const back = on(middle[0], middle[1], middle[2], far);
    if (!back) continue;
    const before = normalsRound(p, triangles, round.of(v));
    p.set([back.x, back.y, back.z], v * 3);
    if (turnsOver(before, normalsRound(p, triangles, round.of(v)))) p.set(was, v * 3);
  }
  return p;
}

function besideVertices({ count, ends }: Edges, vertices: number): number[][] {
  const out: number[][] = Array.from({ length: vertices }, () => []);
  for (let e = 0; e < count; e++) {
    out[ends[e * 2]].push(ends[e * 2 + 1]);
    out[ends[e * 2 + 1]].push(ends[e * 2]);
  }
  return out;
}

const ROOM = new Float64Array(3);

/** Unit normals of the faces, x, y, z each; zeros for one without area. */
function normalsRound(p: Float32Array, triangles: Uint32Array, faces: Uint32Array): Float64Array {
  const out = new Float64Array(faces.length * 3);
  faces.forEach((t, i) => {
    faceCross(p, triangles[t * 3], triangles[t * 3 + 1], triangles[t * 3 + 2], ROOM);
    const long = Math.hypot(ROOM[0], ROOM[1], ROOM[2]);
    for (let k = 0; k < 3; k++) out[i * 3 + k] = long > 0 ? ROOM[k] / long : 0;
  });
  return out;
}

/** Faces may turn by so much when a vertex moves. */
const TURN_COS = 0.6;

function turnsOver(before: Float64Array, after: Float64Array): boolean {
  for (let i = 0; i < before.length; i += 3) {
    const along = before[i] * after[i] + before[i + 1] * after[i + 1] + before[i + 2] * after[i + 2];
    const had = before[i] !== 0 || before[i + 1] !== 0 || before[i + 2] !== 0;
    if (had && along < TURN_COS) return true;
  }
  return false;
}
