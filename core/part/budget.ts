/**
 * A part brought down to a budget of faces, in two ways. The shape kept: edges collapse in the order of the error they
 * make (quadric error metrics; Garland and Heckbert, 1997), by the meshoptimizer library, which keeps borders and sharp
 * edges. Even faces: triangles of about one size, and their corners pulled back on the surface (evenFaces.ts).
 */
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { cleaned } from './cleaned';
import type { RawMesh } from '#core/mesh';
import type { Budget } from '#core/settings';
import { evenFaces } from './evenFaces';

/** The error isn't limited: the count is what is asked for. */
const ANY_ERROR = 1e9;
/** Even faces begin with so many times their count. */
const BEGUN = 2;
/** They lie on a mesh of so many times their count, at least and at most of so many faces. */
const FINER = 12;
const LEAST_FINE = 6_000;
const MOST_FINE = 120_000;

/**
 * To at most so many faces, or to fewer where the shape needs no more. Throws a sentence when nothing would be left.
 * O(triangles).
 */
export async function reduced(mesh: RawMesh, { way, faces }: Budget): Promise<RawMesh> {
  const count = mesh.triangles.length / 3;
  switch (way) {
    case 'shape':
      return count <= faces ? cleaned(mesh) : collapsed(mesh, faces);
    case 'even': {
      const fine = Math.min(MOST_FINE, Math.max(LEAST_FINE, faces * FINER));
      const shape = count <= fine ? cleaned(mesh) : await collapsed(mesh, fine);
      const begun = faces * BEGUN;
      const made = evenFaces(shape.triangles.length / 3 <= begun ? shape : await collapsed(shape, begun), shape, faces);
      // Sharp edges and borders may need more than there is; then a few faces are less even.
      return made.triangles.length / 3 <= faces ? made : collapsed(made, faces);
    }
  }
}

async function collapsed(mesh: RawMesh, faces: number): Promise<RawMesh> {
  await MeshoptSimplifier.ready;
  const [indices] = MeshoptSimplifier.simplify(mesh.triangles, mesh.positions, 3, faces * 3, ANY_ERROR);
  if (indices.length === 0)
    throw new Error(`Nothing of the part would be left at ${faces} faces. Ask for more of them.`);
  return cleaned({ positions: mesh.positions, triangles: indices });
}
