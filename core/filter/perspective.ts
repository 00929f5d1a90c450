/**
 * Straightens what was photographed from the side: four corners of something that is a rectangle in truth become the
 * corners of the picture. Read by the square-to-quadrilateral mapping (Heckbert 1989), Catmull–Rom between pixels.
 *
 * The rectangle's proportion follows from its corners alone where the camera's axis goes through the middle of the
 * picture and its pixels are square (Zhang and He, "Whiteboard scanning and image enhancement", 2007); from the mean
 * of opposite sides where that gives no answer.
 */
import { newPicture, type Picture } from '#core/picture';
import { cubicAt } from './shape';

/** x, y of upper left, upper right, lower right and lower left, 0–1 of the picture's width and height. */
export type Corners = readonly number[];

type Point = readonly [number, number];

function pointsOf(corners: Corners, { width, height }: { width: number; height: number }): Point[] {
  return [0, 1, 2, 3].map((k) => [corners[k * 2] * width, corners[k * 2 + 1] * height]);
}

const cross = ([ax, ay]: Point, [bx, by]: Point, [cx, cy]: Point): number =>
  (bx - ax) * (cy - by) - (by - ay) * (cx - bx);

/** Whether the corners go round once, clockwise as seen, without a dent; each at least 1 % of the picture away. */
export function isFourSided(corners: Corners): boolean {
  const p = pointsOf(corners, { width: 1, height: 1 });
  return p.every(
    (at, k) =>
      cross(at, p[(k + 1) % 4], p[(k + 2) % 4]) > 1e-5 &&
      p.every((other, n) => n <= k || Math.hypot(at[0] - other[0], at[1] - other[1]) > 0.01),
  );
}

/** Width over height of the true rectangle. */
export function proportionOf(corners: Corners, size: { width: number; height: number }): number {
  const [tl, tr, br, bl] = pointsOf(corners, size).map(([x, y]) => [x - size.width / 2, y - size.height / 2] as const);
  const mean =
    (Math.hypot(tr[0] - tl[0], tr[1] - tl[1]) + Math.hypot(br[0] - bl[0], br[1] - bl[1])) /
    (Math.hypot(bl[0] - tl[0], bl[1] - tl[1]) + Math.hypot(br[0] - tr[0], br[1] - tr[1]));
  // As homogeneous points; a × b · c, each with 1 as its third number.
  const volume = (a: Point, b: Point, c: Point): number =>
    (a[1] - b[1]) * c[0] + (b[0] - a[0]) * c[1] + a[0] * b[1] - a[1] * b[0];
  const k2 = volume(tl, br, bl) / volume(tr, br, bl);
  const k3 = volume(tl, br, tr) / volume(bl, br, tr);
  const across = [k2 * tr[0] - tl[0], k2 * tr[1] - tl[1], k2 - 1];
  const down = [k3 * bl[0] - tl[0], k3 * bl[1] - tl[1], k3 - 1];
  // Opposite sides that are all but parallel tell nothing about the lens.
  if (Math.abs(across[2]) < 0.01 || Math.abs(down[2]) < 0.01) return mean;
  const focal = -(across[0] * down[0] + across[1] * down[1]) / (across[2] * down[2]);
  const longer = Math.max(size.width, size.height);
  // No lens sees wider or narrower than these.
  if (!(focal > (0.3 * longer) ** 2 && focal < (20 * longer) ** 2)) return mean;
  const square = ([x, y, z]: number[]): number => (x * x + y * y) / focal + z * z;
  return Math.sqrt(square(across) / square(down));
}

/** Pixels of the straightened picture: its sides as long as the longer of opposite sides, at this proportion. */
export function straightenedSize(
  corners: Corners,
  size: { width: number; height: number },
  proportion: number,
): { width: number; height: number } {
  const [tl, tr, br, bl] = pointsOf(corners, size);
  const across = Math.max(Math.hypot(tr[0] - tl[0], tr[1] - tl[1]), Math.hypot(br[0] - bl[0], br[1] - bl[1]));
  const down = Math.max(Math.hypot(bl[0] - tl[0], bl[1] - tl[1]), Math.hypot(br[0] - tr[0], br[1] - tr[1]));
  const wide = Math.max(across, down * proportion);
  const most = Math.max(size.width, size.height);
  const scale = Math.min(1, most / Math.max(wide, wide / proportion));
  return {
    width: Math.max(1, Math.round(wide * scale)),
    height: Math.max(1, Math.round((wide / proportion) * scale)),
  };
}

/** Leads from the unit square to a four-sided shape: ((a u + b v + c) / w, (d u + e v + f) / w), w = g u + h v + 1. */
function squareTo([[x0, y0], [x1, y1], [x2, y2], [x3, y3]]: readonly Point[]) {
  const [sx, sy] = [x0 - x1 + x2 - x3, y0 - y1 + y2 - y3];
  const [dx1, dy1, dx2, dy2] = [x1 - x2, y1 - y2, x3 - x2, y3 - y2];
  const whole = dx1 * dy2 - dx2 * dy1;
  const g = (sx * dy2 - dx2 * sy) / whole;
  const h = (dx1 * sy - sx * dy1) / whole;
  return { a: x1 - x0 + g * x1, b: x3 - x0 + h * x3, c: x0, d: y1 - y0 + g * y1, e: y3 - y0 + h * y3, f: y0, g, h };
}

/** The place in a four-sided shape, given by its corners in turn, of a place of the unit square. */
export function inFourSided(corners: readonly Point[]): (u: number, v: number) => [number, number] {
  const { a, b, c, d, e, f, g, h } = squareTo(corners);
  return (u, v) => {
    const w = g * u + h * v + 1;
    return [(a * u + b * v + c) / w, (d * u + e * v + f) / w];
  };
}

/** `corners` are four-sided. Beyond the picture lies `ground`. */
export function straightenedFrom(
  from: Picture,
  corners: Corners,
  { width, height }: { width: number; height: number },
  ground: number,
): Picture {
  const { a, b, c, d, e, f, g, h } = squareTo(pointsOf(corners, from));
  const out = newPicture(width, height);
  for (let j = 0; j < height; j++) {
    const v = (j + 0.5) / height;
    for (let i = 0; i < width; i++) {
      const u = (i + 0.5) / width;
      const w = g * u + h * v + 1;
      out.data[j * width + i] = cubicAt(from, (a * u + b * v + c) / w - 0.5, (d * u + e * v + f) / w - 0.5, ground);
    }
  }
  return out;
}
