/**
 * Makes a body of a mesh that came from outside: corners that lie at one place become one vertex, triangles without
 * area go, so do vertices that nothing names, and the whole is moved and scaled to about the size of the plain ball.
 */
import { carriedBy } from './carried';
import { edgesOf } from './edges';
import type { RawMesh } from './mesh';

export interface Welded {
  mesh: RawMesh;
  /** What was done, for the person to know. */
  merged: number;
  dropped: number;
  /** Edges that only one triangle names: holes and open borders. */
  open: number;
  /** Components that hang together. */
  components: number;
}

/** Corners nearer than this share of the whole are one. */
const NEAR = 1e-6;
/** Extent of a body, body units. */
const BODY_SIZE = 2;

/** Throws a sentence when nothing is left that could be sculpted. */
export function weld(raw: RawMesh): Welded {
  const { mesh, merged, dropped } = centred(raw);
  return { mesh, merged, dropped, ...openAndComponents(mesh.triangles, mesh.positions.length / 3) };
}

export interface Centred extends Merged {
  /** Units of the mesh as it came in one body unit. */
  perBody: number;
}

/**
 * Merged, in the middle, and of a body's size; `near` is the share of the whole within which corners are one, 0 for
 * those at the very same place. Throws a sentence when nothing is left.
 */
export function centred(raw: RawMesh, near = NEAR): Centred {
  const { low, high } = boundsOf(raw.positions, raw.triangles);
  const size = Math.max(...high.map((h, k) => h - low[k]));
  if (!(size > 0)) throw new Error('All points of the mesh lie at one place, so there is nothing to sculpt on.');
  const made = merged(raw, size * near);
  const scale = BODY_SIZE / size;
  const { positions: p } = made.mesh;
  const middle = [0, 1, 2].map((k) => low[k] + (high[k] - low[k]) / 2);
  for (let i = 0; i < p.length; i += 3) for (let k = 0; k < 3; k++) p[i + k] = (p[i + k] - middle[k]) * scale;
  return { ...made, perBody: size / BODY_SIZE };
}

export interface Merged {
  mesh: RawMesh;
  merged: number;
  /** Triangles without area that were left out. */
  dropped: number;
}

/**
 * Corners nearer to each other than `near` become one; triangles of which two corners do go, and so do vertices that
 * nothing names. Throws a sentence when nothing is left. O(n).
 */
export function merged(raw: RawMesh, near: number): Merged {
  const { positions, triangles, carried, colours } = raw;
  const { place, count: places } = mergedPlaces(positions, triangles, near);
  const first = new Uint32Array(places);
  for (let i = place.length - 1; i >= 0; i--) if (place[i] < places) first[place[i]] = i;
  // Vertices of triangles that vanish aren't kept either: numbers are given by those that stay.
  const number = new Int32Array(places).fill(-1);
  const from = new Uint32Array(places);
  const faces = new Uint32Array(triangles.length);
  const stayed = new Uint32Array(triangles.length / 3);
  let corners = 0;
  let count = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const a = place[triangles[t]];
    const b = place[triangles[t + 1]];
    const c = place[triangles[t + 2]];
    if (a === b || b === c || c === a) continue;
    stayed[corners / 3] = t / 3;
    for (let k = 0; k < 3; k++) {
      const at = place[triangles[t + k]];
      if (number[at] < 0) {
        from[count] = first[at];
        number[at] = count++;
      }
      faces[corners++] = number[at];
    }
  }
  if (corners === 0) throw new Error('Every triangle of the mesh is without area, so there is nothing to sculpt on.');
  const out = new Float32Array(count * 3);
  for (let v = 0; v < count; v++) {
    out[v * 3] = positions[from[v] * 3];
    out[v * 3 + 1] = positions[from[v] * 3 + 1];
    out[v * 3 + 2] = positions[from[v] * 3 + 2];
  }
  const used = faces.slice(0, corners);
  return {
    mesh: {
      positions: out,
      triangles: used,
      carried: carriedBy(carried, stayed.subarray(0, corners / 3)),
      colours: coloursBy(colours, from.subarray(0, count)),
    },
    merged: positions.length / 3 - places,
    dropped: (triangles.length - used.length) / 3,
  };
}

/** Colours of the vertices `from`, in that order. */
export function coloursBy(colours: Uint8Array | undefined, from: Uint32Array): Uint8Array | undefined {
  if (!colours) return undefined;
  const out = new Uint8Array(from.length * 3);
  for (let i = 0; i < from.length; i++) for (let k = 0; k < 3; k++) out[i * 3 + k] = colours[from[i] * 3 + k];
  return out;
}

/**
 * Cells are so many times as large as what is near, so that few vertices lie at a border and have to ask next door too.
 */
const CELLS_NEAR = 16;
const NOWHERE = 0xffffffff;

/**
 * New number of each vertex, in the order in which triangles name them; unnamed ones are out of range. Those at the
 * very same place are found first, by their bits: in most files that is nearly all there is to merge.
 */
function mergedPlaces(p: Float32Array, triangles: Uint32Array, near: number): { place: Uint32Array; count: number } {
  const exact = samePlaces(p, triangles);
  const { first, count } = exact;
  const twin = near > 0 ? nearPlaces(p, first.subarray(0, count), near) : null;
  if (!twin) return exact;
  const number = new Uint32Array(count);
  let left = 0;
  for (let i = 0; i < count; i++) number[i] = twin[i] < 0 ? left++ : number[twin[i]];
  const { place } = exact;
  for (let v = 0; v < place.length; v++) if (place[v] !== NOWHERE) place[v] = number[place[v]];
  return { place, count: left };
}

function samePlaces(
  p: Float32Array,
  triangles: Uint32Array,
): { place: Uint32Array; count: number; first: Uint32Array } {
  const vertices = p.length / 3;
  const place = new Uint32Array(vertices).fill(NOWHERE);
  const first = new Uint32Array(vertices);
  const bits = new Uint32Array(p.buffer, p.byteOffset, p.length);
  let slots = 2;
  while (slots < vertices * 2) slots *= 2;
  const table = new Int32Array(slots).fill(-1);
  let count = 0;
  for (let i = 0; i < triangles.length; i++) {
    const v = triangles[i];
    if (place[v] !== NOWHERE) continue;
    const x = bits[v * 3];
    const y = bits[v * 3 + 1];
    const z = bits[v * 3 + 2];
    let slot = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca6b) ^ Math.imul(z, 0xc2b2ae35);
    slot = Math.imul(slot ^ (slot >>> 15), 0x2c1b3c6d);
    slot = (slot ^ (slot >>> 13)) & (slots - 1);
    let at = table[slot];
    while (at >= 0) {
      const other = first[at] * 3;
      if (bits[other] === x && bits[other + 1] === y && bits[other + 2] === z) break;
      slot = (slot + 1) & (slots - 1);
      at = table[slot];
    }
    if (at < 0) {
      at = count++;
      table[slot] = at;
      first[at] = v;
    }
    place[v] = at;
  }
  return { place, count, first };
}

/** Of each vertex in the list, the number of an earlier one that is near, or −1; null when there is none at all. */
function nearPlaces(p: Float32Array, list: Uint32Array, near: number): Int32Array | null {
  const low = [Infinity, Infinity, Infinity];
  for (const v of list) for (let k = 0; k < 3; k++) if (p[v * 3 + k] < low[k]) low[k] = p[v * 3 + k];
  const [lx, ly, lz] = low;
  const cell = near * CELLS_NEAR;
  let buckets = 2;
  while (buckets < list.length) buckets *= 2;
  const heads = new Int32Array(buckets).fill(-1);
  const next = new Int32Array(list.length).fill(-1);
  const twin = new Int32Array(list.length).fill(-1);
  let found = 0;
  for (let i = 0; i < list.length; i++) {
    const v = list[i] * 3;
    const px = p[v] - lx;
    const py = p[v + 1] - ly;
    const pz = p[v + 2] - lz;
    const [x0, x1] = [Math.floor((px - near) / cell), Math.floor((px + near) / cell)];
    const [y0, y1] = [Math.floor((py - near) / cell), Math.floor((py + near) / cell)];
    const [z0, z1] = [Math.floor((pz - near) / cell), Math.floor((pz + near) / cell)];
    for (let x = x0; x <= x1; x++) {
      for (let y = y0; y <= y1; y++) {
        for (let z = z0; z <= z1 && twin[i] < 0; z++) {
          for (let other = heads[bucketOf(x, y, z, buckets)]; other >= 0; other = next[other]) {
            const o = list[other] * 3;
            if (Math.abs(p[v] - p[o]) > near || Math.abs(p[v + 1] - p[o + 1]) > near) continue;
            if (Math.abs(p[v + 2] - p[o + 2]) > near) continue;
            twin[i] = other;
            break;
          }
        }
      }
    }
    if (twin[i] >= 0) {
      found++;
      continue;
    }
    const bucket = bucketOf(Math.floor(px / cell), Math.floor(py / cell), Math.floor(pz / cell), buckets);
    next[i] = heads[bucket];
    heads[bucket] = i;
  }
  return found > 0 ? twin : null;
}

function bucketOf(x: number, y: number, z: number, buckets: number): number {
  return (Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791)) & (buckets - 1);
}

function boundsOf(p: Float32Array, triangles: Uint32Array): { low: number[]; high: number[] } {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < triangles.length; i++) {
    const v = triangles[i] * 3;
    for (let k = 0; k < 3; k++) {
      const x = p[v + k];
      if (x < low[k]) low[k] = x;
      if (x > high[k]) high[k] = x;
    }
  }
  return { low, high };
}

function openAndComponents(triangles: Uint32Array, vertices: number): { open: number; components: number } {
  const parent = Uint32Array.from({ length: vertices }, (_, i) => i);
  const root = (v: number): number => {
    let at = v;
    while (parent[at] !== at) {
      parent[at] = parent[parent[at]];
      at = parent[at];
    }
    return at;
  };
  for (let t = 0; t < triangles.length; t += 3) {
    const a = root(triangles[t]);
    parent[root(triangles[t + 1])] = a;
    parent[root(triangles[t + 2])] = a;
  }
  let components = 0;
  for (let v = 0; v < vertices; v++) if (parent[v] === v) components++;
  return { open: openEdges(triangles, vertices), components };
}

function openEdges(triangles: Uint32Array, vertices: number): number {
  const { uses } = edgesOf(triangles, vertices);
  let open = 0;
  for (const n of uses) if (n === 1) open++;
  return open;
}
