/**
 * Faces of a mesh that go through each other. Two faces cross where an edge of one goes through the other (T. Möller
 * and B. Trumbore, 1997); faces that share a vertex are not looked at. Boxes are swept along the longest axis:
 * O(n log n) and the pairs whose boxes meet.
 */
import type { RawMesh } from '#core/mesh';
import { extentsOf } from './measure';

/** Pairs of faces that cross; no more than `most` are looked for. */
export function crossings({ positions: p, triangles }: RawMesh, most = 1000): number {
  const count = triangles.length / 3;
  const { low, high } = extentsOf(p);
  const axis = [0, 1, 2].reduce((best, k) => (high[k] - low[k] > high[best] - low[best] ? k : best), 0);
  const boxes = new Float32Array(count * 6);
  for (let t = 0; t < count; t++) {
    for (let k = 0; k < 3; k++) {
      const [a, b, c] = [0, 1, 2].map((corner) => p[triangles[t * 3 + corner] * 3 + k]);
      boxes[t * 6 + k] = Math.min(a, b, c);
      boxes[t * 6 + 3 + k] = Math.max(a, b, c);
    }
  }
  const order = Uint32Array.from({ length: count }, (_, t) => t).sort(
    (a, b) => boxes[a * 6 + axis] - boxes[b * 6 + axis],
  );
  const [across, along] = [(axis + 1) % 3, (axis + 2) % 3];
  let found = 0;
  for (let i = 0; i < count && found < most; i++) {
    const s = order[i];
    for (let j = i + 1; j < count; j++) {
      const t = order[j];
      if (boxes[t * 6 + axis] > boxes[s * 6 + 3 + axis]) break;
      if (boxes[t * 6 + across] > boxes[s * 6 + 3 + across] || boxes[s * 6 + across] > boxes[t * 6 + 3 + across])
        continue;
      if (boxes[t * 6 + along] > boxes[s * 6 + 3 + along] || boxes[s * 6 + along] > boxes[t * 6 + 3 + along]) continue;
      if (!share(triangles, s, t) && (pierces(p, triangles, s, t) || pierces(p, triangles, t, s))) found++;
      if (found >= most) break;
    }
  }
  return found;
}

function share(triangles: Uint32Array, s: number, t: number): boolean {
  for (let k = 0; k < 3; k++)
    for (let l = 0; l < 3; l++) if (triangles[s * 3 + k] === triangles[t * 3 + l]) return true;
  return false;
}

/** Whether an edge of the first goes through the second; by a hair it doesn't, so that faces may touch. */
function pierces(p: Float32Array, triangles: Uint32Array, s: number, t: number): boolean {
  const [a, b, c] = [triangles[t * 3] * 3, triangles[t * 3 + 1] * 3, triangles[t * 3 + 2] * 3];
  const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
  for (let k = 0; k < 3; k++) {
    const from = triangles[s * 3 + k] * 3;
    const to = triangles[s * 3 + ((k + 1) % 3)] * 3;
    const [dx, dy, dz] = [p[to] - p[from], p[to + 1] - p[from + 1], p[to + 2] - p[from + 2]];
    const [qx, qy, qz] = [dy * vz - dz * vy, dz * vx - dx * vz, dx * vy - dy * vx];
    const det = ux * qx + uy * qy + uz * qz;
    if (det === 0) continue;
    const [sx, sy, sz] = [p[from] - p[a], p[from + 1] - p[a + 1], p[from + 2] - p[a + 2]];
    const u = (sx * qx + sy * qy + sz * qz) / det;
    const [rx, ry, rz] = [sy * uz - sz * uy, sz * ux - sx * uz, sx * uy - sy * ux];
    const v = (dx * rx + dy * ry + dz * rz) / det;
    const on = (vx * rx + vy * ry + vz * rz) / det;
    if (u > HAIR && v > HAIR && u + v < 1 - HAIR && on > HAIR && on < 1 - HAIR) return true;
  }
  return false;
}

const HAIR = 1e-5;
