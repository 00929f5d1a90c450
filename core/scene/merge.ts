/**
 * Pieces merged into the body they stand on: a boolean union without cracks, by the manifold library, which needs
 * closed meshes and answers closed ones.
 */
import type { Manifold, ManifoldToplevel } from 'manifold-3d';
import type { RawMesh } from '#core/mesh';
import { isClosed, openEdges, volumeOf } from '#core/part';

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
 * them is open. Coordinates and groups of the body don't outlast its new faces.
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
  const solid = ({ name, mesh }: Named): Manifold => {
    try {
      const one = new Manifold(new Mesh({ numProp: 3, vertProperties: mesh.positions, triVerts: facingOut(mesh) }));
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
      runs.push(union(pieces.slice(i, i + RUN).map(solid)));
      step((BEFORE_BODY * Math.min(i + RUN, pieces.length)) / pieces.length);
    }
    const all = union(runs);
    const read = solid(body);
    step(BODY_READ);
    // It is large, and cut once.
    const whole = union([read, all]);
    step(UNITED);
    const { numProp, vertProperties, triVerts } = whole.getMesh();
    return { positions: placesOf(vertProperties, numProp), triangles: Uint32Array.from(triVerts) };
  } finally {
    for (const one of made) one.delete();
  }
}

/** What is inside out would be taken for a hole in space. */
function facingOut(mesh: RawMesh): Uint32Array {
  if (volumeOf(mesh) >= 0) return mesh.triangles;
  const out = mesh.triangles.slice();
  for (let t = 0; t < out.length; t += 3) [out[t + 1], out[t + 2]] = [out[t + 2], out[t + 1]];
  return out;
}

function placesOf(properties: Float32Array, each: number): Float32Array {
  if (each === 3) return properties.slice();
  const out = new Float32Array((properties.length / each) * 3);
  for (let v = 0; v < out.length / 3; v++) out.set(properties.subarray(v * each, v * each + 3), v * 3);
  return out;
}
