/** What is painted on a mesh, on the same triangles by other coordinates: each texel takes what lay in its place. */
import { buildMesh, type MeshArrays, type RawMesh } from '#core/mesh';
import { atlas } from './atlas';
import type { Layer } from './layers';
import { Places, type TilePlaces } from './places';
import { allTiles } from './flatten';
import { TILE, TILE_WORDS, tilesAcross, type Tiles } from './texture';

export interface PaintedMesh {
  mesh: RawMesh;
  /** Six numbers a triangle: those that it is painted by, and those that it shall be. */
  from: Float32Array;
  to: Float32Array;
  size: number;
  layers: readonly Layer[];
}

/** `step` is told the share that is done. O(texels · layers). */
export function carriedPaint(
  { mesh, from, to, size, layers }: PaintedMesh,
  step: (share: number) => void = () => undefined,
): Layer[] {
  const built = buildMesh({ ...mesh, carried: { coordinates: to, groups: null } });
  // Its triangles are ordered anew: where each was, by its own number as a coordinate.
  const numbers = Float32Array.from({ length: from.length }, (_, i) => Math.floor(i / 6));
  const numbered = buildMesh({ ...mesh, carried: { coordinates: numbers, groups: null } }, { ringless: true });
  const was = (t: number): number => numbered.carried!.coordinates![t * 6];
  const places = new Places(atlas(built, built.carried?.coordinates, size));
  const find = new OldTexels(built, from, was, size);
  const out = layers.map((layer): Layer => ({ ...layer, tiles: new Map(), mask: layer.mask && new Map() }));
  const textures = layers.flatMap(({ tiles, mask }, i): Pair[] => [
    { old: tiles, now: out[i].tiles },
    ...(mask ? [{ old: mask, now: out[i].mask! }] : []),
  ]);
  const pending = textures.filter((one) => !carryFlat(one, size));
  const all = allTiles(size);
  all.forEach((tile, n) => {
    if (n % 64 === 0) step(n / all.length);
    const here = pending.length > 0 ? places.of(tile) : null;
    if (!here) return;
    find.look(here);
    for (const { old, now } of pending) {
      const words = find.read(here, old);
      if (words) now.set(tile, words);
    }
  });
  return out;
}

interface Pair {
  old: Tiles;
  now: Tiles;
}

/** What is of one colour all over is so by any coordinates. */
function carryFlat({ old, now }: Pair, size: number): boolean {
  const [words] = old.values();
  if (!words) return true;
  if (old.size < tilesAcross({ size }) ** 2 || [...old.values()].some((other) => other !== words)) return false;
  if (words.some((word, i) => word !== words[i & 3])) return false;
  for (const tile of old.keys()) now.set(tile, words);
  return true;
}

/** Where the texels of a tile lay by the old coordinates, in texels. */
class OldTexels {
  private x = new Float32Array(TILE * TILE);
  private y = new Float32Array(TILE * TILE);

  constructor(
    private readonly mesh: MeshArrays,
    private readonly from: Float32Array,
    private readonly was: (t: number) => number,
    private readonly size: number,
  ) {}

  look({ count, x, y, z, triangle }: TilePlaces): void {
    if (this.x.length < count) {
      this.x = new Float32Array(count);
      this.y = new Float32Array(count);
    }
    let last = -1;
    let on = this.planeOf(triangle[0]);
    for (let i = 0; i < count; i++) {
      if (triangle[i] !== last) {
        last = triangle[i];
        on = this.planeOf(last);
      }
      const [gx, gy, gz] = [x[i] - on.at[0], y[i] - on.at[1], z[i] - on.at[2]];
      const b = gx * on.b[0] + gy * on.b[1] + gz * on.b[2];
      const c = gx * on.c[0] + gy * on.c[1] + gz * on.c[2];
      const a = 1 - b - c;
      this.x[i] = (on.u[0] * a + on.u[1] * b + on.u[2] * c) * this.size;
      this.y[i] = (1 - (on.v[0] * a + on.v[1] * b + on.v[2] * c)) * this.size;
    }
  }

  /** What makes places on a triangle shares of its second and third corner, and its old coordinates. */
  private planeOf(t: number) {
    const { positions: p, triangles } = this.mesh;
    const [a, b, c] = [triangles[t * 3] * 3, triangles[t * 3 + 1] * 3, triangles[t * 3 + 2] * 3];
    const at = [p[a], p[a + 1], p[a + 2]];
    const e = [p[b] - at[0], p[b + 1] - at[1], p[b + 2] - at[2]];
    const f = [p[c] - at[0], p[c + 1] - at[1], p[c + 2] - at[2]];
    const dot = (q: readonly number[], r: readonly number[]): number => q[0] * r[0] + q[1] * r[1] + q[2] * r[2];
    const [ee, ef, ff] = [dot(e, e), dot(e, f), dot(f, f)];
    const by = 1 / (ee * ff - ef * ef || Infinity);
    const k = this.was(t) * 6;
    const { from } = this;
    return {
      at,
      b: [0, 1, 2].map((i) => (ff * e[i] - ef * f[i]) * by),
      c: [0, 1, 2].map((i) => (ee * f[i] - ef * e[i]) * by),
      u: [from[k], from[k + 2], from[k + 4]],
      v: [from[k + 1], from[k + 3], from[k + 5]],
    };
  }

  /** A tile of what lay there, read between texels; null where it was clear. */
  read({ count, at }: TilePlaces, tiles: Tiles): Uint16Array | null {
    const { x, y, size } = this;
    const across = tilesAcross({ size });
    const last = size - 1;
    const out = new Uint16Array(TILE_WORDS);
    let any = 0;
    for (let i = 0; i < count; i++) {
      const px = Math.min(last, Math.max(0, x[i] - 0.5));
      const py = Math.min(last, Math.max(0, y[i] - 0.5));
      const [column, row] = [px | 0, py | 0];
      const [fx, fy] = [px - column, py - row];
      const sum = [0, 0, 0, 0];
      for (let n = 0; n < 4; n++) {
        const share = (n & 1 ? fx : 1 - fx) * (n > 1 ? fy : 1 - fy);
        if (share === 0) continue;
        const [i0, j0] = [Math.min(last, column + (n & 1)), Math.min(last, row + (n >> 1))];
        const words = tiles.get((j0 >> 6) * across + (i0 >> 6));
        if (!words) continue;
        const from = ((j0 & (TILE - 1)) * TILE + (i0 & (TILE - 1))) * 4;
        for (let k = 0; k < 4; k++) sum[k] += words[from + k] * share;
      }
      for (let k = 0; k < 4; k++) any |= out[at[i] * 4 + k] = sum[k] + 0.5;
    }
    return any >= 1 ? out : null;
  }
}
