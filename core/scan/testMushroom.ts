/** A mushroom for tests and the bench: a cap of radius 0.47 on a stalk of 0.26, 0.41 high, every corner rounded. */
import { buildMesh, nearest, plane, type RawMesh } from '#core/mesh';

export const MUSHROOM_HEIGHT = 0.41;
/** The form is within this of the middle; the sheet round it is flat. */
const REACH = 0.6;

type Point = readonly [number, number];

/** Radius and height from the sheet to the top of the cap, by steps of one length. */
function outline(): Point[] {
  const corners: Point[] = [
    [REACH, 0],
    [0.26, 0],
    [0.26, 0.25],
    [0.47, 0.25],
    [0.47, 0.31],
  ];
  for (let i = 1; i <= 20; i++) corners.push([0.47 * (1 - i / 20), 0.31 + 0.1 * (1 - (1 - i / 20) ** 2)]);
  let points = evenly(corners, 400);
  for (let round = 0; round < 80; round++)
    points = points.map(([r, z], i) => {
      const [before, after] = [points[i - 1], points[i + 1]];
      return before && after ? [(before[0] + 2 * r + after[0]) / 4, (before[1] + 2 * z + after[1]) / 4] : [r, z];
    });
  return evenly(points, 4000);
}

function evenly(points: readonly Point[], count: number): Point[] {
  const way = [0];
  for (let i = 1; i < points.length; i++)
    way.push(way[i - 1] + Math.hypot(points[i][0] - points[i - 1][0], points[i][1] - points[i - 1][1]));
  let at = 1;
  return Array.from({ length: count + 1 }, (_, i) => {
    const target = (way[way.length - 1] * i) / count;
    while (at < way.length - 1 && way[at] < target) at++;
    const share = (target - way[at - 1]) / (way[at] - way[at - 1]);
    return [0, 1].map((k) => points[at - 1][k] + share * (points[at][k] - points[at - 1][k])) as unknown as Point;
  });
}

/** A sheet of 2 × 2 with cells² squares, drawn over the mushroom. */
export function mushroom(cells: number): RawMesh {
  const along = outline();
  const raw = plane(cells, 2);
  const { positions: p } = raw;
  for (let v = 0; v < p.length; v += 3) {
    const r = Math.hypot(p[v], p[v + 1]);
    if (r >= REACH) continue;
    const [to, height] = along[Math.round((1 - r / REACH) * (along.length - 1))];
    const share = r > 0 ? to / r : 0;
    p[v] *= share;
    p[v + 1] *= share;
    p[v + 2] = height;
  }
  return raw;
}

/** A flat sheet of 2 × 2 stamped with offsets over the whole of it. */
export function stampedSheet(offsets: Float32Array, size: number, cells: number): RawMesh {
  const raw = plane(cells, 2);
  const { positions: p } = raw;
  const within = (x: number): number => Math.max(0, Math.min(size - 1.001, x));
  for (let v = 0; v < p.length; v += 3) {
    const x = within((p[v] / 2 + 0.5) * size - 0.5);
    const y = within((0.5 - p[v + 1] / 2) * size - 0.5);
    const [i, j] = [Math.floor(x), Math.floor(y)];
    for (let k = 0; k < 3; k++) {
      const at = (column: number, row: number): number => offsets[(row * size + column) * 3 + k];
      const top = at(i, j) + (at(i + 1, j) - at(i, j)) * (x - i);
      const bottom = at(i, j + 1) + (at(i + 1, j + 1) - at(i, j + 1)) * (x - i);
      p[v + k] += 2 * (top + (bottom - top) * (y - j));
    }
  }
  return raw;
}

/** Largest distance from points of one, every so many, to the surface of the other, near the form. */
export function farthest(from: RawMesh, to: RawMesh, every: number): number {
  const mesh = buildMesh(to, { ringless: true });
  const { positions: p } = from;
  let worst = 0;
  for (let v = 0; v < p.length; v += 3 * every) {
    if (Math.max(Math.abs(p[v]), Math.abs(p[v + 1])) > 0.95) continue;
    worst = Math.max(worst, nearest(mesh, p[v], p[v + 1], p[v + 2])?.distance ?? Infinity);
  }
  return worst;
}
