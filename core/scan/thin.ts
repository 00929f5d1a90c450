/**
 * Fewer triangles, the shape kept as well as can be: edges collapse in the order of the error they make (quadric error
 * metrics; Garland and Heckbert, 1997), by the meshoptimizer library. Rims of open sheets stay where they are.
 */
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import type { RawMesh } from '#core/mesh';
import { withVertices } from './components';

/** The error isn't limited: the count is what is asked for. */
const ANY_ERROR = 1e9;

export interface Thinned {
  mesh: RawMesh;
  /** Largest distance from the shape as it was, as a share of its size. */
  error: number;
}

/** To about so many triangles: fewer where the shape needs no more, more where its rims don’t let it. */
export async function thinned(mesh: RawMesh, triangles: number): Promise<Thinned> {
  await MeshoptSimplifier.ready;
  const [indices, error] = MeshoptSimplifier.simplify(mesh.triangles, mesh.positions, 3, triangles * 3, ANY_ERROR, [
    'LockBorder',
  ]);
  if (indices.length === 0) throw new Error('Nothing would be left of the scan. Ask for more triangles.');
  return { mesh: withVertices({ ...mesh, triangles: indices.slice(), carried: undefined }), error };
}
