/**
 * A sheet of surface made solid: small holes in it are filled smoothly, walls go from its outer rims to a plane behind
 * it, and a flat back lies in that plane. The plane's triangles are those of the earcut library.
 */
import earcut from 'earcut';
import { edgesOf, type RawMesh } from '#core/mesh';
import { agreed, fillHoles, holesOf } from '#core/scan';
import { seeded } from '#core/random';
import { cross, dot, minus, unit, type Vec3 } from '#core/vector';
import { cleaned } from './cleaned';

/** Share of a rim's width that its corners are moved by, before they are made triangles of. */
const JITTER = 1e-6;

export interface Back {
  /** Out of the back, unit. */
  down: Vec3;
  /** Where the plane lies along it; null is so far under the lowest point. */
  level: number | null;
  /** Body units, where the level is left open. */
  under: number;
}

/** Closed. Throws a sentence when it has no rim to build on. */
export function withBack(sheet: RawMesh, { down, level, under }: Back): RawMesh {
  const rims = holesOf(sheet);
  if (rims.length === 0) return cleaned(sheet);
  const frame = across(down);
  // What would close an outer rim faces down, what would close a hole in the sheet faces up.
  const outer = rims.filter(({ rim }) => turnOf(sheet.positions, rim, frame) > 0);
  if (outer.length === 0)
    throw new Error(
      'Seen from this side the region has no outline, so it can’t be given a back. Look at it from another side.',
    );
  const outlines = new Set(outer.map(({ rim }) => keyOf(rim)));
  const filled = fillHoles(sheet, { which: ({ rim }) => !outlines.has(keyOf(rim)) }).mesh;
  const deepest = depthOf(filled.positions, down);
  const plane = level === null ? deepest + under : Math.max(level, deepest);
  return backed(
    filled,
    outer.map(({ rim }) => rim),
    { down: unit(down), plane, frame },
  );
}

const keyOf = (rim: readonly number[]): string =>
  `${rim.length} ${rim.reduce((sum, v) => sum + v, 0)} ${Math.min(...rim.slice(0, 64))}`;

interface Plane {
  down: Vec3;
  plane: number;
  frame: [Vec3, Vec3];
}

function backed(sheet: RawMesh, rims: readonly number[][], { down, plane, frame }: Plane): RawMesh {
  const vertices = sheet.positions.length / 3;
  const added = rims.reduce((sum, rim) => sum + rim.length, 0);
  const positions = new Float32Array((vertices + added) * 3);
  positions.set(sheet.positions);
  const faces: number[] = [];
  let first = vertices;
  for (const rim of rims) {
    rim.forEach((v, i) => {
      const at = place(sheet.positions, v);
      const by = plane - dot(at, down);
      for (let k = 0; k < 3; k++) positions[(first + i) * 3 + k] = at[k] + down[k] * by;
    });
    const n = rim.length;
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      // The rim is turned as a face that would close it: the wall goes on from there.
      faces.push(rim[i], rim[j], first + j, rim[i], first + j, first + i);
    }
    faces.push(...capOf(sheet.positions, rim, frame).map((i) => first + i));
    first += n;
  }
  const triangles = new Uint32Array(sheet.triangles.length + faces.length);
  triangles.set(sheet.triangles);
  triangles.set(faces, sheet.triangles.length);
  // A rim that crosses itself as it lies in the plane has no flat back: a smooth one closes it.
  return cleaned(fillHoles({ positions, triangles }, { which: () => true }).mesh);
}

/** Triangles of the rim's numbers, turned as it runs; none where they don't cover it. */
function capOf(p: Float32Array, rim: readonly number[], frame: [Vec3, Vec3]): number[] {
  const flat = rim.flatMap((v) => flatPlace(p, v, frame));
  const random = seeded(1);
  const wide = Math.max(...[0, 1].map((k) => rangeOf(flat, k)));
  // Corners in one line would be left out, and with them the walls' lower ends.
  const ears = earcut(flat.map((x) => x + (random() - 0.5) * wide * JITTER));
  if (ears.length !== (rim.length - 2) * 3) return [];
  let twice = 0;
  for (let i = 0; i < ears.length; i += 3) {
    const [a, b, c] = [ears[i] * 2, ears[i + 1] * 2, ears[i + 2] * 2];
    twice += (flat[b] - flat[a]) * (flat[c + 1] - flat[a + 1]) - (flat[b + 1] - flat[a + 1]) * (flat[c] - flat[a]);
  }
  if (twice > 0) return ears;
  return ears.map((_, i) => ears[i - (i % 3) + ((3 - (i % 3)) % 3)]);
}

function rangeOf(flat: readonly number[], k: number): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = k; i < flat.length; i += 2) {
    low = Math.min(low, flat[i]);
    high = Math.max(high, flat[i]);
  }
  return high - low;
}

function across(down: Vec3): [Vec3, Vec3] {
  const d = unit(down);
  const a = unit(cross(Math.abs(d[2]) < 0.9 ? [0, 0, 1] : [0, 1, 0], d));
  return [a, cross(d, a)];
}

const place = (p: Float32Array, v: number): Vec3 => [p[v * 3], p[v * 3 + 1], p[v * 3 + 2]];

function flatPlace(p: Float32Array, v: number, [a, b]: [Vec3, Vec3]): [number, number] {
  const at = place(p, v);
  return [dot(at, a), dot(at, b)];
}

/** Twice the area of the rim as it lies in the plane: over zero when it runs anticlockwise as seen against `down`. */
function turnOf(p: Float32Array, rim: readonly number[], frame: [Vec3, Vec3]): number {
  let sum = 0;
  const first = place(p, rim[0]);
  for (let i = 1; i + 1 < rim.length; i++) {
    const [u, v] = [minus(place(p, rim[i]), first), minus(place(p, rim[i + 1]), first)];
    sum += dot(u, frame[0]) * dot(v, frame[1]) - dot(u, frame[1]) * dot(v, frame[0]);
  }
  return sum;
}

function depthOf(p: Float32Array, down: Vec3): number {
  let deepest = -Infinity;
  for (let v = 0; v < p.length / 3; v++) deepest = Math.max(deepest, dot(place(p, v), down));
  return deepest;
}

/** Whether every edge has a face on both its sides. */
export function isClosed({ positions, triangles }: RawMesh): boolean {
  const { count, uses } = edgesOf(triangles, positions.length / 3);
  for (let e = 0; e < count; e++) if (uses[e] !== 2) return false;
  return triangles.length > 0;
}

/** Edges with a face on one side alone. */
export function openEdges({ positions, triangles }: RawMesh): number {
  const { count, uses } = edgesOf(triangles, positions.length / 3);
  return uses.subarray(0, count).reduce((open, faces) => open + (faces === 1 ? 1 : 0), 0);
}

/** Every hole and open rim closed smoothly. */
export function fillRims(mesh: RawMesh): RawMesh {
  return cleaned(fillHoles(mesh, { which: () => true }).mesh);
}

/** Every face turned outward. */
export function outward(mesh: RawMesh): RawMesh {
  return cleaned(agreed(mesh));
}
