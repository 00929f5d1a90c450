/**
 * Texture coordinates for a mesh that has none, at once: faces that look the same way along an axis and hang together
 * are an island, laid flat along that axis. A surface that folds over itself within an island overlaps there.
 */
import type { RawMesh } from './mesh';

/** Room between islands, of the texture’s side. */
const GAP = 0.006;
/** Passes in which a face looks the way that most of its neighbours do, so that noise makes no islands. */
const PASSES = 4;

interface Island {
  axis: number;
  low: [number, number];
  high: [number, number];
  /** Lower left corner in the texture. */
  at: [number, number];
}

/** u, v of each corner of each triangle, six numbers a triangle. O(triangles + islands · log islands). */
export function boxUnwrap({ positions: p, triangles }: RawMesh): Float32Array {
  const count = triangles.length / 3;
  const facings = facingsOf(p, triangles);
  const island = islandsOf(triangles, facings, p.length / 3);
  const found = new Map<number, Island>();
  const planeOf = (axis: number): readonly [number, number] => [(axis + 1) % 3, (axis + 2) % 3];
  for (let t = 0; t < count; t++) {
    const axis = facings[t] >> 1;
    let one = found.get(island[t]);
    if (!one) {
      one = { axis, low: [Infinity, Infinity], high: [-Infinity, -Infinity], at: [0, 0] };
      found.set(island[t], one);
    }
    const [i, j] = planeOf(axis);
    const { low, high } = one;
    for (let k = 0; k < 3; k++) {
      const v = triangles[t * 3 + k] * 3;
      low[0] = Math.min(low[0], p[v + i]);
      low[1] = Math.min(low[1], p[v + j]);
      high[0] = Math.max(high[0], p[v + i]);
      high[1] = Math.max(high[1], p[v + j]);
    }
  }
  const scale = packed([...found.values()]);
  const out = new Float32Array(count * 6);
  for (let t = 0; t < count; t++) {
    const { axis, low, high, at } = found.get(island[t])!;
    const [i, j] = planeOf(axis);
    const far = (facings[t] & 1) === 1;
    for (let k = 0; k < 3; k++) {
      const v = triangles[t * 3 + k] * 3;
      // What looks back along the axis is turned over, so that no island is mirrored.
      const u = far ? p[v + i] - low[0] : high[0] - p[v + i];
      out[t * 6 + k * 2] = Math.min(1, Math.max(0, at[0] + u * scale));
      out[t * 6 + k * 2 + 1] = Math.min(1, Math.max(0, at[1] + (p[v + j] - low[1]) * scale));
    }
  }
  return out;
}

/** Twice the axis that each face looks along, and one more where it looks up it. */
function facingsOf(p: Float32Array, triangles: Uint32Array): Uint8Array {
  const count = triangles.length / 3;
  const facings = new Uint8Array(count);
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [triangles[t * 3] * 3, triangles[t * 3 + 1] * 3, triangles[t * 3 + 2] * 3];
    const [ex, ey, ez] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [fx, fy, fz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const [nx, ny, nz] = [ey * fz - ez * fy, ez * fx - ex * fz, ex * fy - ey * fx];
    const [ax, ay, az] = [Math.abs(nx), Math.abs(ny), Math.abs(nz)];
    const axis = ax >= ay && ax >= az ? 0 : ay >= az ? 1 : 2;
    const along = axis === 0 ? nx : axis === 1 ? ny : nz;
    facings[t] = axis * 2 + (along >= 0 ? 1 : 0);
  }
  const votes = new Uint16Array((p.length / 3) * 6);
  const faces = new Uint16Array(p.length / 3);
  for (let i = 0; i < triangles.length; i++) faces[triangles[i]]++;
  for (let pass = 0; pass < PASSES; pass++) {
    votes.fill(0);
    for (let i = 0; i < triangles.length; i++) votes[triangles[i] * 6 + facings[Math.floor(i / 3)]]++;
    for (let t = 0; t < count; t++) {
      const [a, b, c] = [triangles[t * 3], triangles[t * 3 + 1], triangles[t * 3 + 2]];
      const own = facings[t];
      // All round it look the same way: as nearly everywhere.
      if (votes[a * 6 + own] === faces[a] && votes[b * 6 + own] === faces[b] && votes[c * 6 + own] === faces[c])
        continue;
      let [best, most] = [own, 0];
      // Its own facing counts double, so that an even vote changes nothing. Never the opposite one.
      for (let facing = 0; facing < 6; facing++) {
        if (facing === (own ^ 1)) continue;
        const sum = (facing === own ? 3 : 0) + votes[a * 6 + facing] + votes[b * 6 + facing] + votes[c * 6 + facing];
        if (sum > most) [best, most] = [facing, sum];
      }
      facings[t] = best;
    }
  }
  return facings;
}

/** A number for each face, the same for those of one facing that hang together. */
function islandsOf(triangles: Uint32Array, facings: Uint8Array, vertices: number): Uint32Array {
  const parent = Uint32Array.from({ length: facings.length }, (_, t) => t);
  const rootOf = (t: number): number => {
    while (parent[t] !== t) t = parent[t] = parent[parent[t]];
    return t;
  };
  const first = new Int32Array(vertices * 6).fill(-1);
  for (let i = 0; i < triangles.length; i++) {
    const t = Math.floor(i / 3);
    const key = triangles[i] * 6 + facings[t];
    if (first[key] < 0) first[key] = t;
    else parent[rootOf(t)] = rootOf(first[key]);
  }
  return parent.map((_, t) => rootOf(t));
}

/** Gives each island its place, in shelves from the highest to the lowest; answers the scale at which all fit. */
function packed(islands: Island[]): number {
  const sorted = [...islands].sort((a, b) => b.high[1] - b.low[1] - (a.high[1] - a.low[1]));
  const fits = (scale: number): boolean => {
    let [x, y, shelf] = [0, 0, 0];
    for (const one of sorted) {
      const wide = (one.high[0] - one.low[0]) * scale + GAP;
      const high = (one.high[1] - one.low[1]) * scale + GAP;
      if (wide > 1) return false;
      if (x + wide > 1) {
        x = 0;
        y += shelf;
        shelf = 0;
      }
      one.at = [x + GAP / 2, y + GAP / 2];
      x += wide;
      shelf = Math.max(shelf, high);
    }
    return y + shelf <= 1;
  };
  let [low, high] = [0, 1];
  while (fits(high) && high < 1e6) high *= 2;
  for (let n = 0; n < 30; n++) {
    const middle = (low + high) / 2;
    if (fits(middle)) low = middle;
    else high = middle;
  }
  // With more islands than there is room for gaps between, all shrink to nothing.
  if (!fits(low)) for (const one of sorted) one.at = [0, 0];
  return low;
}
