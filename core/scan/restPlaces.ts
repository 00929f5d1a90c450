/**
 * Where each point of a surface rests on the flat frame, so that no two rest at one place.
 *
 * Where nothing overhangs, a point rests straight under itself. Round an overhang the surface is spread out over a
 * zone: what lies under it, and so far round it (by distance, whatever the mesh) that the zone has room for its
 * surface. In the zone each point is the weighted mean of its neighbours while those at the rim stay (Tutte, "How to
 * draw a graph", 1963), which turns no face over; neighbours where the surface comes out thin weigh less until the
 * stretch is even (Yoshizawa, Belyaev and Seidel, "A fast and simple stretch-minimizing mesh parameterization",
 * 2004). That is solved on a coarse copy and carried to finer ones, each relaxed in turn.
 *
 * Measured on a mushroom (testMushroom.ts): with the weights of the first round alone the cap, whose way to the rim is
 * the longest, gets a tenth of the room it needs; successive over-relaxation and mean value weights, which aren't
 * symmetric, diverge on coarse copies; copies whose pinned points stay are all rim.
 */
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { normalsOfFaces } from '#core/mesh';
import { distanceTransform } from '#core/filter';
import { Sets } from './sets';

export interface RestPlaces {
  /** x and y of each vertex on the frame; z is nought. */
  rest: Float32Array;
  /** Faces that still lie over others; 0 unless an overhang reaches out of the frame. */
  folded: number;
}

export interface Rim {
  positions: Float32Array;
  triangles: Uint32Array;
  /** Side of the frame, body units. */
  side: number;
}

/** The surface closes in the frame: there is no rim to spread it out from. */
export class ClosedPatchError extends Error {
  constructor() {
    super(
      'The surface closes inside this frame, so it can’t be spread out flat. Make the frame smaller, or cast heights.',
    );
  }
}

/** Cells of the map of distances, over one and a half times the frame's side. */
const CELLS = 384;
const REACH = 0.75;
/** The zone goes at least so far round an overhang, in sides. */
const LEAST_ROUND = 0.03;
/** And so far that its surface is at most so many times its room, if the frame has it. */
const CROWDED = 1.25;
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

/** Throws ClosedPatchError; null when it was cancelled. `going` is told the share done. O(faces). */
export async function restPlaces(
  { positions: p, triangles, side }: Rim,
  going: (share: number) => boolean,
): Promise<RestPlaces | null> {
  const flat = new Float32Array(p.length);
  for (let v = 0; v < p.length; v += 3) {
    flat[v] = p[v];
    flat[v + 1] = p[v + 1];
  }
  const away = distanceFromOverhangs(p, triangles, side);
  if (!away) return { rest: flat, folded: 0 };
  await MeshoptSimplifier.ready;
  const rim = outerRim(p, triangles, side / 2);
  let best: RestPlaces | null = null;
  let round = roomRound(p, triangles, away, side);
  for (let attempt = 0; attempt < 3; attempt++, round *= 1.6) {
    const rest = spread({ positions: p, triangles, side }, flat, zoneOf(p, away, round, rim), (share) =>
      going((attempt + share) / 3),
    );
    if (!rest) return null;
    const folded = turnedOver(rest, triangles);
    if (!best || folded < best.folded) best = { rest, folded };
    if (folded === 0) break;
  }
  return best;
}

/** Distances in body units over the frame's plane. */
interface Away {
  data: Float64Array;
  /** Cells a body unit. */
  scale: number;
  cellOf(x: number, y: number): number;
}

/** From what lies under faces that are turned away, what they surround included; null when there are none. */
function distanceFromOverhangs(p: Float32Array, triangles: Uint32Array, side: number): Away | null {
  const scale = CELLS / (2 * REACH * side);
  const cell = (x: number): number => Math.max(0, Math.min(CELLS - 1, Math.floor((x + REACH * side) * scale)));
  const cellOf = (x: number, y: number): number => cell(y) * CELLS + cell(x);
  const over = new Uint8Array(CELLS * CELLS);
  let any = false;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i] * 3, triangles[i + 1] * 3, triangles[i + 2] * 3];
    if ((p[b] - p[a]) * (p[c + 1] - p[a + 1]) - (p[b + 1] - p[a + 1]) * (p[c] - p[a]) > 0) continue;
    any = true;
    const [left, right] = [cell(Math.min(p[a], p[b], p[c])), cell(Math.max(p[a], p[b], p[c]))];
    const [low, high] = [cell(Math.min(p[a + 1], p[b + 1], p[c + 1])), cell(Math.max(p[a + 1], p[b + 1], p[c + 1]))];
    for (let j = low; j <= high; j++) over.fill(1, j * CELLS + left, j * CELLS + right + 1);
  }
  if (!any) return null;
  const open = fromOutside(over);
  const data = Float64Array.from(open, (outside) => (outside ? Infinity : 0));
  distanceTransform(data, CELLS, CELLS);
  for (let i = 0; i < data.length; i++) data[i] /= scale;
  return { data, scale, cellOf };
}

/** 1 for cells that are reached from the border without crossing one of `over`. */
function fromOutside(over: Uint8Array): Uint8Array {
  const open = new Uint8Array(over.length);
  const stack: number[] = [];
  const visit = (i: number): void => {
    if (over[i] || open[i]) return;
    open[i] = 1;
    stack.push(i);
  };
  for (let i = 0; i < CELLS; i++)
    [i, (CELLS - 1) * CELLS + i, i * CELLS, i * CELLS + CELLS - 1].forEach((border) => visit(border));
  for (let i = stack.pop(); i !== undefined; i = stack.pop()) {
    if (i % CELLS > 0) visit(i - 1);
    if (i % CELLS < CELLS - 1) visit(i + 1);
    if (i >= CELLS) visit(i - CELLS);
    if (i < over.length - CELLS) visit(i + CELLS);
  }
  return open;
}

/** How far round the overhangs the zone goes, body units. */
function roomRound(p: Float32Array, triangles: Uint32Array, { data, scale, cellOf }: Away, side: number): number {
  const bins = 64;
  const farthest = side / 2;
  const surface = new Float64Array(bins);
  const room = new Float64Array(bins);
  const bin = (distance: number): number => Math.min(bins - 1, Math.floor((distance / farthest) * bins));
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i] * 3, triangles[i + 1] * 3, triangles[i + 2] * 3];
    const x = (p[a] + p[b] + p[c]) / 3;
    const y = (p[a + 1] + p[b + 1] + p[c + 1]) / 3;
    surface[bin(data[cellOf(x, y)])] += area(p, a, b, c);
  }
  // Cells beyond the frame are no room.
  const beyond = Math.round(((REACH - 0.5) / (2 * REACH)) * CELLS);
  for (let j = beyond; j < CELLS - beyond; j++)
    for (let i = beyond; i < CELLS - beyond; i++) room[bin(data[j * CELLS + i])] += 1 / (scale * scale);
  let [all, has] = [0, 0];
  for (let k = 0; k < bins; k++) {
    all += surface[k];
    has += room[k];
    const round = ((k + 1) / bins) * farthest;
    if (round >= LEAST_ROUND * side && all <= CROWDED * has) return round;
  }
  return farthest;
}

function area(p: Float32Array, a: number, b: number, c: number): number {
  const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
  const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2;
}

/** 1 for vertices on rims that reach out of the frame, or on the widest where none does; holes are no rims. */
function outerRim(p: Float32Array, triangles: Uint32Array, half: number): Uint8Array {
  const vertices = p.length / 3;
  const edges = rimEdges(triangles, vertices);
  const rims = new Sets(vertices);
  for (const [a, b] of edges) rims.join(a, b);
  const spans = new Map<number, { low: number; high: number; out: boolean }>();
  for (const [a] of edges) {
    const span = spans.get(rims.of(a)) ?? { low: Infinity, high: -Infinity, out: false };
    const [x, y] = [p[a * 3], p[a * 3 + 1]];
    span.low = Math.min(span.low, x + y);
    span.high = Math.max(span.high, x + y);
    span.out ||= Math.abs(x) >= half || Math.abs(y) >= half;
    spans.set(rims.of(a), span);
  }
  if (spans.size === 0) throw new ClosedPatchError();
  if (![...spans.values()].some(({ out }) => out)) {
    const widest = [...spans.values()].reduce((a, b) => (b.high - b.low > a.high - a.low ? b : a));
    widest.out = true;
  }
  const outer = new Uint8Array(vertices);
  for (const [a, b] of edges) if (spans.get(rims.of(a))?.out) outer[a] = outer[b] = 1;
  return outer;
}

/** Edges of one face alone. */
function rimEdges(triangles: Uint32Array, vertices: number): [number, number][] {
  const keys = new Float64Array(triangles.length);
  for (let i = 0; i < triangles.length; i++) {
    const a = triangles[i];
    const b = triangles[i % 3 === 2 ? i - 2 : i + 1];
    keys[i] = Math.min(a, b) * vertices + Math.max(a, b);
  }
  keys.sort();
  const edges: [number, number][] = [];
  for (let i = 0, next = 0; i < keys.length; i = next) {
    for (next = i + 1; keys[next] === keys[i];) next++;
    if (next === i + 1) edges.push([Math.floor(keys[i] / vertices), keys[i] % vertices]);
  }
  return edges;
}

/** 1 for vertices that are spread out. */
function zoneOf(p: Float32Array, { data, cellOf }: Away, round: number, rim: Uint8Array): Uint8Array {
  const zone = new Uint8Array(rim.length);
  for (let v = 0; v < rim.length; v++) if (!rim[v] && data[cellOf(p[v * 3], p[v * 3 + 1])] <= round) zone[v] = 1;
  return zone;
}

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

function spread(
  { positions: p, triangles, side }: Rim,
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
    const s = area(p, a, b, c);
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

function turnedOver(rest: Float32Array, triangles: Uint32Array): number {
  let count = 0;
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i] * 3, triangles[i + 1] * 3, triangles[i + 2] * 3];
    const up = (rest[b] - rest[a]) * (rest[c + 1] - rest[a + 1]) - (rest[b + 1] - rest[a + 1]) * (rest[c] - rest[a]);
    if (!(up >= 0)) count++;
  }
  return count;
}
