/**
 * The points of a zone spread out over a frame by weighted means, from a coarse copy to the whole (restPlaces.ts says
 * why so). Weights are symmetric, so that conjugate gradients find the rest.
 */
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { normalsOfFaces } from '#core/mesh';
import { faceArea } from './faceArea';

export interface Surface {
  positions: Float32Array;
  triangles: Uint32Array;
  /** Side of the frame, body units. */
  side: number;
}

/** The coarsest copy has about so many points in the zone. */
const COARSEST = 3_000;
const LEAST = 200;
/** The error isn’t limited: the count is what is asked for. */
const ANY_ERROR = 1e9;
const COARSER = 0.25;
const EVENED = 10;
/** Of the square of the stretch; all of it swings. */
const EASED = 0.25;
/** A bend of this many radians a frame side is as good as flat, as 1 ÷ it; the finest is so many times finer. */
const BENT = 1 / 5;
const FINEST = 20;
const SOLVING = 200;
/** Times that the stretch is evened: on the coarsest copy, and on each finer one. */
const FINER = 2;
const AGAIN = 3;
const RELAXING = 30;
/** The square of what is left, of what was at first. */
const CLOSE = 1e-10;
const SMOOTHING = 6;

/** What is spread out, and how much finer than flat places each of its points is to be laid. */
interface Form {
  p: Float32Array;
  bend: Float32Array;
}

/** Points of the zone and the pinned ones beside it, at one fineness. */
interface Level {
  /** Faces by the points. */
  faces: Uint32Array;
  /** Points of this level, by number, that are spread out. */
  free: Uint32Array;
  /** Points of this level that stay. */
  pinned: Uint32Array;
}

/**
 * x and y of each vertex, z nought; null when it was cancelled. `flat` holds those that stay. The simplifier must be
 * ready.
 */
export function spread(
  { positions: p, triangles, side }: Surface,
  flat: Float32Array,
  zone: Uint8Array,
  going: (share: number) => boolean,
): Float32Array | null {
  const levels = levelsOf(p, triangles, zone);
  const bend = bends(p, triangles, side);
  const rest = flat.slice();
  const ease = new Float32Array(zone.length).fill(1);
  // Pinned points are known from the start; free ones once a level has placed them.
  const known = zone.map((free) => (free ? 0 : 1));
  let work = 0;
  const whole = levels.reduce(
    (sum, { free }, i) => sum + free.length * (i === 0 ? EVENED * SOLVING : FINER * RELAXING),
    0,
  );
  const done = (points: number): boolean => going((work += points) / whole);
  for (const [i, level] of levels.entries()) {
    const links = linksOf(p, level);
    guess(level, links, known, rest, ease);
    const [times, rounds] = i === 0 ? [EVENED, SOLVING] : [FINER, RELAXING];
    for (let n = 0; n < times; n++) {
      relax(level, links, rest, ease, rounds);
      if (n < times - 1) even({ p, bend }, level, rest, ease);
      if (!done(level.free.length * rounds)) return null;
    }
    // What is left turned over is nearly always not yet at rest.
    for (let n = 0; n < AGAIN && turnedOver(rest, level.faces) > 0; n++) relax(level, links, rest, ease, rounds * 2);
  }
  return rest;
}

/** From the coarsest to the whole. */
function levelsOf(p: Float32Array, triangles: Uint32Array, zone: Uint8Array): Level[] {
  const touching: number[] = [];
  for (let i = 0; i < triangles.length; i += 3)
    if (zone[triangles[i]] || zone[triangles[i + 1]] || zone[triangles[i + 2]])
      touching.push(triangles[i], triangles[i + 1], triangles[i + 2]);
  const levels = [levelOf(Uint32Array.from(touching), zone)];
  while (levels[0].free.length > COARSEST) {
    const { faces, free } = levels[0];
    const aim = Math.floor((faces.length * COARSER) / 3) * 3;
    const [coarse] = MeshoptSimplifier.simplify(faces, p, 3, aim, ANY_ERROR, ['Regularize']);
    const level = levelOf(coarse.slice(), zone);
    // Where little more can be joined, this is coarse enough.
    if (level.free.length < LEAST || level.free.length > free.length * 0.7) break;
    levels.unshift(level);
  }
  return levels;
}

function levelOf(faces: Uint32Array, zone: Uint8Array): Level {
  const seen = new Uint8Array(zone.length);
  for (let i = 0; i < faces.length; i++) seen[faces[i]] = 1;
  const free: number[] = [];
  const pinned: number[] = [];
  for (let v = 0; v < seen.length; v++) if (seen[v]) (zone[v] ? free : pinned).push(v);
  return { faces, free: Uint32Array.from(free), pinned: Uint32Array.from(pinned) };
}

/** Neighbours of each free point with their weights. */
interface Links {
  /** Place among the free points of each vertex, −1 for others. */
  at: Int32Array;
  start: Uint32Array;
  end: Uint32Array;
  beside: Uint32Array;
  weight: Float32Array;
}

/**
 * Half the sum of the cotangents of the angles across each edge, those of wide angles kept above nought, so that every
 * weight is positive: then no face turns over, whatever the mesh.
 */
function linksOf(p: Float32Array, { faces, free }: Level): Links {
  const at = new Int32Array(p.length / 3).fill(-1);
  free.forEach((v, i) => (at[v] = i));
  const start = new Uint32Array(free.length + 1);
  for (let f = 0; f < faces.length; f++) if (at[faces[f]] >= 0) start[at[faces[f]] + 1] += 2;
  for (let i = 0; i < free.length; i++) start[i + 1] += start[i];
  const beside = new Uint32Array(start[free.length]);
  const weight = new Float32Array(start[free.length]);
  const fill = start.slice();
  const link = (i: number, w: number, across: number): void => {
    if (i < 0) return;
    let j = start[i];
    while (j < fill[i] && beside[j] !== w) j++;
    if (j === fill[i]) beside[fill[i]++] = w;
    weight[j] += across;
  };
  for (let f = 0; f < faces.length; f += 3) {
    for (let k = 0; k < 3; k++) {
      const [a, b] = [faces[f + ((k + 1) % 3)], faces[f + ((k + 2) % 3)]];
      if (at[a] < 0 && at[b] < 0) continue;
      const across = cotangent(p, faces[f + k] * 3, a * 3, b * 3);
      link(at[a], b, across);
      link(at[b], a, across);
    }
  }
  return { at, start, end: fill, beside, weight };
}

function cotangent(p: Float32Array, v: number, a: number, b: number): number {
  const [ax, ay, az] = [p[a] - p[v], p[a + 1] - p[v + 1], p[a + 2] - p[v + 2]];
  const [bx, by, bz] = [p[b] - p[v], p[b + 1] - p[v + 1], p[b + 2] - p[v + 2]];
  const cross = Math.hypot(ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx);
  return Math.max(0.1, Math.min(10, (ax * bx + ay * by + az * bz) / Math.max(1e-30, cross)));
}

/** Points that no coarser level had begin at the mean of those round them that are known, front by front. */
function guess(level: Level, links: Links, known: Uint8Array, rest: Float32Array, ease: Float32Array): void {
  let waiting = Array.from(level.free.keys()).filter((i) => !known[level.free[i]]);
  while (waiting.length > 0) {
    const later: number[] = [];
    const placed: number[] = [];
    for (const i of waiting) {
      let [sum, x, y, e] = [0, 0, 0, 0];
      for (let j = links.start[i]; j < links.end[i]; j++) {
        const w = links.beside[j];
        if (!known[w]) continue;
        sum += links.weight[j];
        x += links.weight[j] * rest[w * 3];
        y += links.weight[j] * rest[w * 3 + 1];
        e += links.weight[j] * ease[w];
      }
      if (sum === 0) {
        later.push(i);
        continue;
      }
      const v = level.free[i];
      rest[v * 3] = x / sum;
      rest[v * 3 + 1] = y / sum;
      ease[v] = e / sum;
      placed.push(v);
    }
    // What hangs on nothing that is pinned stays under itself.
    if (placed.length === 0) break;
    for (const v of placed) known[v] = 1;
    waiting = later;
  }
  for (const i of waiting) known[level.free[i]] = 1;
}

/**
 * Brings the points near their weighted means: conjugate gradients over both coordinates, the weight of each link times
 * the ease at its ends (so the matrix stays symmetric), preconditioned by its diagonal; then some rounds of Gauss and
 * Seidel, which put right what is uneven from point to point.
 */
function relax({ free }: Level, links: Links, rest: Float32Array, ease: Float32Array, rounds: number): void {
  const { at, start, end, beside, weight } = links;
  const n = free.length;
  const own = new Float32Array(weight.length);
  const sums = new Float32Array(n);
  const residual = new Float32Array(n * 2);
  for (let i = 0; i < n; i++) {
    const v = free[i];
    let [x, y] = [0, 0];
    for (let j = start[i]; j < end[i]; j++) {
      const w = beside[j];
      own[j] = weight[j] * ease[w] * ease[v];
      sums[i] += own[j];
      x += own[j] * (rest[w * 3] - rest[v * 3]);
      y += own[j] * (rest[w * 3 + 1] - rest[v * 3 + 1]);
    }
    residual[i * 2] = x;
    residual[i * 2 + 1] = y;
  }
  const way = new Float32Array(n * 2);
  const bent = new Float32Array(n * 2);
  let [first, before] = [0, 0];
  for (let round = 0; round < rounds; round++) {
    let size = 0;
    for (let i = 0; i < n; i++) if (sums[i] > 0) size += (residual[i * 2] ** 2 + residual[i * 2 + 1] ** 2) / sums[i];
    if (round === 0) first = size;
    if (!(size > first * CLOSE)) break;
    const keep = round === 0 ? 0 : size / before;
    before = size;
    for (let i = 0; i < n; i++) {
      const inverse = sums[i] > 0 ? 1 / sums[i] : 0;
      way[i * 2] = residual[i * 2] * inverse + keep * way[i * 2];
      way[i * 2 + 1] = residual[i * 2 + 1] * inverse + keep * way[i * 2 + 1];
    }
    let along = 0;
    for (let i = 0; i < n; i++) {
      let x = sums[i] * way[i * 2];
      let y = sums[i] * way[i * 2 + 1];
      for (let j = start[i]; j < end[i]; j++) {
        const to = at[beside[j]];
        if (to < 0) continue;
        x -= own[j] * way[to * 2];
        y -= own[j] * way[to * 2 + 1];
      }
      bent[i * 2] = x;
      bent[i * 2 + 1] = y;
      along += x * way[i * 2] + y * way[i * 2 + 1];
    }
    if (!(along > 0)) break;
    const step = size / along;
    for (let i = 0; i < n; i++) {
      const v = free[i] * 3;
      rest[v] += step * way[i * 2];
      rest[v + 1] += step * way[i * 2 + 1];
      residual[i * 2] -= step * bent[i * 2];
      residual[i * 2 + 1] -= step * bent[i * 2 + 1];
    }
  }
  for (let round = 0; round < SMOOTHING; round++) {
    for (let i = 0; i < n; i++) {
      if (sums[i] === 0) continue;
      let [x, y] = [0, 0];
      for (let j = start[i]; j < end[i]; j++) {
        const w = beside[j] * 3;
        x += own[j] * rest[w];
        y += own[j] * rest[w + 1];
      }
      rest[free[i] * 3] = x / sums[i];
      rest[free[i] * 3 + 1] = y / sums[i];
    }
  }
}

/** Neighbours where the surface is stretched thin over the frame weigh less, those where it is crowded more. */
function even({ p, bend }: Form, { faces, free, pinned }: Level, rest: Float32Array, ease: Float32Array): void {
  const size = new Float32Array(p.length / 3);
  const stretch = new Float32Array(p.length / 3);
  let [wholeSize, whole] = [0, 0];
  for (let f = 0; f < faces.length; f += 3) {
    const [a, b, c] = [faces[f] * 3, faces[f + 1] * 3, faces[f + 2] * 3];
    const s = faceArea(p, a, b, c);
    const bent = (bend[faces[f]] + bend[faces[f + 1]] + bend[faces[f + 2]]) / 3;
    const square = stretchOf(p, rest, a, b, c) * bent;
    wholeSize += s;
    whole += s * square;
    for (let k = 0; k < 3; k++) {
      size[faces[f + k]] += s;
      stretch[faces[f + k]] += s * square;
    }
  }
  const mean = wholeSize > 0 ? whole / wholeSize : 0;
  if (mean === 0) return;
  const eased = (v: number): void => {
    if (size[v] === 0) return;
    const factor = Math.max(0.06, Math.min(16, (mean * size[v]) / Math.max(1e-30, stretch[v])));
    ease[v] = Math.max(1e-3, Math.min(1e3, ease[v] * factor ** EASED));
  };
  free.forEach(eased);
  pinned.forEach(eased);
}

/** How much finer bent places are laid out than flat ones: a chord misses an arc by its length squared × the bend. */
function bends(p: Float32Array, triangles: Uint32Array, side: number): Float32Array {
  const normals = new Float32Array(p.length);
  normalsOfFaces({ positions: p, triangles, normals, vertexCount: p.length / 3 });
  const most = new Float32Array(p.length / 3);
  for (let i = 0; i < triangles.length; i++) {
    const a = triangles[i];
    const b = triangles[i % 3 === 2 ? i - 2 : i + 1];
    let [turned, length] = [0, 0];
    for (let k = 0; k < 3; k++) {
      turned += (normals[a * 3 + k] - normals[b * 3 + k]) ** 2;
      length += (p[a * 3 + k] - p[b * 3 + k]) ** 2;
    }
    const bend = length > 0 ? Math.sqrt(turned / length) : 0;
    most[a] = Math.max(most[a], bend);
    most[b] = Math.max(most[b], bend);
  }
  return most.map((bend) => Math.max(1, Math.min(FINEST, bend * side * BENT)));
}

/** Mean square of the lengths on the surface of unit steps on the frame (Sander et al., 2001), kept finite. */
function stretchOf(p: Float32Array, rest: Float32Array, a: number, b: number, c: number): number {
  const [s1, t1] = [rest[b] - rest[a], rest[b + 1] - rest[a + 1]];
  const [s2, t2] = [rest[c] - rest[a], rest[c + 1] - rest[a + 1]];
  const det = s1 * t2 - s2 * t1;
  const most = 1e4;
  if (!(det > 0)) return most;
  let square = 0;
  for (let k = 0; k < 3; k++) {
    const [u, v] = [p[b + k] - p[a + k], p[c + k] - p[a + k]];
    square += ((u * t2 - v * t1) / det) ** 2 + ((v * s1 - u * s2) / det) ** 2;
  }
  return Math.min(most, square / 2);
}

export function turnedOver(rest: Float32Array, triangles: Uint32Array): number {
  let count = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i] * 3, triangles[i + 1] * 3, triangles[i + 2] * 3];
    const up = (rest[b] - rest[a]) * (rest[c + 1] - rest[a + 1]) - (rest[b + 1] - rest[a + 1]) * (rest[c] - rest[a]);
    if (!(up >= 0)) count++;
  }
  return count;
}
