/** A mesh that came from outside is checked before it is used. */
import type { RawMesh } from '#core/mesh';
import { spaced } from '#core/words';

export const MOST_TRIANGLES = 5_000_000;
/** Beyond this, sums of squares leave the range of 32-bit floats. */
const FARTHEST = 1e15;

/** Throws a sentence that names the file, the place and the way out. */
export function checkMeshFile(mesh: RawMesh, file: string): void {
  const { positions: p, triangles } = mesh;
  const vertices = p.length / 3;
  const count = triangles.length / 3;
  if (count === 0)
    throw new Error(`${file} holds no triangles. A mesh with faces is needed; points and lines alone can’t be used.`);
  if (count > MOST_TRIANGLES)
    throw new Error(
      `${file} has ${spaced(count)} triangles; at most ${spaced(MOST_TRIANGLES)} can be opened. Reduce it first.`,
    );
  let broken = 0;
  let first = -1;
  for (let i = 0; i < p.length; i++) {
    if (Number.isFinite(p[i])) continue;
    if (first < 0) first = Math.floor(i / 3);
    broken++;
  }
  if (broken > 0)
    throw new Error(
      `${file}: vertex ${spaced(first + 1)} of ${spaced(vertices)} is not a number; ${spaced(broken)} such coordinates in all. Export it again.`,
    );
  for (let i = 0; i < p.length; i++) {
    if (Math.abs(p[i]) <= FARTHEST) continue;
    throw new Error(
      `${file}: vertex ${spaced(Math.floor(i / 3) + 1)} of ${spaced(vertices)} lies ${p[i].toExponential(0)} from the middle, farther than any unit reaches. Export it again.`,
    );
  }
  for (let i = 0; i < triangles.length; i++) {
    if (triangles[i] < vertices) continue;
    throw new Error(
      `${file}: triangle ${spaced(Math.floor(i / 3) + 1)} names vertex ${spaced(triangles[i] + 1)} of ${spaced(vertices)}. Export it again.`,
    );
  }
}
