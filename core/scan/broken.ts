/** Leaving out what a scanner wrote wrongly. O(vertices + triangles). */
import type { RawMesh } from '#core/mesh';
import { withTriangles } from './components';

/** Beyond this, sums of squares leave the range of 32-bit floats. */
const FARTHEST = 1e15;

/**
 * Without the triangles that name a vertex which isn't a number, is farther away than any unit reaches, or isn't there;
 * `broken` is how many those are.
 */
export function withoutBroken(mesh: RawMesh): { mesh: RawMesh; broken: number } {
  const { positions: p, triangles } = mesh;
  const vertices = p.length / 3;
  const bad = new Uint8Array(vertices);
  let any = false;
  for (let i = 0; i < p.length; i++) {
    if (Math.abs(p[i]) <= FARTHEST) continue;
    bad[Math.floor(i / 3)] = 1;
    any = true;
  }
  const count = triangles.length / 3;
  const gone = new Uint8Array(count);
  let broken = 0;
  for (let i = 0; i < triangles.length; i++) {
    const v = triangles[i];
    if (v < vertices && (!any || bad[v] === 0)) continue;
    const t = Math.floor(i / 3);
    if (gone[t]) continue;
    gone[t] = 1;
    broken++;
  }
  return broken === 0 ? { mesh, broken } : { mesh: withTriangles(mesh, (t) => gone[t] === 0), broken };
}
