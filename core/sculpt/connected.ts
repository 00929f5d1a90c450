/**
 * Keeps of what a dab touches only what hangs together with the point it was set on, within the dab: not the other lip,
 * not the plinth under the chest. The way may lead over places in the dab that are turned away and take nothing.
 */
import type { DabFrame, ResolvedBrush, Vec3 } from '#core/brush';
import { RING_VERTEX, wordBefore } from '#core/mesh';
import type { Surface } from './surface';

/**
 * Work on what was gathered last; costs what the dab holds. `triangle` is the one that was hit, null for a copy, which
 * begins at the touched vertex nearest to its middle. `fromStart` as in gathering. Answers how many are left.
 */
export function keepConnected(
  s: Surface,
  frame: DabFrame,
  brush: ResolvedBrush,
  fromStart: boolean,
  triangle: number | null,
): number {
  const { mesh, touched, u, v, vertexMark, list } = s;
  const { ringStarts, rings } = mesh;
  if (s.touchedCount === 0) return 0;
  const isTouched = ++s.mark;
  for (let i = 0; i < s.touchedCount; i++) vertexMark[touched[i]] = isTouched;
  const reached = ++s.mark;
  let found = 0;
  const reach = (vertex: number): void => {
    vertexMark[vertex] = reached;
    list[found++] = vertex;
  };
  const corners = triangle === null ? [] : [0, 1, 2].map((k) => mesh.triangles[triangle * 3 + k]);
  for (const vertex of corners) if (vertexMark[vertex] === isTouched) reach(vertex);
  if (found === 0) reach(nearest(s, frame.origin, fromStart));
  for (let next = 0; next < found; next++) {
    const vertex = list[next];
    for (let k = ringStarts[vertex]; k < ringStarts[vertex + 1]; k++) {
      const other = rings[k] & RING_VERTEX;
      if (vertexMark[other] === reached) continue;
      if (vertexMark[other] === isTouched || isInside(s, other, frame, brush, fromStart)) reach(other);
    }
  }
  let count = 0;
  for (let i = 0; i < s.touchedCount; i++) {
    if (vertexMark[touched[i]] !== reached) continue;
    touched[count] = touched[i];
    u[count] = u[i];
    v[count] = v[i];
    count++;
  }
  s.touchedCount = count;
  return count;
}

function nearest(s: Surface, to: Vec3, fromStart: boolean): number {
  let best = Infinity;
  let vertex = s.touched[0];
  for (let i = 0; i < s.touchedCount; i++) {
    const [x, y, z] = placeOf(s, s.touched[i], fromStart);
    const square = (x - to[0]) ** 2 + (y - to[1]) ** 2 + (z - to[2]) ** 2;
    if (square >= best) continue;
    best = square;
    vertex = s.touched[i];
  }
  return vertex;
}

function isInside(s: Surface, vertex: number, frame: DabFrame, brush: ResolvedBrush, fromStart: boolean): boolean {
  const { origin: o, tangent: t, bitangent: b, normal: n, radius } = frame;
  const [px, py, pz] = placeOf(s, vertex, fromStart);
  const [x, y, z] = [(px - o[0]) / radius, (py - o[1]) / radius, (pz - o[2]) / radius];
  if (Math.abs(x * n[0] + y * n[1] + z * n[2]) > brush.reach) return false;
  const u = x * t[0] + y * t[1] + z * t[2];
  const v = x * b[0] + y * b[1] + z * b[2];
  return brush.square ? Math.abs(u) <= 1 && Math.abs(v) <= 1 : u * u + v * v <= 1;
}

function placeOf(s: Surface, vertex: number, fromStart: boolean): Vec3 {
  const word = fromStart ? wordBefore(s.start, vertex) : -1;
  const [from, at] = word < 0 ? [s.mesh.positions, vertex * 3] : [s.start.heap, word];
  return [from[at], from[at + 1], from[at + 2]];
}
