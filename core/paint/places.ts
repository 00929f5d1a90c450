/**
 * Where on the body each texel of a tile lies, found once and read by every dab: a dab’s cost is then that of the
 * texels it meets, whatever their triangles are.
 *
 * Texels beside an island, as far as the padding, lie where the nearest one in it does. So they are painted, smudged
 * and filled as it is, and a renderer that reads between texels finds no seam.
 *
 * Sculpting moves places: each tile knows prints of the leaves it was made of, which are compared once a stroke.
 */
import type { DabFrame } from '#core/brush';
import { faceNormal, LEAF, LEAF_SHIFT, leavesInSphere } from '#core/mesh';
import { PADDING, texelWidth, type Atlas } from './atlas';
import { Connected } from './connected';
import type { PaintForm } from './cover';
import { edgesOf } from './texels';
import { TILE } from './texture';

interface Ball {
  centre: readonly [number, number, number];
  radius: number;
}

export interface TilePlaces extends Ball {
  tile: number;
  /** Texels here; where coordinates overlap one is here more than once. */
  count: number;
  /** All of the next six, one after the other, as compiled loops read them. */
  block: Uint8Array;
  x: Float32Array;
  y: Float32Array;
  z: Float32Array;
  /** Column + row × TILE within the tile. */
  at: Uint16Array;
  /** Normals, ± 127: x of all, then y, then z. */
  normals: Int8Array;
  /** What the mask leaves, 0–255. */
  free: Uint8Array;
  /** Of the triangle it lies on. */
  triangle: Uint32Array;
  /** Mean width of a texel, body units. */
  texel: number;
  leaves: Uint32Array;
  prints: Int32Array;
}

/** Memory of a texel, how much is kept of what strokes touched last, and how much for a dab that needs more. */
const TEXEL_BYTES = 22;
const MOST_BYTES = 96 * 1024 * 1024;
const MOST_OF_A_DAB = 256 * 1024 * 1024;

export class Places {
  private readonly made = new Map<number, TilePlaces | null>();
  private bytes = 0;
  /** Of this stroke. */
  private readonly sound = new Set<number>();
  private readonly balls = new Map<number, Ball>();
  /** Of this dab. */
  private needed: ReadonlySet<number> = new Set();
  private readonly prints = new Map<number, number>();
  private readonly leaves: Uint32Array;
  private readonly found = new Found();
  private reached: Connected | null = null;

  constructor(readonly atlas: Atlas) {
    this.leaves = new Uint32Array(atlas.mesh.leafCount + 1);
  }

  /** A stroke begins: what was sculpted since shows. */
  begin(): void {
    this.sound.clear();
    this.balls.clear();
    this.prints.clear();
  }

  /** What a dab may cover, where it keeps to what hangs together; null where it may cover all. */
  within(frame: DabFrame, form: PaintForm): Connected | null {
    if (!form.connected) return null;
    this.reached ??= new Connected(this.atlas.mesh);
    this.reached.reach(frame, form, form.connected.triangle);
    return this.reached;
  }

  /** Tiles that have something within `reach` of the place, and maybe some that don’t. */
  near([x, y, z]: readonly [number, number, number], reach: number): TilePlaces[] {
    const { mesh, leafStarts, leafTiles } = this.atlas;
    const tiles = new Set<number>();
    const count = leavesInSphere(mesh, x, y, z, reach, this.leaves);
    for (let i = 0; i < count; i++)
      for (let k = leafStarts[this.leaves[i]]; k < leafStarts[this.leaves[i] + 1]; k++) tiles.add(leafTiles[k]);
    const meets = ({ centre, radius }: Ball): boolean => {
      const [dx, dy, dz] = [centre[0] - x, centre[1] - y, centre[2] - z];
      return dx * dx + dy * dy + dz * dz <= (reach + radius) ** 2;
    };
    const near = [...tiles].filter((tile) => meets(this.ballOf(tile))).sort((p, q) => p - q);
    this.needed = new Set(near);
    // What is known is used before anything is made, which may push out what wasn’t used for longest.
    const known = near.map((tile) => this.knownOf(tile));
    const out: TilePlaces[] = [];
    near.forEach((tile, i) => {
      const here = known[i] === undefined ? this.of(tile) : known[i];
      if (here && meets(here)) out.push(here);
    });
    return out;
  }

  /** Round the triangles of a tile, so round all its texels. */
  private ballOf(tile: number): Ball {
    if (this.sound.has(tile)) {
      const made = this.made.get(tile);
      if (made) return made;
    }
    const known = this.balls.get(tile);
    if (known) return known;
    const { starts, triangles, mesh } = this.atlas;
    const around = new Around();
    for (let i = starts[tile]; i < starts[tile + 1]; i++)
      for (let k = triangles[i] * 3; k < triangles[i] * 3 + 3; k++) {
        const v = mesh.triangles[k] * 3;
        around.add(mesh.positions[v], mesh.positions[v + 1], mesh.positions[v + 2]);
      }
    const ball = around.ball();
    this.balls.set(tile, ball);
    return ball;
  }

  /** Null where no triangle has a texel of the tile. */
  of(tile: number): TilePlaces | null {
    const known = this.knownOf(tile);
    if (known !== undefined) return known;
    const made = this.make(tile);
    this.made.set(tile, made);
    this.sound.add(tile);
    if (made) this.bytes += made.count * TEXEL_BYTES;
    for (const [old, of] of this.made) {
      if (this.bytes <= MOST_BYTES) break;
      const spared = this.needed.has(old) && this.bytes <= MOST_OF_A_DAB;
      if (of && old !== tile && !spared) this.forget(old, of);
    }
    return made;
  }

  /** As they were made, where nothing has moved since; undefined where they are to be made. */
  private knownOf(tile: number): TilePlaces | null | undefined {
    const known = this.made.get(tile);
    if (!known) return known;
    const stands = this.sound.has(tile) || known.leaves.every((leaf, i) => this.printOf(leaf) === known.prints[i]);
    if (!stands) {
      this.forget(tile, known);
      return undefined;
    }
    this.sound.add(tile);
    // What was used last goes last.
    this.made.delete(tile);
    this.made.set(tile, known);
    return known;
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
    const { atlas, found } = this;
    const { starts, triangles, size } = atlas;
    if (starts[tile] === starts[tile + 1]) return null;
    const across = size / TILE;
    found.begin((tile % across) * TILE - PADDING, Math.floor(tile / across) * TILE - PADDING);
    for (let i = starts[tile]; i < starts[tile + 1]; i++) found.fill(atlas, triangles[i]);
    found.pad();
    return found.taken === 0 ? null : this.placed(tile);
  }

  private placed(tile: number): TilePlaces {
    const { found } = this;
    const { mesh, corners } = this.atlas;
    const { positions: p, normals: n, mask, triangles } = mesh;
    const count = found.taken;
    const parts = blockOf(count);
    const { x, y, z, normals, free } = parts;
    parts.at.set(found.at.subarray(0, count));
    const triangle = new Uint32Array(count);
    const leaves = new Set<number>();
    let [texels, width, last] = [0, 0, -1];
    let [va, vb, vc] = [0, 0, 0];
    for (let i = 0; i < count; i++) {
      const entry = found.entries[i];
      const t = found.triangles[entry];
      if (t !== last) {
        last = t;
        [va, vb, vc] = [triangles[t * 3], triangles[t * 3 + 1], triangles[t * 3 + 2]];
        leaves
          .add(va >> LEAF_SHIFT)
          .add(vb >> LEAF_SHIFT)
          .add(vc >> LEAF_SHIFT);
        const [nx, ny, nz] = faceNormal(mesh, t);
        width = texelWidth(corners, t, Math.sqrt(nx * nx + ny * ny + nz * nz));
      }
      texels += width;
      const a = found.a[entry];
      const b = found.b[entry];
      const c = 1 - a - b;
      const [ia, ib, ic] = [va * 3, vb * 3, vc * 3];
      x[i] = p[ia] * a + p[ib] * b + p[ic] * c;
      y[i] = p[ia + 1] * a + p[ib + 1] * b + p[ic + 1] * c;
      z[i] = p[ia + 2] * a + p[ib + 2] * b + p[ic + 2] * c;
      const nx = n[ia] * a + n[ib] * b + n[ic] * c;
      const ny = n[ia + 1] * a + n[ib + 1] * b + n[ic + 1] * c;
      const nz = n[ia + 2] * a + n[ib + 2] * b + n[ic + 2] * c;
      normals[i] = ((nx * 127 + 128.5) | 0) - 128;
      normals[count + i] = ((ny * 127 + 128.5) | 0) - 128;
      normals[2 * count + i] = ((nz * 127 + 128.5) | 0) - 128;
      const masked = mask[va] * a + mask[vb] * b + mask[vc] * c;
      free[i] = masked <= 0 ? 255 : masked >= 1 ? 0 : Math.round(255 * (1 - masked));
      triangle[i] = t;
    }
    const own = Uint32Array.from(leaves);
    const around = new Around();
    for (let i = 0; i < count; i++) around.add(x[i], y[i], z[i]);
    return {
      tile,
      count,
      ...parts,
      triangle,
      texel: texels / count,
      ...around.ball(),
      leaves: own,
      prints: Int32Array.from(own, (leaf) => this.printOf(leaf)),
    };
  }
}

function blockOf(count: number): Pick<TilePlaces, 'block' | 'x' | 'y' | 'z' | 'at' | 'normals' | 'free'> {
  const room = new ArrayBuffer(count * 18);
  return {
    block: new Uint8Array(room),
    x: new Float32Array(room, 0, count),
    y: new Float32Array(room, count * 4, count),
    z: new Float32Array(room, count * 8, count),
    at: new Uint16Array(room, count * 12, count),
    normals: new Int8Array(room, count * 14, count * 3),
    free: new Uint8Array(room, count * 17, count),
  };
}

/** A tile with the padding’s room round it. */
const SIDE = TILE + 2 * PADDING;

/**
 * Texels of triangles in a tile and beside it, as they are met; one on an edge that two triangles share is one’s alone,
 * by the rule of core/paint/texels. Its arrays are used again by the next tile.
 */
class Found {
  /** Of each texel that was met: its triangle, and the shares of the first and the second corner. */
  triangles = new Uint32Array(SIDE * SIDE);
  a = new Float32Array(SIDE * SIDE);
  b = new Float32Array(SIDE * SIDE);
  private places = new Uint16Array(SIDE * SIDE);
  private count = 0;
  /** Those of the tile’s own, then those that texels beside an island take after; and where each lies in the tile. */
  entries = new Uint32Array(TILE * TILE);
  at = new Uint16Array(TILE * TILE);
  taken = 0;
  /** One more than the first entry of each texel; 0 where there is none. */
  private readonly first = new Uint32Array(SIDE * SIDE);
  private left = 0;
  private top = 0;

  /** Where the tile’s room begins in the texture. */
  begin(left: number, top: number): void {
    this.left = left;
    this.top = top;
    this.count = 0;
    this.taken = 0;
    this.first.fill(0);
  }

  fill(atlas: Atlas, t: number): void {
    const { left, top } = this;
    const edges = edgesOf(atlas, t, { left, top, right: left + SIDE, bottom: top + SIDE });
    if (!edges) return;
    const { a, b, c, whole } = edges;
    for (let y = edges.top; y < edges.bottom; y++) {
      const py = y + 0.5;
      const [rowA, rowB, rowC] = [a.along * (py - a.y), b.along * (py - b.y), c.along * (py - c.y)];
      const row = (y - top) * SIDE - left;
      for (let x = edges.left; x < edges.right; x++) {
        const px = x + 0.5;
        const ea = rowA - a.down * (px - a.x);
        if (ea < 0) continue;
        const eb = rowB - b.down * (px - b.x);
        if (eb < 0) continue;
        const ec = rowC - c.down * (px - c.x);
        if (ec < 0) continue;
        if ((ea === 0 && !a.own) || (eb === 0 && !b.own) || (ec === 0 && !c.own)) continue;
        this.add(row + x, t, ea * whole, eb * whole);
      }
    }
  }

  private add(place: number, t: number, a: number, b: number): void {
    if (this.count === this.places.length) this.grow();
    const at = this.count++;
    this.places[at] = place;
    this.triangles[at] = t;
    this.a[at] = a;
    this.b[at] = b;
    if (this.first[place] === 0) this.first[place] = at + 1;
  }

  /** Where coordinates overlap there are more texels than places. */
  private grow(): void {
    this.places = grown(this.places);
    this.triangles = grown(this.triangles);
    this.a = grown(this.a);
    this.b = grown(this.b);
  }

  /** Takes the tile’s own texels, and gives those beside an island what the nearest one in it has. */
  pad(): void {
    const { first, places, count } = this;
    for (let entry = 0; entry < count; entry++) {
      const row = (places[entry] / SIDE) | 0;
      const x = places[entry] - row * SIDE - PADDING;
      const y = row - PADDING;
      if (x >= 0 && y >= 0 && x < TILE && y < TILE) this.take(entry, y * TILE + x);
    }
    if (count === SIDE * SIDE) return;
    for (let y = 0; y < TILE; y++)
      for (let x = 0; x < TILE; x++) {
        const place = (y + PADDING) * SIDE + x + PADDING;
        if (first[place] !== 0) continue;
        for (let k = 0; k < NEAREST.length; k++) {
          const near = first[place + NEAREST[k]];
          if (near === 0) continue;
          this.take(near - 1, y * TILE + x);
          break;
        }
      }
  }

  private take(entry: number, at: number): void {
    if (this.taken === this.at.length) {
      this.entries = grown(this.entries);
      this.at = grown(this.at);
    }
    this.entries[this.taken] = entry;
    this.at[this.taken++] = at;
  }
}

function grown<T extends Uint16Array | Uint32Array | Float32Array>(of: T): T {
  const out = new (of.constructor as new (length: number) => T)(of.length * 2);
  out.set(of);
  return out;
}

/** Steps to texels within the padding, the nearest first. */
const NEAREST: Int32Array = (() => {
  const steps: (readonly [far: number, by: number])[] = [];
  for (let dy = -PADDING; dy <= PADDING; dy++)
    for (let dx = -PADDING; dx <= PADDING; dx++) {
      const far = dx * dx + dy * dy;
      if (far > 0 && far <= PADDING * PADDING) steps.push([far, dy * SIDE + dx]);
    }
  return Int32Array.from(
    steps.sort((p, q) => p[0] - q[0] || p[1] - q[1]),
    ([, by]) => by,
  );
})();

/** A box round places, and the ball round that. */
class Around {
  private readonly low: [number, number, number] = [Infinity, Infinity, Infinity];
  private readonly high: [number, number, number] = [-Infinity, -Infinity, -Infinity];

  add(x: number, y: number, z: number): void {
    const { low, high } = this;
    if (x < low[0]) low[0] = x;
    if (x > high[0]) high[0] = x;
    if (y < low[1]) low[1] = y;
    if (y > high[1]) high[1] = y;
    if (z < low[2]) low[2] = z;
    if (z > high[2]) high[2] = z;
  }

  ball(): Ball {
    const { low, high } = this;
    const half = [0, 1, 2].map((k) => (high[k] - low[k]) / 2);
    return { centre: [low[0] + half[0], low[1] + half[1], low[2] + half[2]], radius: Math.hypot(...half) };
  }
}

function mixed(seed: number, of: Float32Array, from: number, to: number): number {
  const words = new Int32Array(of.buffer, of.byteOffset + from * 4, to - from);
  let out = seed | 0;
  for (let i = 0; i < words.length; i++) out = Math.imul(out ^ words[i], 0x01000193) + 0x9e37;
  return out;
}
