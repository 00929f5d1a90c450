/**
 * Where a fill goes: triangles that hang together in space or in the texture, or texels of one colour that touch, over
 * seams too.
 */
import { faceNormal, type MeshArrays } from '#core/mesh';
import { toSrgb } from '#core/colour';
import { texelWidth, type Atlas } from './atlas';
import type { Places, TilePlaces } from './places';
import { FULL, TILE, tilesAcross, type Texture } from './texture';

/** A number for each triangle, the same for those that hang together by their vertices. O(triangles). */
export function looseParts({ triangles, triangleCount, vertexCount }: MeshArrays): Uint32Array {
  const sets = new Sets(vertexCount);
  for (let t = 0; t < triangleCount; t++) {
    sets.join(triangles[t * 3], triangles[t * 3 + 1]);
    sets.join(triangles[t * 3], triangles[t * 3 + 2]);
  }
  return Uint32Array.from({ length: triangleCount }, (_, t) => sets.of(triangles[t * 3]));
}

/** A number for each triangle, the same for those that lie on one island of the texture. O(triangles). */
export function islands({ mesh, corners }: Pick<Atlas, 'mesh' | 'corners'>): Uint32Array {
  const { triangles, triangleCount, vertexCount } = mesh;
  const sets = new Sets(triangleCount);
  /** Corners that were met at each vertex, the last first. */
  const last = new Int32Array(vertexCount).fill(-1);
  const before = new Int32Array(triangleCount * 3);
  for (let corner = 0; corner < triangleCount * 3; corner++) {
    const v = triangles[corner];
    let other = last[v];
    while (
      other >= 0 &&
      (corners[other * 2] !== corners[corner * 2] || corners[other * 2 + 1] !== corners[corner * 2 + 1])
    )
      other = before[other];
    if (other >= 0) sets.join(Math.floor(other / 3), Math.floor(corner / 3));
    before[corner] = last[v];
    last[v] = corner;
  }
  return Uint32Array.from({ length: triangleCount }, (_, t) => sets.of(t));
}

/** Disjoint sets (B. A. Galler, M. J. Fischer, 1964). */
class Sets {
  private readonly parent: Uint32Array;

  constructor(count: number) {
    this.parent = Uint32Array.from({ length: count }, (_, i) => i);
  }

  of(i: number): number {
    const { parent } = this;
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  }

  join(a: number, b: number): void {
    this.parent[this.of(a)] = this.of(b);
  }
}

/** Texels of tiles: 1 for those that belong to it. */
export type Region = Map<number, Uint8Array>;

/** Where the place lies in the texture, as tile and texel; null where the triangle has none near. */
function nearestTexel(places: Places, triangle: number, at: readonly [number, number, number]) {
  let best: { here: TilePlaces; entry: number } | null = null;
  let least = Infinity;
  const { corners, mesh } = places.atlas;
  const width = texelWidth(corners, triangle, Math.hypot(...faceNormal(mesh, triangle)));
  for (const here of places.near(at, Math.max(width * 2, 1e-6)))
    for (let i = 0; i < here.count; i++) {
      const far = (here.x[i] - at[0]) ** 2 + (here.y[i] - at[1]) ** 2 + (here.z[i] - at[2]) ** 2;
      if (far >= least) continue;
      least = far;
      best = { here, entry: i };
    }
  return best;
}

/** Texels that touch the one under the place, each no further from its colour than the tolerance, 0–1 as displayed. */
export function likeColour(
  places: Places,
  on: Texture,
  triangle: number,
  at: readonly [number, number, number],
  tolerance: number,
): Region {
  const region: Region = new Map();
  const start = nearestTexel(places, triangle, at);
  if (!start) return region;
  const across = tilesAcross(on);
  const wanted = shownAt(on, start.here.tile, start.here.at[start.entry]);
  const entries = new Map<number, Int32Array>();
  const entryOf = (here: TilePlaces): Int32Array => {
    let of = entries.get(here.tile);
    if (!of) {
      of = new Int32Array(TILE * TILE).fill(-1);
      for (let i = here.count - 1; i >= 0; i--) of[here.at[i]] = i;
      entries.set(here.tile, of);
    }
    return of;
  };
  const queue: [tile: number, texel: number][] = [];
  const reach = (tile: number, texel: number): void => {
    const known = region.get(tile) ?? new Uint8Array(TILE * TILE);
    if (known[texel]) return;
    const shown = shownAt(on, tile, texel);
    if (shown.some((c, k) => Math.abs(c - wanted[k]) > tolerance + 1e-6)) return;
    known[texel] = 1;
    region.set(tile, known);
    queue.push([tile, texel]);
  };
  reach(start.here.tile, start.here.at[start.entry]);
  for (let next = queue.pop(); next; next = queue.pop()) {
    const [tile, texel] = next;
    const here = places.of(tile)!;
    const i = entryOf(here)[texel];
    const place = [here.x[i], here.y[i], here.z[i]] as const;
    /** Texels side by side may be those of two islands. */
    const touches = (other: TilePlaces, k: number, within: number): boolean =>
      (other.x[k] - place[0]) ** 2 + (other.y[k] - place[1]) ** 2 + (other.z[k] - place[2]) ** 2 <= within ** 2;
    const [x, y] = [(tile % across) * TILE + (texel % TILE), Math.floor(tile / across) * TILE + (texel >> 6)];
    let rim = false;
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ] as const) {
      const [nx, ny] = [x + dx, y + dy];
      const beside = nx >= 0 && ny >= 0 && nx < on.size && ny < on.size;
      const to = beside ? (ny >> 6) * across + (nx >> 6) : -1;
      const other = beside ? places.of(to) : null;
      const within = (ny & (TILE - 1)) * TILE + (nx & (TILE - 1));
      const k = other ? entryOf(other)[within] : -1;
      if (other && k >= 0 && touches(other, k, here.texel * 3)) reach(to, within);
      else rim = true;
    }
    if (!rim) continue;
    // At the rim of an island’s padding: what lies at the same place elsewhere goes on.
    for (const other of places.near(place, here.texel * 1.5))
      for (let k = 0; k < other.count; k++) if (touches(other, k, here.texel * 1.5)) reach(other.tile, other.at[k]);
  }
  return region;
}

function shownAt(on: Texture, tile: number, texel: number): readonly [number, number, number, number] {
  const words = on.tiles.get(tile);
  const at = texel * 4;
  const alpha = words ? words[at + 3] : 0;
  if (!words || alpha === 0) return [0, 0, 0, 0];
  const shown = (k: number): number => toSrgb(Math.min(1, words[at + k] / alpha));
  return [shown(0), shown(1), shown(2), alpha / FULL];
}
