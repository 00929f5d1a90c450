/**
 * Where a surface overhangs on its frame, how far round that it has to be spread out, and which points stay. Distances
 * are looked up in a map over one and a half times the frame, exact to its cells.
 */
import { distanceTransform } from '#core/filter';
import { faceArea } from './faceArea';
import { Sets } from './sets';

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

/** Distances in body units over the frame's plane. */
export interface Away {
  data: Float64Array;
  /** Cells a body unit. */
  scale: number;
  cellOf(x: number, y: number): number;
}

/** From what lies under faces that are turned away, what they surround included; null when there are none. */
export function distanceFromOverhangs(p: Float32Array, triangles: Uint32Array, side: number): Away | null {
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
export function roomRound(
  p: Float32Array,
  triangles: Uint32Array,
  { data, scale, cellOf }: Away,
  side: number,
): number {
  const bins = 64;
  const farthest = side / 2;
  const surface = new Float64Array(bins);
  const room = new Float64Array(bins);
  const bin = (distance: number): number => Math.min(bins - 1, Math.floor((distance / farthest) * bins));
  for (let i = 0; i < triangles.length; i += 3) {
    const [a, b, c] = [triangles[i] * 3, triangles[i + 1] * 3, triangles[i + 2] * 3];
    const x = (p[a] + p[b] + p[c]) / 3;
    const y = (p[a + 1] + p[b + 1] + p[c + 1]) / 3;
    surface[bin(data[cellOf(x, y)])] += faceArea(p, a, b, c);
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

/** 1 for vertices on rims that reach out of the frame, or on the widest where none does; holes are no rims. */
export function outerRim(p: Float32Array, triangles: Uint32Array, half: number): Uint8Array {
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
export function zoneOf(p: Float32Array, { data, cellOf }: Away, round: number, rim: Uint8Array): Uint8Array {
  const zone = new Uint8Array(rim.length);
  for (let v = 0; v < rim.length; v++) if (!rim[v] && data[cellOf(p[v * 3], p[v * 3 + 1])] <= round) zone[v] = 1;
  return zone;
}
