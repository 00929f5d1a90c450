/**
 * A part's seat: which way is up, which way forward, and the point it rests on. Set down, the seat's up lies on the
 * dab's normal, its forward on the dab's turn, its rest point on the surface.
 */
import { faceNormal, type RawMesh } from '#core/mesh';
import type { PartSeat } from '#core/settings';
import { cross, dot, length, minus, plus, rotated, scaled, unit, type Vec3 } from '#core/vector';

export interface Seat {
  up: Vec3;
  forward: Vec3;
  /** In the part's own coordinates. */
  rest: Vec3;
}

/** As its document has it. */
export function seatOf({ up, forward, rest }: Pick<PartSeat, 'up' | 'forward' | 'rest'>): Seat {
  const vec = ({ x, y, z }: PartSeat['up']): Vec3 => [x, y, z];
  return { up: vec(up), forward: vec(forward), rest: vec(rest) };
}

export function seatFields({ up, forward, rest }: Seat): Pick<PartSeat, 'up' | 'forward' | 'rest'> {
  const fields = ([x, y, z]: Vec3): PartSeat['up'] => ({ x, y, z });
  return { up: fields(up), forward: fields(forward), rest: fields(rest) };
}

/** The part on its seat: across, forward and up are x, y and z, and its rest point is the origin. */
export function stood({ positions: p, triangles }: RawMesh, seat: Seat): RawMesh {
  const positions = new Float32Array(p.length);
  for (let v = 0; v < p.length; v += 3) positions.set(ontoSeat(seat, [p[v], p[v + 1], p[v + 2]]), v);
  return { positions, triangles };
}

/** Share of the part's height, from its lowest point, whose vertices it rests on. */
const BASE_SHARE = 0.02;
/** Faces turned this near to down count as its underside. */
const FLAT_COS = Math.cos((12 * Math.PI) / 180);
/** Directions that the flattest side is looked for among. */
const MOST_DIRECTIONS = 64;

/** Up as given; forward as near to the wish as may be. Rests on the middle of what is lowest then. */
export function seatAlong({ positions: p }: Pick<RawMesh, 'positions'>, up: Vec3, wish: Vec3): Seat {
  const [toUp, forward] = upright(up, wish);
  let lowest = Infinity;
  let highest = -Infinity;
  for (let v = 0; v < p.length; v += 3) {
    const h = p[v] * toUp[0] + p[v + 1] * toUp[1] + p[v + 2] * toUp[2];
    lowest = Math.min(lowest, h);
    highest = Math.max(highest, h);
  }
  const limit = lowest + (highest - lowest) * BASE_SHARE;
  const least: [number, number, number] = [Infinity, Infinity, Infinity];
  const most: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let v = 0; v < p.length; v += 3) {
    if (p[v] * toUp[0] + p[v + 1] * toUp[1] + p[v + 2] * toUp[2] > limit) continue;
    for (let k = 0; k < 3; k++) {
      least[k] = Math.min(least[k], p[v + k]);
      most[k] = Math.max(most[k], p[v + k]);
    }
  }
  const middle = scaled([least[0] + most[0], least[1] + most[1], least[2] + most[2]], 0.5);
  // On the plane through its lowest point.
  return { up: toUp, forward, rest: minus(middle, scaled(toUp, dot(middle, toUp) - lowest)) };
}

/** The side that is seen sticks out: up is towards the eye, forward is up on the screen. */
export function seatFromView(mesh: RawMesh, toEye: Vec3, screenUp: Vec3): Seat {
  return seatAlong(mesh, toEye, screenUp);
}

/** Rests on this triangle. */
export function seatOnFace(mesh: RawMesh, triangle: number, wish: Vec3): Seat {
  return seatAlong(mesh, scaled(unit(faceNormal(mesh, triangle)), -1), wish);
}

/** Rests on the side with the most area that lies flat on the ground. */
export function seatOnFlattest(mesh: RawMesh, wish: Vec3): Seat {
  let best: Vec3 = [0, 0, -1];
  let most = -1;
  for (const down of directionsOf(mesh)) {
    const area = restingArea(mesh, down);
    if (area <= most) continue;
    most = area;
    best = down;
  }
  return seatAlong(mesh, scaled(best, -1), wish);
}

/** Up on the axis that it is nearest to, forward likewise. */
export function snappedSeat(mesh: RawMesh, { up, forward }: Seat): Seat {
  const on = nearestAxis(up);
  const ahead = minus(forward, scaled(on, dot(forward, on)));
  return seatAlong(mesh, on, nearestAxis(length(ahead) > 1e-6 ? ahead : anyAcross(on)));
}

/** By typed angles, radians: rolled about its forward, then tipped about what lies across, then turned about its up. */
export function turnedSeat(
  mesh: RawMesh,
  { up, forward }: Seat,
  angles: { roll: number; tip: number; turn: number },
): Seat {
  const rolled = rotated(up, forward, angles.roll);
  const across = cross(forward, rolled);
  const tipped = rotated(rolled, across, angles.tip);
  return seatAlong(mesh, tipped, rotated(rotated(forward, across, angles.tip), tipped, angles.turn));
}

/**
 * Columns of the turn that stands the part on its seat: across, forward and up of it become x, y and z, and its rest
 * point the origin.
 */
export function ontoSeat({ up, forward, rest }: Seat, at: Vec3): Vec3 {
  const from = minus(at, rest);
  return [dot(from, cross(forward, up)), dot(from, forward), dot(from, up)];
}

function upright(up: Vec3, wish: Vec3): [Vec3, Vec3] {
  const toUp = unit(up);
  const ahead = minus(wish, scaled(toUp, dot(wish, toUp)));
  return [toUp, unit(length(ahead) > 1e-6 * length(wish) ? ahead : anyAcross(toUp))];
}

function anyAcross(up: Vec3): Vec3 {
  return cross(Math.abs(up[2]) < 0.9 ? [0, 0, 1] : [0, 1, 0], up);
}

function nearestAxis(of: Vec3): Vec3 {
  const k = of.map(Math.abs).reduce((best, size, i, all) => (size > all[best] ? i : best), 0);
  const out: [number, number, number] = [0, 0, 0];
  out[k] = Math.sign(of[k]);
  return out;
}

/** Ways that much of the part's area is turned, the most first; alike ones are one. */
function directionsOf(mesh: RawMesh): Vec3[] {
  const cells = new Map<string, Vec3>();
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const normal = faceNormal(mesh, t);
    const size = length(normal);
    if (!(size > 0)) continue;
    const key = normal.map((n) => Math.round((n / size) * 6)).join();
    const sum = cells.get(key) ?? [0, 0, 0];
    cells.set(key, plus(sum, normal));
  }
  return [...cells.values()]
    .sort((a, b) => length(b) - length(a))
    .slice(0, MOST_DIRECTIONS)
    .map(unit);
}

/** Of the faces that are turned down and lie on the ground when this way is down. */
export function restingArea(mesh: RawMesh, down: Vec3, within = BASE_SHARE): number {
  const { positions: p, triangles } = mesh;
  let [lowest, highest] = [-Infinity, Infinity];
  const depth = (v: number): number => p[v * 3] * down[0] + p[v * 3 + 1] * down[1] + p[v * 3 + 2] * down[2];
  for (let v = 0; v < p.length / 3; v++) {
    lowest = Math.max(lowest, depth(v));
    highest = Math.min(highest, depth(v));
  }
  const limit = lowest - (lowest - highest) * within;
  let area = 0;
  for (let t = 0; t < triangles.length / 3; t++) {
    if ([0, 1, 2].some((k) => depth(triangles[t * 3 + k]) < limit)) continue;
    const normal = faceNormal(mesh, t);
    const size = length(normal);
    if (dot(normal, down) > FLAT_COS * size) area += size / 2;
  }
  return area;
}
