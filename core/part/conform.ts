/**
 * Bends a part so that its base follows the surface it stands on. The base is laid out along the surface by length of
 * arc: each point goes as far from the middle as it lies from it on the flat, in the same direction, and what stands
 * over it goes out along the surface's normal there. Where the surface bends away under it the base is laid out less
 * far, and more where it bends towards it, by as much as the surface at that height is wider or narrower than its base:
 * so every level of the part keeps its width, and the part about its volume.
 */
import { nearest, type MeshArrays } from '#core/mesh';
import { cross, dot, length, minus, plus, scaled, unit, type Vec3 } from '#core/vector';

export interface Standing {
  /** Where the middle of the base lies, on the surface. */
  origin: Vec3;
  /** Unit; up of the part. */
  normal: Vec3;
  /** Unit, square to the normal: the part's y. */
  forward: Vec3;
}

/** What a part is bent over: how the surface goes on from a place in every direction. */
export interface Ground {
  /** How far the walks went. */
  reach: number;
  /** Place and normal of each step of each walk: `WALKS` walks of `STEPS` steps and one more that is the middle. */
  places: Float64Array;
  normals: Float64Array;
  standing: Standing;
}

const WALKS = 32;
const STEPS = 10;
/** A base is laid out no less and no more than by these shares. */
const NARROWEST = 0.35;
const WIDEST = 2.5;

/** Walks over the surface in every direction, O(log triangles) a step. */
export function groundUnder(mesh: MeshArrays, standing: Standing, reach: number): Ground {
  const { origin, normal, forward } = standing;
  const across = cross(forward, normal);
  const places = new Float64Array((WALKS * STEPS + 1) * 3);
  const normals = new Float64Array((WALKS * STEPS + 1) * 3);
  places.set(origin);
  normals.set(normal);
  const step = reach / STEPS;
  for (let walk = 0; walk < WALKS; walk++) {
    const turn = (walk / WALKS) * 2 * Math.PI;
    let heading = plus(scaled(across, Math.cos(turn)), scaled(forward, Math.sin(turn)));
    let at: Vec3 = origin;
    let up: Vec3 = normal;
    for (let n = 0; n < STEPS; n++) {
      const next = walked(mesh, at, up, heading, step);
      at = next.at;
      heading = next.heading;
      up = next.up;
      const i = (1 + walk * STEPS + n) * 3;
      places.set(at, i);
      normals.set(up, i);
    }
  }
  return { reach, places, normals, standing };
}

interface Walked {
  at: Vec3;
  up: Vec3;
  heading: Vec3;
}

/** One step along the surface. Past its border it goes on straight. */
function walked(mesh: MeshArrays, at: Vec3, up: Vec3, heading: Vec3, step: number): Walked {
  const ahead = plus(at, scaled(heading, step));
  const found = nearest(mesh, ...ahead, step * 1.5);
  if (!found) return { at: ahead, up, heading };
  const there: Vec3 = [found.x, found.y, found.z];
  const raw = smoothNormal(mesh, found.triangle, there);
  const normal = dot(raw, up) < 0 ? up : raw;
  const gone = minus(there, at);
  // Corners cut short by the nearest point are walked to their full length.
  const onward = length(gone) > step * 0.2 ? scaled(gone, step / length(gone)) : scaled(heading, step);
  const place = plus(at, onward);
  const again = nearest(mesh, ...place, step);
  const on: Vec3 = again ? [again.x, again.y, again.z] : place;
  const flat = minus(heading, scaled(normal, dot(heading, normal)));
  return { at: on, up: normal, heading: length(flat) > 1e-9 ? unit(flat) : heading };
}

/** Of the corners, weighed by how near each is to the place. */
function smoothNormal({ triangles, positions: p, normals }: MeshArrays, t: number, at: Vec3): Vec3 {
  const [a, b, c] = [triangles[t * 3], triangles[t * 3 + 1], triangles[t * 3 + 2]];
  const corner = (v: number): Vec3 => [p[v * 3], p[v * 3 + 1], p[v * 3 + 2]];
  const part = (u: Vec3, v: Vec3): number => length(cross(minus(u, at), minus(v, at)));
  const [wa, wb, wc] = [part(corner(b), corner(c)), part(corner(c), corner(a)), part(corner(a), corner(b))];
  const sum: Vec3 = [0, 1, 2].map(
    (k) => normals[a * 3 + k] * wa + normals[b * 3 + k] * wb + normals[c * 3 + k] * wc,
  ) as unknown as Vec3;
  return length(sum) > 0 ? unit(sum) : [normals[a * 3], normals[a * 3 + 1], normals[a * 3 + 2]];
}

/**
 * A place of the part as it stands on its seat (its base at z = 0, scaled to the surface's units) on the bent surface.
 */
export function conformed(ground: Ground, [x, y, z]: Vec3): Vec3 {
  const { reach, standing } = ground;
  const far = Math.hypot(x, y);
  const turn = Math.atan2(y, x);
  let out = far;
  // The bend counts where the base comes to lie, which is found by going there twice.
  for (let n = 0; n < 2 && far > 0; n++) {
    const bend = bendTo(ground, Math.min(out, reach), turn);
    out = far / Math.min(1 / NARROWEST, Math.max(1 / WIDEST, 1 + bend * z));
  }
  const [at, up] = read(ground, out, turn);
  return far > 0 ? plus(at, scaled(up, z)) : plus(standing.origin, scaled(standing.normal, z));
}

/** How much the surface turns away on the way there, radians a unit; below zero where it turns up. */
function bendTo(ground: Ground, far: number, turn: number): number {
  if (!(far > 0)) return 0;
  const { normal, forward } = ground.standing;
  const [, up] = read(ground, far, turn);
  const across = cross(forward, normal);
  const heading = plus(scaled(across, Math.cos(turn)), scaled(forward, Math.sin(turn)));
  return Math.atan2(dot(up, heading), dot(up, normal)) / far;
}

/** Place and normal so far out in a direction: between the walks and their steps, straight beyond the last. */
function read({ places, normals, reach }: Ground, far: number, turn: number): [Vec3, Vec3] {
  const round = ((turn / (2 * Math.PI)) * WALKS + WALKS) % WALKS;
  const walk = Math.floor(round) % WALKS;
  const next = (walk + 1) % WALKS;
  const share = round - Math.floor(round);
  const steps = Math.min((far / reach) * STEPS, STEPS);
  const n = Math.min(Math.floor(steps), STEPS - 1);
  const on = steps - n;
  const of = (from: Float64Array, w: number, s: number): Vec3 => {
    const i = s === 0 ? 0 : (1 + w * STEPS + s - 1) * 3;
    return [from[i], from[i + 1], from[i + 2]];
  };
  // Between two walks the surface bulges as it does from step to step: cubic along, on a chord's arc across.
  const along = (from: Float64Array, w: number): Vec3 => mixed(of(from, w, n), of(from, w, n + 1), on);
  const up = unit(mixed(along(normals, walk), along(normals, next), share));
  const [p, q] = [arc(of, places, normals, walk, n, on), arc(of, places, normals, next, n, on)];
  const at = bowed(p, q, along(normals, walk), along(normals, next), share);
  const beyond = far - reach;
  if (beyond <= 0) return [at, up];
  const before = mixed(of(places, walk, STEPS - 1), of(places, next, STEPS - 1), share);
  const onward = minus(at, before);
  return [length(onward) > 0 ? plus(at, scaled(unit(onward), beyond)) : at, up];
}

const mixed = (a: Vec3, b: Vec3, share: number): Vec3 => plus(scaled(a, 1 - share), scaled(b, share));

function arc(
  of: (from: Float64Array, w: number, s: number) => Vec3,
  places: Float64Array,
  normals: Float64Array,
  walk: number,
  n: number,
  on: number,
): Vec3 {
  return bowed(of(places, walk, n), of(places, walk, n + 1), of(normals, walk, n), of(normals, walk, n + 1), on);
}

/**
 * Between two places of a surface, bowed as their normals say: as far over the chord as an arc that leaves it at the
 * angles of the normals.
 */
function bowed(a: Vec3, b: Vec3, na: Vec3, nb: Vec3, share: number): Vec3 {
  const chord = minus(b, a);
  const middle = plus(na, nb);
  const size = length(middle);
  const at = mixed(a, b, share);
  if (!(size > 0)) return at;
  // Twice the angle between chord and arc, by how the normals lean along the chord; the height of a parabola.
  const lean = (dot(nb, chord) - dot(na, chord)) / 2;
  return plus(at, scaled(middle, (lean * share * (1 - share)) / size));
}
