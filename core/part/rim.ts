/**
 * The rim of a sheet that was taken out of a mesh: where it touches itself it is parted, and its steps are smoothed.
 */
import { edgesOf, NONE, type RawMesh } from '#core/mesh';
import { holesOf } from '#core/scan';

const ROUNDS = 8;

export function tidyRim(sheet: RawMesh): RawMesh {
  const parted = partedAtPinches(sheet);
  const positions = parted.positions.slice();
  for (const { rim } of holesOf(parted)) {
    const n = rim.length;
    // Small rims are holes of the mesh itself.
    if (n < LEAST_RIM) continue;
    for (let round = 0; round < ROUNDS; round++) {
      const was = rim.flatMap((v) => [positions[v * 3], positions[v * 3 + 1], positions[v * 3 + 2]]);
      rim.forEach((v, i) => {
        const [before, after] = [(i + n - 1) % n, (i + 1) % n];
        for (let k = 0; k < 3; k++)
          positions[v * 3 + k] = was[i * 3 + k] / 2 + (was[before * 3 + k] + was[after * 3 + k]) / 4;
      });
    }
  }
  return { positions, triangles: parted.triangles };
}

const LEAST_RIM = 12;

/** A vertex at which several fans of triangles meet becomes one for each fan. */
function partedAtPinches({ positions, triangles }: RawMesh): RawMesh {
  const count = positions.length / 3;
  const edges = edgesOf(triangles, count);
  const other = besideCorners(triangles, edges);
  const fans = new Int32Array(triangles.length).fill(-1);
  const owners: number[] = [];
  const seen = new Uint8Array(count);
  for (let corner = 0; corner < triangles.length; corner++) {
    if (fans[corner] >= 0) continue;
    const v = triangles[corner];
    const fan = seen[v] ? count + owners.length : v;
    if (seen[v]) owners.push(v);
    seen[v] = 1;
    const stack = [corner];
    while (stack.length > 0) {
      const c = stack.pop()!;
      if (fans[c] >= 0) continue;
      fans[c] = fan;
      for (const next of cornersBeside(triangles, other, c)) if (fans[next] < 0) stack.push(next);
    }
  }
  if (owners.length === 0) return { positions, triangles };
  const out = new Float32Array((count + owners.length) * 3);
  out.set(positions);
  owners.forEach((v, i) => out.set(positions.subarray(v * 3, v * 3 + 3), (count + i) * 3));
  return { positions: out, triangles: Uint32Array.from(fans) };
}

/** Of each corner’s edge, which runs to the next corner: the corner at which its other triangle begins it. */
function besideCorners(triangles: Uint32Array, { count, ofTriangle, uses }: ReturnType<typeof edgesOf>): Uint32Array {
  const first = new Uint32Array(count).fill(NONE);
  const out = new Uint32Array(triangles.length).fill(NONE);
  for (let corner = 0; corner < triangles.length; corner++) {
    const e = ofTriangle[corner];
    if (uses[e] !== 2) continue;
    if (first[e] === NONE) first[e] = corner;
    else {
      out[corner] = first[e];
      out[first[e]] = corner;
    }
  }
  return out;
}

const next = (corner: number): number => (corner % 3 === 2 ? corner - 2 : corner + 1);

/** Corners of the same vertex in the triangles over its two edges. */
function cornersBeside(triangles: Uint32Array, other: Uint32Array, corner: number): number[] {
  const before = next(next(corner));
  return [other[corner], other[before]]
    .filter((c) => c !== NONE)
    .flatMap((c) => [c, next(c)])
    .filter((c) => triangles[c] === triangles[corner]);
}
