/**
 * Which faces belong to the surface at the middle of a frame.
 *
 * Faces that look out of it, and walls up to 20° past upright, hang together edge by edge: a sheet. What the sheet's
 * own walls carry (letters, pits) is part of it. Undersides lead on to other sheets, as from a stalk over a mushroom's
 * cap or round a pleat, as long as the way over them is short; the far side of a body, seen through a hole in its
 * wall, is a long way round and is left out.
 */
import { Sets } from './sets';

/** Cosine between a face and the frame down to which it still is a wall of its sheet. */
const WALL = -0.35;
/** The middle of a sheet is looked for on faces that show themselves from the front, cosine. */
const SHOWN = 0.12;
/** Longest way over undersides from one sheet to another, in sides of the frame. */
const UNDERNEATH = 0.5;

/** `p` holds x, y, z of each vertex in the frame's axes. Null when no face looks out of the frame. O(faces). */
export function belonging(p: Float32Array, faces: Uint32Array, side: number): Uint32Array | null {
  const sheets = new Sets(p.length / 3);
  const under = new Uint8Array(faces.length / 3);
  let undersides = 0;
  let nearest = Infinity;
  let middle = -1;
  let shown = false;
  for (let t = 0; t < under.length; t++) {
    const [a, b, c] = [faces[t * 3], faces[t * 3 + 1], faces[t * 3 + 2]];
    const cosine = facing(p, a * 3, b * 3, c * 3);
    if (cosine < WALL) {
      under[t] = 1;
      undersides++;
      continue;
    }
    sheets.join(a, b);
    sheets.join(a, c);
    if (!(cosine > (shown ? SHOWN : 0))) continue;
    let distance = 0;
    for (let k = 0; k < 3; k++) distance += (p[a * 3 + k] + p[b * 3 + k] + p[c * 3 + k]) ** 2;
    const first: boolean = !shown && cosine > SHOWN;
    if (!first && distance >= nearest) continue;
    nearest = distance;
    middle = a;
    shown ||= first;
  }
  if (middle < 0) return null;
  const reached =
    undersides > 0 ? waysUnder(p, faces, under, sheets, sheets.of(middle), side * UNDERNEATH) : new Float32Array(0);
  const kept = new Uint32Array(faces.length);
  let corners = 0;
  const own = sheets.of(middle);
  for (let t = 0; t < under.length; t++) {
    const [a, b, c] = [faces[t * 3], faces[t * 3 + 1], faces[t * 3 + 2]];
    const belongs = under[t]
      ? reached[a] < Infinity && reached[b] < Infinity && reached[c] < Infinity
      : sheets.of(a) === own || (undersides > 0 && reached[sheets.of(a)] === 0);
    if (!belongs) continue;
    kept[corners++] = a;
    kept[corners++] = b;
    kept[corners++] = c;
  }
  return kept.subarray(0, corners);
}

/** Cosine between a face's normal and z; 0 for one without area. */
function facing(p: Float32Array, a: number, b: number, c: number): number {
  const ux = p[b] - p[a];
  const uy = p[b + 1] - p[a + 1];
  const uz = p[b + 2] - p[a + 2];
  const vx = p[c] - p[a];
  const vy = p[c + 1] - p[a + 1];
  const vz = p[c + 2] - p[a + 2];
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  const length = Math.sqrt(nx * nx + ny * ny + nz * nz);
  return length > 0 ? nz / length : 0;
}

/**
 * Way from the sheet `own` to each vertex over undersides, along their edges: 0 on sheets that are reached (at the
 * vertex that stands for them too), Infinity beyond `longest`.
 */
function waysUnder(
  p: Float32Array,
  faces: Uint32Array,
  under: Uint8Array,
  sheets: Sets,
  own: number,
  longest: number,
): Float32Array {
  const vertices = p.length / 3;
  const start = new Uint32Array(vertices + 1);
  for (let t = 0; t < under.length; t++) {
    if (under[t]) for (let k = 0; k < 3; k++) start[faces[t * 3 + k] + 1] += 2;
  }
  for (let v = 0; v < vertices; v++) start[v + 1] += start[v];
  const beside = new Uint32Array(start[vertices]);
  const fill = start.slice(0, vertices);
  // Vertices where undersides meet a sheet, by the sheet.
  const shores = new Map<number, number[]>();
  const onSheet = sheetVertices(faces, under, vertices);
  for (let t = 0; t < under.length; t++) {
    if (!under[t]) continue;
    for (let k = 0; k < 3; k++) {
      const v = faces[t * 3 + k];
      if (onSheet[v] && fill[v] === start[v]) {
        const sheet = sheets.of(v);
        const shore = shores.get(sheet);
        if (shore) shore.push(v);
        else shores.set(sheet, [v]);
      }
      beside[fill[v]++] = faces[t * 3 + ((k + 1) % 3)];
      beside[fill[v]++] = faces[t * 3 + ((k + 2) % 3)];
    }
  }
  const way = new Float32Array(vertices).fill(Infinity);
  let front: number[] = [];
  const reach = (sheet: number): void => {
    if (way[sheet] === 0) return;
    way[sheet] = 0;
    for (const v of shores.get(sheet) ?? []) {
      way[v] = 0;
      front.push(v);
    }
  };
  reach(own);
  while (front.length > 0) {
    const from = front;
    front = [];
    for (const v of from) {
      for (let i = start[v]; i < start[v + 1]; i++) {
        const w = beside[i];
        const step = Math.hypot(p[v * 3] - p[w * 3], p[v * 3 + 1] - p[w * 3 + 1], p[v * 3 + 2] - p[w * 3 + 2]);
        const to = way[v] + step;
        if (to > longest || to >= way[w]) continue;
        if (onSheet[w]) reach(sheets.of(w));
        else {
          way[w] = to;
          front.push(w);
        }
      }
    }
  }
  return way;
}

function sheetVertices(faces: Uint32Array, under: Uint8Array, vertices: number): Uint8Array {
  const on = new Uint8Array(vertices);
  for (let t = 0; t < under.length; t++) if (!under[t]) for (let k = 0; k < 3; k++) on[faces[t * 3 + k]] = 1;
  return on;
}
