/**
 * Triangles of about one size: edges are split and joined until they are about as long as the budget asks, vertices
 * are moved to the middle of their neighbours along the surface, and pulled back on it.
 *
 * After M. Botsch and L. Kobbelt, on remeshing while a surface is modelled, SGP 2004; edges that are sharp, and
 * borders, stay: a vertex on one moves along it alone, one where several meet not at all.
 */
import { buildMesh, creasesOf, edgesOf, nearest, refine, sharpEdges, type Mesh, type RawMesh } from '#core/mesh';
import { areaOf } from './measure';

const ROUNDS = 5;
/** Rounds in which the length of the edges is set anew, so that the count comes out. */
const FITS = 4;
/** A count this much below the budget will do. */
const NEAR_ENOUGH = 0.9;
/** Edges over which faces turn by more than this are sharp. */
const SHARP_COS = Math.cos((40 * Math.PI) / 180);

/**
 * At most so many faces, if its borders let it, beginning with a mesh of about as many and pulled back on a finer one
 * of the same shape. Throws a sentence when nothing is left.
 */
export function evenFaces(mesh: RawMesh, shape: RawMesh, faces: number): RawMesh {
  const on = buildMesh(shape, { ringless: true });
  const area = areaOf(shape);
  if (!(area > 0)) throw new Error('The part has no area, so it can’t be made of even faces.');
  // Of equal triangles with sides of this length.
  let edge = Math.sqrt((area / faces) * (4 / Math.sqrt(3)));
  const counts = (one: RawMesh): number => one.triangles.length / 3;
  let best: RawMesh | null = null;
  for (let fit = 0; fit < FITS; fit++) {
    const made = atEdge(mesh, on, edge);
    const count = counts(made);
    if (!best || isNearer(count, counts(best), faces)) best = made;
    if (count <= faces && count >= faces * NEAR_ENOUGH) break;
    edge *= Math.sqrt(count / (faces * (1 + NEAR_ENOUGH) * 0.5));
  }
  return best!;
}

/** The most faces within the budget; where none are, the fewest. */
function isNearer(count: number, than: number, budget: number): boolean {
  return than > budget ? count < than : count <= budget && count > than;
}

function atEdge(mesh: RawMesh, on: Mesh, edge: number): RawMesh {
  let at: RawMesh = { positions: mesh.positions.slice(), triangles: mesh.triangles };
  const everywhere = (): boolean => true;
  for (let round = 0; round < ROUNDS; round++) {
    at = refine(at, { places: [], values: [] }, { edge, inside: everywhere, most: 4e6, sharpCos: SHARP_COS }).mesh;
    at = { positions: relaxed(at, on), triangles: at.triangles };
  }
  return at;
}

/** Every vertex in the middle of its neighbours, back on the surface. */
function relaxed({ positions: p, triangles }: RawMesh, on: Mesh): Float32Array {
  const count = p.length / 3;
  const edges = edgesOf(triangles, count);
  const sharp = sharpEdges(p, triangles, edges, SHARP_COS);
  const creases = creasesOf(edges, sharp, count);
  const sums = new Float64Array(count * 3);
  const sides = new Uint16Array(count);
  for (let e = 0; e < edges.count; e++) {
    for (let k = 0; k < 2; k++) {
      const [v, other] = [edges.ends[e * 2 + k], edges.ends[e * 2 + 1 - k]];
      // On a sharp edge only what lies along it counts.
      if (creases[v] > 0 && !sharp[e]) continue;
      for (let i = 0; i < 3; i++) sums[v * 3 + i] += p[other * 3 + i];
      sides[v]++;
    }
  }
  const out = p.slice();
  for (let v = 0; v < count; v++) {
    if (sides[v] === 0 || (creases[v] > 0 && creases[v] !== 2)) continue;
    const back = nearest(on, sums[v * 3] / sides[v], sums[v * 3 + 1] / sides[v], sums[v * 3 + 2] / sides[v]);
    if (back) out.set([back.x, back.y, back.z], v * 3);
  }
  return out;
}
