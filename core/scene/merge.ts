/**
 * Pieces merged into the body they stand on: a boolean union without cracks, by the manifold library, which needs
 * closed meshes and answers closed ones.
 */
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import { cutAtSeams, type RawMesh } from '#core/mesh';
import { isClosed, openEdges, volumeOf } from '#core/part';
import { coordinatesBeside } from './textured';

/** The library, once it has been set up. */
export type SolidsKit = Pick<ManifoldToplevel, 'Manifold' | 'Mesh'>;

export interface Named {
  name: string;
  mesh: RawMesh;
}

/** Pieces are joined among themselves in runs of so many, so that what is done can be told between them. */
const RUN = 24;
/** Share of the work that lies before the body itself is cut. */
const BEFORE_BODY = 0.15;
const BODY_READ = 0.65;
const UNITED = 0.95;

/** Why this can't be merged, as a sentence that says what can be done; null when it can. */
export function unmergeable({ name, mesh }: Named, what: 'body' | 'piece'): string | null {
  if (isClosed(mesh)) return null;
  const open = openEdges(mesh);
  const found =
    open > 0 ? `is open at ${open} ${open === 1 ? 'edge' : 'edges'}` : 'has edges where more than two faces meet';
  return what === 'body'
    ? `“${name}” ${found}, so nothing can be merged into it. Open its file among the sources, fill its holes there, and sculpt on that; or leave the pieces as they are.`
    : `“${name}” ${found}. Close it on the part bench, or leave it as a piece.`;
}

/**
 * The body and all of these as one closed mesh. `step` is told the share that is done. Throws a sentence where one of
 * them is open, or the body's texture has no room for them. The body's coordinates stay, and what was painted fits; its
 * groups don't outlast its new faces.
 */
export function merged(
  { Manifold, Mesh }: SolidsKit,
  body: Named,
  pieces: readonly Named[],
  step: (share: number) => void = () => undefined,
): RawMesh {
  const why = unmergeable(body, 'body') ?? pieces.map((piece) => unmergeable(piece, 'piece')).find((said) => said);
  if (why) throw new Error(why);
  const made: Manifold[] = [];
  const own = body.mesh.carried?.coordinates ?? null;
  const beside =
    own &&
    coordinatesBeside(
      own,
      pieces.map(({ mesh }) => mesh),
    );
  const solid = ({ name, mesh }: Named, coordinates: Float32Array | null): Manifold => {
    try {
      const one = new Manifold(new Mesh(coordinates ? withCoordinates(mesh, coordinates) : plain(mesh)));
      made.push(one);
      return one;
    } catch {
      throw new Error(`“${name}” can’t be merged: two of its faces lie on each other. Leave it as a piece.`);
    }
  };
  const union = (of: readonly Manifold[]): Manifold => {
    const one = Manifold.union(of);
    made.push(one);
    // Unions are put off until they are asked about.
    if (one.status() !== 'NoError')
      throw new Error('The pieces can’t be merged: their faces cross in too many places.');
    return one;
  };
  try {
    const runs: Manifold[] = [];
    for (let i = 0; i < pieces.length; i += RUN) {
      runs.push(union(pieces.slice(i, i + RUN).map((piece, k) => solid(piece, beside && beside[i + k]))));
      step((BEFORE_BODY * Math.min(i + RUN, pieces.length)) / pieces.length);
    }
    const all = union(runs);
    const read = solid(body, own);
    step(BODY_READ);
    // It is large, and cut once.
    const whole = union([read, all]);
    step(UNITED);
    return meshOf(whole.getMesh(), own !== null);
  } finally {
    for (const one of made) one.delete();
  }
}

interface Properties {
  numProp: number;
  vertProperties: Float32Array;
  triVerts: Uint32Array;
  mergeFromVert?: Uint32Array;
  mergeToVert?: Uint32Array;
}

function plain(mesh: RawMesh): Properties {
  return {
    numProp: 3,
    vertProperties: mesh.positions,
    triVerts: volumeOf(mesh) < 0 ? turned(mesh.triangles, 1) : mesh.triangles,
  };
}

/** Each vertex once for each of its coordinates, and which of them are one. */
function withCoordinates({ positions, triangles }: RawMesh, coordinates: Float32Array): Properties {
  const insideOut = volumeOf({ positions, triangles }) < 0;
  const cut = cutAtSeams({
    positions,
    triangles: insideOut ? turned(triangles, 1) : triangles,
    carried: { coordinates: insideOut ? turned(coordinates, 2) : coordinates, groups: null },
  });
  const count = cut.positions.length / 3;
  const vertProperties = new Float32Array(count * 5);
  const first = new Int32Array(positions.length / 3).fill(-1);
  const [from, to]: [number[], number[]] = [[], []];
  for (let v = 0; v < count; v++) {
    vertProperties.set(cut.positions.subarray(v * 3, v * 3 + 3), v * 5);
    vertProperties.set(cut.coordinates!.subarray(v * 2, v * 2 + 2), v * 5 + 3);
    const was = cut.from![v];
    if (first[was] < 0) first[was] = v;
    else {
      from.push(v);
      to.push(first[was]);
    }
  }
  return {
    numProp: 5,
    vertProperties,
    triVerts: cut.triangles,
    mergeFromVert: Uint32Array.from(from),
    mergeToVert: Uint32Array.from(to),
  };
}

/** What is inside out would be taken for a hole in space. `each` numbers a corner; the last two change places. */
function turned<T extends Uint32Array | Float32Array>(of: T, each: number): T {
  const out = of.slice() as T;
  for (let t = 0; t < out.length; t += 3 * each)
    for (let k = 0; k < each; k++) {
      out[t + each + k] = of[t + 2 * each + k];
      out[t + 2 * each + k] = of[t + each + k];
    }
  return out;
}

/** Vertices that are one are one again, and what lay beside their places goes to the corners. */
function meshOf(
  { numProp, vertProperties, triVerts, mergeFromVert, mergeToVert }: Properties,
  textured: boolean,
): RawMesh {
  const count = vertProperties.length / numProp;
  const one = Uint32Array.from({ length: count }, (_, v) => v);
  mergeFromVert?.forEach((v, i) => (one[v] = mergeToVert![i]));
  const place = new Int32Array(count).fill(-1);
  const positions: number[] = [];
  const triangles = new Uint32Array(triVerts.length);
  const coordinates = textured ? new Float32Array(triVerts.length * 2) : null;
  triVerts.forEach((v, i) => {
    const of = one[v];
    if (place[of] < 0) {
      place[of] = positions.length / 3;
      positions.push(...vertProperties.subarray(of * numProp, of * numProp + 3));
    }
    triangles[i] = place[of];
    // Cutting may leave a rounding over the square’s edge.
    for (let k = 0; coordinates && k < 2; k++)
      coordinates[i * 2 + k] = Math.min(1, Math.max(0, vertProperties[v * numProp + 3 + k]));
  });
  const raw = { positions: Float32Array.from(positions), triangles };
  return coordinates ? { ...raw, carried: { coordinates, groups: null } } : raw;
}
