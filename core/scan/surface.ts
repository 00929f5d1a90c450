/**
 * The surface that a patch's frame looks at, in the frame's own axes: x right, y up, z out of it.
 *
 * Only what faces the frame and hangs together with the surface at its centre counts, so that neither the scan's other
 * side nor something that lies behind gets into the picture. O(triangles of the leaves that meet the frame).
 */
import type { MeshArrays } from '#core/mesh';
import type { PatchFrame } from './axes';
import { Sets } from './sets';

export interface PatchSurface {
  /** x, y, z in the frame’s axes, body units. */
  positions: Float32Array;
  triangles: Uint32Array;
  /** Number in the scan of each vertex. */
  from: Uint32Array;
}

export interface SurfaceOptions {
  /** Faces that are turned away are taken too, where they hang together with the rest: for what overhangs. */
  turnedAway?: boolean;
}

/** Triangles more aslant than this, the cosine, show nothing of their form from the front: all would be undercut. */
const FACING = 0.12;
/** What lies this much beyond the frame still counts for what hangs together, in sides. */
const BEYOND = 0.25;
/** What lies deeper, or farther out, belongs to something else, in sides. */
const DEEP = 1;

/** Null when nothing of the scan lies in the frame. */
export function patchSurface(
  mesh: MeshArrays,
  frame: PatchFrame,
  { turnedAway = false }: SurfaceOptions = {},
): PatchSurface | null {
  const reach = frame.side * (0.5 + BEYOND);
  const deep = frame.side * DEEP;
  const leaves = leavesInFrame(mesh, frame, reach, deep);
  const near = placedIn(mesh, frame, leaves);
  const { places: p } = near;
  let count = 0;
  const { faces } = near;
  for (let i = 0; i < faces.length; i += 3) {
    const a = faces[i] * 3;
    const b = faces[i + 1] * 3;
    const c = faces[i + 2] * 3;
    if (apart(p[a], p[b], p[c], reach) || apart(p[a + 1], p[b + 1], p[c + 1], reach)) continue;
    if (apart(p[a + 2], p[b + 2], p[c + 2], deep)) continue;
    if (!turnedAway && !facing(p, a, b, c)) continue;
    faces[count] = faces[i];
    faces[count + 1] = faces[i + 1];
    faces[count + 2] = faces[i + 2];
    count += 3;
  }
  return connected({ ...near, faces: faces.subarray(0, count) }, frame.side / 2);
}

/** Vertices in the frame's axes, and the triangles by them. */
interface Near {
  places: Float32Array;
  faces: Uint32Array;
  /** Number in the scan of each vertex. */
  from: Uint32Array;
}

function placedIn(mesh: MeshArrays, frame: PatchFrame, leaves: readonly number[]): Near {
  const { positions, triangles, leafTriangles } = mesh;
  const corners = leaves.reduce((sum, leaf) => sum + (leafTriangles[leaf + 1] - leafTriangles[leaf]) * 3, 0);
  const local = new Int32Array(mesh.vertexCount).fill(-1);
  const faces = new Uint32Array(corners);
  const from = new Uint32Array(Math.min(corners, mesh.vertexCount));
  let vertices = 0;
  let at = 0;
  for (const leaf of leaves) {
    for (let i = leafTriangles[leaf] * 3; i < leafTriangles[leaf + 1] * 3; i++) {
      const v = triangles[i];
      if (local[v] < 0) {
        local[v] = vertices;
        from[vertices++] = v;
      }
      faces[at++] = local[v];
    }
  }
  const places = new Float32Array(vertices * 3);
  const [ox, oy, oz] = frame.at;
  const { right: r, up: u, out: o } = frame;
  for (let i = 0; i < vertices; i++) {
    const x = positions[from[i] * 3] - ox;
    const y = positions[from[i] * 3 + 1] - oy;
    const z = positions[from[i] * 3 + 2] - oz;
    places[i * 3] = x * r[0] + y * r[1] + z * r[2];
    places[i * 3 + 1] = x * u[0] + y * u[1] + z * u[2];
    places[i * 3 + 2] = x * o[0] + y * o[1] + z * o[2];
  }
  return { places, faces, from: from.subarray(0, vertices) };
}

/** Whether all three lie beyond the same end of −reach to reach. */
function apart(a: number, b: number, c: number, reach: number): boolean {
  return (a > reach && b > reach && c > reach) || (a < -reach && b < -reach && c < -reach);
}

function facing(p: Float32Array, a: number, b: number, c: number): boolean {
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vy = p[c + 1] - p[a + 1];
  const vz = p[c + 2] - p[a + 2];
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  return nz > 0 && nz * nz > FACING * FACING * (nx * nx + ny * ny + nz * nz);
}

/** The faces that hang together with the one nearest to the middle, and of those the ones that meet the frame. */
function connected({ places: p, faces, from }: Near, half: number): PatchSurface | null {
  const sets = new Sets(from.length);
  let nearest = Infinity;
  let seed = -1;
  for (let i = 0; i < faces.length; i += 3) {
    const [a, b, c] = [faces[i], faces[i + 1], faces[i + 2]];
    sets.join(a, b);
    sets.join(a, c);
    const x = p[a * 3] + p[b * 3] + p[c * 3];
    const y = p[a * 3 + 1] + p[b * 3 + 1] + p[c * 3 + 1];
    const z = p[a * 3 + 2] + p[b * 3 + 2] + p[c * 3 + 2];
    const distance = x * x + y * y + z * z;
    if (distance >= nearest) continue;
    nearest = distance;
    seed = a;
  }
  if (seed < 0) return null;
  const own = sets.of(seed);
  const number = new Int32Array(from.length).fill(-1);
  const triangles = new Uint32Array(faces.length);
  const kept = new Uint32Array(from.length);
  let corners = 0;
  let vertices = 0;
  for (let i = 0; i < faces.length; i += 3) {
    if (sets.of(faces[i]) !== own) continue;
    const [a, b, c] = [faces[i] * 3, faces[i + 1] * 3, faces[i + 2] * 3];
    if (apart(p[a], p[b], p[c], half) || apart(p[a + 1], p[b + 1], p[c + 1], half)) continue;
    for (let k = 0; k < 3; k++) {
      const v = faces[i + k];
      if (number[v] < 0) {
        number[v] = vertices;
        kept[vertices++] = v;
      }
      triangles[corners++] = number[v];
    }
  }
  if (corners === 0) return null;
  const positions = new Float32Array(vertices * 3);
  const origin = new Uint32Array(vertices);
  for (let i = 0; i < vertices; i++) {
    const v = kept[i];
    origin[i] = from[v];
    positions[i * 3] = p[v * 3];
    positions[i * 3 + 1] = p[v * 3 + 1];
    positions[i * 3 + 2] = p[v * 3 + 2];
  }
  return { positions, triangles: triangles.slice(0, corners), from: origin };
}

/** Leaves whose box may meet the frame: told by the sphere round the box. */
function leavesInFrame(mesh: MeshArrays, { at, right, up, out }: PatchFrame, reach: number, deep: number): number[] {
  const { boxes, leafBase, leafCount } = mesh;
  const found: number[] = [];
  for (let leaf = 0; leaf < leafCount; leaf++) {
    const b = (leafBase + leaf) * 6;
    const x = (boxes[b] + boxes[b + 3]) / 2 - at[0];
    const y = (boxes[b + 1] + boxes[b + 4]) / 2 - at[1];
    const z = (boxes[b + 2] + boxes[b + 5]) / 2 - at[2];
    const round = Math.hypot(boxes[b + 3] - boxes[b], boxes[b + 4] - boxes[b + 1], boxes[b + 5] - boxes[b + 2]) / 2;
    const off = (axis: readonly [number, number, number]): number =>
      Math.abs(x * axis[0] + y * axis[1] + z * axis[2]) - round;
    if (off(right) <= reach && off(up) <= reach && off(out) <= deep) found.push(leaf);
  }
  return found;
}
