/** Volume, area and extents of a mesh, and how far one mesh lies from another. */
import { buildMesh, nearestOn, type RawMesh } from '#core/mesh';

export interface Extents {
  low: [number, number, number];
  high: [number, number, number];
  /** Of its diagonal: what errors are told as a share of. */
  size: number;
}

export function extentsOf(p: Float32Array): Extents {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < p.length; i += 3) {
    for (let k = 0; k < 3; k++) {
      low[k] = Math.min(low[k], p[i + k]);
      high[k] = Math.max(high[k], p[i + k]);
    }
  }
  return { low, high, size: Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]) };
}

/** Of a closed mesh with its faces outward; of any other, a number without a meaning. */
export function volumeOf({ positions: p, triangles }: RawMesh): number {
  let six = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i] * 3, triangles[i + 1] * 3, triangles[i + 2] * 3];
    six +=
      p[a] * (p[b + 1] * p[c + 2] - p[b + 2] * p[c + 1]) +
      p[a + 1] * (p[b + 2] * p[c] - p[b] * p[c + 2]) +
      p[a + 2] * (p[b] * p[c + 1] - p[b + 1] * p[c]);
  }
  return six / 6;
}

export function areaOf({ positions: p, triangles }: RawMesh): number {
  let twice = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i] * 3, triangles[i + 1] * 3, triangles[i + 2] * 3];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    twice += Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
  }
  return twice / 2;
}

export interface Deviation {
  /** Per cent of the first mesh's size. */
  largest: number;
  mean: number;
}

/** Vertices that are looked at on either side. */
const MOST_LOOKED = 6_000;

/** How far two meshes lie from each other, looked for from both sides. */
export function deviation(was: RawMesh, is: RawMesh): Deviation {
  const { size } = extentsOf(was.positions);
  const [a, b] = [distances(was, laidOut(is)), distances(is, laidOut(was))];
  return {
    largest: (100 * Math.max(a.largest, b.largest)) / size,
    mean: (100 * Math.max(a.mean, b.mean)) / size,
  };
}

type Find = ReturnType<typeof nearestOn>;

const laidOut = (mesh: RawMesh): Find =>
  nearestOn(buildMesh({ positions: mesh.positions, triangles: mesh.triangles }, { ringless: true }));

function distances({ positions: p }: RawMesh, on: Find): Deviation {
  const vertices = p.length / 3;
  const step = Math.max(1, Math.floor(vertices / MOST_LOOKED));
  let largest = 0;
  let sum = 0;
  let count = 0;
  for (let v = 0; v < vertices; v += step) {
    const found = on(p[v * 3], p[v * 3 + 1], p[v * 3 + 2]);
    if (!found) continue;
    largest = Math.max(largest, found.distance);
    sum += found.distance;
    count++;
  }
  return { largest, mean: count > 0 ? sum / count : 0 };
}
