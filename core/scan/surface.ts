/**
 * The surface that a patch's frame looks at, in the frame's own axes: x right, y up, z out of it.
 *
 * What belongs to it hangs together with the surface at the frame's centre (sheets.ts): tops and bottoms walled all
 * round count, the scan's other side and what lies behind a hole don't. O(triangles of the leaves that meet the frame).
 */
import type { MeshArrays } from '#core/mesh';
import type { PatchFrame } from './axes';
import { apart } from './apart';
import { belonging } from './sheets';

export interface PatchSurface {
  /** x, y, z in the frame’s axes, body units. */
  positions: Float32Array;
  /** Those that face the frame: what heights are cast of. */
  triangles: Uint32Array;
  /** Upright walls and undersides that hang together with them. */
  turnedAway: Uint32Array;
  /** Number in the scan of each vertex. */
  from: Uint32Array;
}

/** What lies this much beyond the frame still counts for what hangs together, in sides. */
const BEYOND = 0.25;
/** What lies deeper, or farther out, belongs to something else, in sides. */
const DEEP = 1;

export function allFaces({ triangles, turnedAway }: PatchSurface): Uint32Array {
  if (turnedAway.length === 0) return triangles;
  const all = new Uint32Array(triangles.length + turnedAway.length);
  all.set(triangles);
  all.set(turnedAway, triangles.length);
  return all;
}

/** Null when nothing of the scan lies in the frame. */
export function patchSurface(mesh: MeshArrays, frame: PatchFrame): PatchSurface | null {
  const reach = frame.side * (0.5 + BEYOND);
  const deep = frame.side * DEEP;
  const near = placedIn(mesh, frame, leavesInFrame(mesh, frame, reach, deep));
  const { places: p, faces } = near;
  let count = 0;
  for (let i = 0; i < faces.length; i += 3) {
    const a = faces[i] * 3;
    const b = faces[i + 1] * 3;
    const c = faces[i + 2] * 3;
    if (apart(p[a], p[b], p[c], reach) || apart(p[a + 1], p[b + 1], p[c + 1], reach)) continue;
    if (apart(p[a + 2], p[b + 2], p[c + 2], deep)) continue;
    faces[count] = faces[i];
    faces[count + 1] = faces[i + 1];
    faces[count + 2] = faces[i + 2];
    count += 3;
  }
  const own = belonging(p, faces.subarray(0, count), frame.side);
  return own && within({ ...near, faces: own }, frame.side / 2);
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

/** Of these faces the ones that meet the frame, parted by which way they look. */
function within({ places: p, faces, from }: Near, half: number): PatchSurface | null {
  const number = new Int32Array(from.length).fill(-1);
  const triangles = new Uint32Array(faces.length);
  const turnedAway = new Uint32Array(faces.length);
  const origin = new Uint32Array(from.length);
  let seen = 0;
  let hidden = 0;
  let vertices = 0;
  const numbered = (v: number): number => {
    if (number[v] < 0) {
      number[v] = vertices;
      origin[vertices++] = v;
    }
    return number[v];
  };
  for (let i = 0; i < faces.length; i += 3) {
    const [a, b, c] = [faces[i] * 3, faces[i + 1] * 3, faces[i + 2] * 3];
    if (apart(p[a], p[b], p[c], half) || apart(p[a + 1], p[b + 1], p[c + 1], half)) continue;
    const up = (p[b] - p[a]) * (p[c + 1] - p[a + 1]) - (p[b + 1] - p[a + 1]) * (p[c] - p[a]);
    for (let k = 0; k < 3; k++) {
      if (up > 0) triangles[seen++] = numbered(faces[i + k]);
      else turnedAway[hidden++] = numbered(faces[i + k]);
    }
  }
  if (seen === 0) return null;
  const positions = new Float32Array(vertices * 3);
  for (let i = 0; i < vertices; i++) {
    const v = origin[i];
    for (let k = 0; k < 3; k++) positions[i * 3 + k] = p[v * 3 + k];
    origin[i] = from[v];
  }
  return {
    positions,
    triangles: triangles.slice(0, seen),
    turnedAway: turnedAway.slice(0, hidden),
    from: origin.slice(0, vertices),
  };
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
