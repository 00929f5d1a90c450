/**
 * Where on the body each texel of a tile lies, found once and read by every dab: a dab’s cost is then that of the
 * texels it meets, whatever their triangles are.
 *
 * Texels beside an island, as far as the padding, lie where the nearest one in it does. So they are painted, smudged
 * and filled as it is, and a renderer that reads between texels finds no seam.
 *
 * Sculpting moves places: each tile knows prints of the leaves it was made of, which are compared once a stroke.
 */
import { faceNormal, LEAF, LEAF_SHIFT, leavesInSphere, type MeshArrays } from '#core/mesh';
import { PADDING, texelWidth, type Atlas } from './atlas';
import { eachTexel } from './texels';
import { TILE } from './texture';

export interface TilePlaces {
  tile: number;
  /** Texels here; where coordinates overlap one is here more than once. */
  count: number;
  /** Column + row × TILE within the tile. */
  at: Uint16Array;
  x: Float32Array;
  y: Float32Array;
  z: Float32Array;
  /** Normals, ± 127. */
  normals: Int8Array;
  /** What the mask leaves, 0–255. */
  free: Uint8Array;
  /** Of the triangle it lies on. */
  triangle: Uint32Array;
  /** Mean width of a texel, body units. */
  texel: number;
  /** A ball round all of it. */
  centre: readonly [number, number, number];
  radius: number;
  leaves: Uint32Array;
  prints: Int32Array;
}

/** Memory of a texel, and how much is kept of what strokes touched last. */
const TEXEL_BYTES = 22;
const MOST_BYTES = 96 * 1024 * 1024;

export class Places {
  private readonly made = new Map<number, TilePlaces | null>();
  private bytes = 0;
  /** Of this stroke. */
  private readonly sound = new Set<number>();
  private readonly prints = new Map<number, number>();
  private readonly leaves: Uint32Array;

  constructor(readonly atlas: Atlas) {
    this.leaves = new Uint32Array(atlas.mesh.leafCount + 1);
  }

  /** A stroke begins: what was sculpted since shows. */
  begin(): void {
    this.sound.clear();
    this.prints.clear();
  }

  /** Tiles that have something within `reach` of the place, and maybe some that don’t. */
  near([x, y, z]: readonly [number, number, number], reach: number): TilePlaces[] {
    const { mesh, leafStarts, leafTiles } = this.atlas;
    const tiles = new Set<number>();
    const count = leavesInSphere(mesh, x, y, z, reach, this.leaves);
    for (let i = 0; i < count; i++)
      for (let k = leafStarts[this.leaves[i]]; k < leafStarts[this.leaves[i] + 1]; k++) tiles.add(leafTiles[k]);
    const out: TilePlaces[] = [];
    for (const tile of [...tiles].sort((a, b) => a - b)) {
      const here = this.of(tile);
      if (!here) continue;
      const [dx, dy, dz] = [here.centre[0] - x, here.centre[1] - y, here.centre[2] - z];
      if (dx * dx + dy * dy + dz * dz <= (reach + here.radius) ** 2) out.push(here);
    }
    return out;
  }

  /** Null where no triangle has a texel of the tile. */
  of(tile: number): TilePlaces | null {
    const known = this.made.get(tile);
    if (known === null) return null;
    if (known && (this.sound.has(tile) || known.leaves.every((leaf, i) => this.printOf(leaf) === known.prints[i]))) {
      this.sound.add(tile);
      // What was used last goes last.
      this.made.delete(tile);
      this.made.set(tile, known);
      return known;
    }
    if (known) this.forget(tile, known);
    const made = this.make(tile);
    this.made.set(tile, made);
    this.sound.add(tile);
    if (made) this.bytes += made.count * TEXEL_BYTES;
    for (const [old, of] of this.made) {
      if (this.bytes <= MOST_BYTES) break;
      if (of && old !== tile) this.forget(old, of);
    }
    return made;
  }

  private forget(tile: number, of: TilePlaces): void {
    this.made.delete(tile);
    this.sound.delete(tile);
    this.bytes -= of.count * TEXEL_BYTES;
  }

  /** Changes with any place or mask of the leaf. */
  private printOf(leaf: number): number {
    const known = this.prints.get(leaf);
    if (known !== undefined) return known;
    const { positions, mask, vertexCount } = this.atlas.mesh;
    const [first, end] = [leaf * LEAF, Math.min((leaf + 1) * LEAF, vertexCount)];
    const print = mixed(mixed(leaf, positions, first * 3, end * 3), mask, first, end);
    this.prints.set(leaf, print);
    return print;
  }

  private make(tile: number): TilePlaces | null {
    const { atlas } = this;
    const { starts, triangles, size } = atlas;
    if (starts[tile] === starts[tile + 1]) return null;
    const across = size / TILE;
    const left = (tile % across) * TILE - PADDING;
    const top = Math.floor(tile / across) * TILE - PADDING;
    const inside = { left, top, right: left + SIDE, bottom: top + SIDE };
    const found = new Found();
    for (let i = starts[tile]; i < starts[tile + 1]; i++) {
      const t = triangles[i];
      eachTexel(atlas, t, (x, y, a, b) => found.add((y - top) * SIDE + x - left, t, a, b), inside);
    }
    return found.count === 0 ? null : this.placed(tile, found);
  }

  private placed(tile: number, found: Found): TilePlaces | null {
    const { mesh, corners } = this.atlas;
    const [entries, at] = found.inTile();
    const count = entries.length;
    if (count === 0) return null;
    const out: TilePlaces = {
      tile,
      count,
      at,
      x: new Float32Array(count),
      y: new Float32Array(count),
      z: new Float32Array(count),
      normals: new Int8Array(count * 3),
      free: new Uint8Array(count),
      triangle: new Uint32Array(count),
      texel: 0,
      centre: [0, 0, 0],
      radius: 0,
      leaves: new Uint32Array(0),
      prints: new Int32Array(0),
    };
    const leaves = new Set<number>();
    let [texels, last] = [0, -1];
    for (let i = 0; i < count; i++) {
      const entry = entries[i];
      const t = found.triangles[entry];
      setPlace(out, i, mesh, t, found.a[entry], found.b[entry]);
      if (t !== last) {
        for (let k = 0; k < 3; k++) leaves.add(mesh.triangles[t * 3 + k] >> LEAF_SHIFT);
        last = t;
      }
      texels += texelWidth(corners, t, Math.hypot(...faceNormal(mesh, t)));
    }
    out.texel = texels / count;
    out.leaves = Uint32Array.from(leaves);
    out.prints = Int32Array.from(out.leaves, (leaf) => this.printOf(leaf));
    return Object.assign(out, ballRound(out));
  }
}

/** A tile with the padding’s room round it. */
const SIDE = TILE + 2 * PADDING;

/** Texels of triangles in a tile and beside it, as they are met. */
class Found {
  triangles: number[] = [];
  a: number[] = [];
  b: number[] = [];
  private places: number[] = [];
  /** One more than the first entry of each texel; 0 where there is none. */
  private readonly first = new Uint32Array(SIDE * SIDE);

  get count(): number {
    return this.triangles.length;
  }

  add(place: number, t: number, a: number, b: number): void {
    this.places.push(place);
    this.triangles.push(t);
    this.a.push(a);
    this.b.push(b);
    if (this.first[place] === 0) this.first[place] = this.triangles.length;
  }

  /** Entries of the tile’s own texels, then those that texels beside an island take after; and where each lies. */
  inTile(): readonly [Uint32Array, Uint16Array] {
    const entries: number[] = [];
    const at: number[] = [];
    this.places.forEach((place, entry) => {
      const [x, y] = [(place % SIDE) - PADDING, Math.floor(place / SIDE) - PADDING];
      if (x < 0 || y < 0 || x >= TILE || y >= TILE) return;
      entries.push(entry);
      at.push(y * TILE + x);
    });
    if (entries.length < TILE * TILE)
      for (let y = 0; y < TILE; y++)
        for (let x = 0; x < TILE; x++) {
          const place = (y + PADDING) * SIDE + x + PADDING;
          if (this.first[place] !== 0) continue;
          const near = NEAREST.find((by) => this.first[place + by] !== 0);
          if (near === undefined) continue;
          entries.push(this.first[place + near] - 1);
          at.push(y * TILE + x);
        }
    return [Uint32Array.from(entries), Uint16Array.from(at)];
  }
}

/** Steps to texels within the padding, the nearest first. */
const NEAREST: readonly number[] = (() => {
  const steps: (readonly [far: number, by: number])[] = [];
  for (let dy = -PADDING; dy <= PADDING; dy++)
    for (let dx = -PADDING; dx <= PADDING; dx++) {
      const far = dx * dx + dy * dy;
      if (far > 0 && far <= PADDING * PADDING) steps.push([far, dy * SIDE + dx]);
    }
  return steps.sort((p, q) => p[0] - q[0] || p[1] - q[1]).map(([, by]) => by);
})();

function setPlace(out: TilePlaces, i: number, mesh: MeshArrays, t: number, a: number, b: number): void {
  const { positions: p, normals: n, mask, triangles } = mesh;
  const c = 1 - a - b;
  const [va, vb, vc] = [triangles[t * 3], triangles[t * 3 + 1], triangles[t * 3 + 2]];
  const of = (from: Float32Array, k: number): number =>
    from[va * 3 + k] * a + from[vb * 3 + k] * b + from[vc * 3 + k] * c;
  out.x[i] = of(p, 0);
  out.y[i] = of(p, 1);
  out.z[i] = of(p, 2);
  const [nx, ny, nz] = [of(n, 0), of(n, 1), of(n, 2)];
  const by = 127 / (Math.sqrt(nx * nx + ny * ny + nz * nz) || 1);
  out.normals[i * 3] = Math.round(nx * by);
  out.normals[i * 3 + 1] = Math.round(ny * by);
  out.normals[i * 3 + 2] = Math.round(nz * by);
  const masked = mask[va] * a + mask[vb] * b + mask[vc] * c;
  out.free[i] = Math.round(255 * (1 - Math.min(1, Math.max(0, masked))));
  out.triangle[i] = t;
}

function ballRound({ x, y, z, count }: TilePlaces): Pick<TilePlaces, 'centre' | 'radius'> {
  const middle = (of: Float32Array): number => {
    let [low, high] = [Infinity, -Infinity];
    for (let i = 0; i < count; i++) {
      if (of[i] < low) low = of[i];
      if (of[i] > high) high = of[i];
    }
    return (low + high) / 2;
  };
  const centre = [middle(x), middle(y), middle(z)] as const;
  let far = 0;
  for (let i = 0; i < count; i++)
    far = Math.max(far, (x[i] - centre[0]) ** 2 + (y[i] - centre[1]) ** 2 + (z[i] - centre[2]) ** 2);
  return { centre, radius: Math.sqrt(far) };
}

function mixed(seed: number, of: Float32Array, from: number, to: number): number {
  const words = new Int32Array(of.buffer, of.byteOffset + from * 4, to - from);
  let out = seed | 0;
  for (let i = 0; i < words.length; i++) out = Math.imul(out ^ words[i], 0x01000193) + 0x9e37;
  return out;
}
