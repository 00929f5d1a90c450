/**
 * A stroke of paint: its dabs gather on a layer of its own, which lies over what was there when it began. A dab is laid
 * once in space, and every texel that it covers, on whichever island, takes its share.
 *
 * Even takes the most of all dabs, so that a stroke is nowhere stronger than its flow; Add up lets flow build,
 * 1 − (1 − f)ⁿ after n dabs. Opacity is how much of the layer lies over what was there.
 */
import type { DabFrame } from '#core/brush';
import type { Linear } from '#core/colour';
import { FALLOFF_STEPS } from '#core/falloff';
import { faceNormal } from '#core/mesh';
import { sample, type Picture } from '#core/picture';
import type { Atlas } from './atlas';
import { facesIn } from './facesIn';
import { edgesOf } from './texels';
import { FULL, TILE, TILE_WORDS, tileAt, touchTile, wordAt, type Texture } from './texture';

export interface PaintForm {
  /** By ρ, as core/falloff makes it. */
  falloff: Float32Array;
  square: boolean;
  /** How far above and below the dab’s plane it paints, radii. */
  reach: number;
  /** What covers is its bright, or its dark; null covers by the falloff alone. */
  picture: { of: Picture; from: 'bright' | 'dark' } | null;
  /** Share of the ring that the picture’s square fills, as of a dab of clay. */
  fit: number;
}

export interface PaintOptions {
  overlaps: 'even' | 'add';
  /** 0–1. */
  opacity: number;
  /** Takes paint away instead of laying it. */
  erases?: boolean;
}

/** Faces that are turned away by this much take no paint any more, and by this much less all of it. */
const LEAST_FACING = 0.02;
const WHOLE_FACING = 0.2;

export class PaintStroke {
  /** Its own layer: colour in linear light times cover, and cover, of each texel. */
  private readonly layer = new Map<number, Float32Array>();
  private readonly before = new Map<number, Uint16Array | null>();

  constructor(
    private readonly on: Texture,
    private readonly atlas: Atlas,
    private readonly o: PaintOptions,
  ) {}

  /** Lays dabs of one colour, copies of each other under symmetry; answers the tiles that changed. O(texels met). */
  dab(frames: readonly DabFrame[], form: PaintForm, colour: Linear, flow: number): Set<number> {
    const changed = new Set<number>();
    for (const frame of frames) this.lay(frame, form, colour, flow, changed);
    return changed;
  }

  /** As if it had never been; answers the tiles that changed. */
  rewind(): Set<number> {
    const changed = new Set(this.before.keys());
    for (const [tile, words] of this.before) {
      if (words) this.on.tiles.set(tile, words);
      else this.on.tiles.delete(tile);
    }
    this.before.clear();
    this.layer.clear();
    return changed;
  }

  /** What brings back what was there: tiles, null where there was none. */
  end(): ReadonlyMap<number, Uint16Array | null> {
    return this.before;
  }

  private lay(frame: DabFrame, form: PaintForm, colour: Linear, flow: number, changed: Set<number>): void {
    const { mesh, corners } = this.atlas;
    const { origin: o, normal: n, tangent: s, bitangent: b, radius } = frame;
    const { positions: p, triangles } = mesh;
    const reach = Math.hypot(form.square ? Math.SQRT2 : 1, form.reach) * radius;
    const us = [0, 0, 0];
    const vs = [0, 0, 0];
    const ws = [0, 0, 0];
    for (const t of facesIn(mesh, o, reach)) {
      const [nx, ny, nz] = faceNormal(mesh, t);
      const twice = Math.hypot(nx, ny, nz);
      const facing = (nx * n[0] + ny * n[1] + nz * n[2]) / (twice || 1);
      if (!(facing > LEAST_FACING)) continue;
      for (let k = 0; k < 3; k++) {
        const v = triangles[t * 3 + k] * 3;
        const [x, y, z] = [p[v] - o[0], p[v + 1] - o[1], p[v + 2] - o[2]];
        us[k] = (x * s[0] + y * s[1] + z * s[2]) / radius;
        vs[k] = (x * b[0] + y * b[1] + z * b[2]) / radius;
        ws[k] = (x * n[0] + y * n[1] + z * n[2]) / radius;
      }
      const texel = texelWidth(corners, t, twice) / radius;
      if (beside(us, 1 + texel) || beside(vs, 1 + texel) || beside(ws, form.reach)) continue;
      const taken = Math.min(1, (facing - LEAST_FACING) / (WHOLE_FACING - LEAST_FACING)) * flow;
      this.fill(t, [us, vs, ws], { form, texel, taken, colour, changed });
    }
  }

  /** The texels of one face, row by row: places in the dab run straight across a triangle. */
  private fill(t: number, [us, vs, ws]: readonly (readonly number[])[], face: Face): void {
    const { form, texel, taken, colour, changed } = face;
    const edges = edgesOf(this.atlas, t);
    if (!edges) return;
    const { left, right, top, bottom, a, b, c, whole } = edges;
    const { reach } = form;
    const farthest = (1 + texel) ** 2 * (form.square ? 2 : 1);
    for (let y = top; y < bottom; y++) {
      const py = y + 0.5;
      const [rowA, rowB, rowC] = [a.along * (py - a.y), b.along * (py - b.y), c.along * (py - c.y)];
      let x = left;
      while (x < right) {
        const end = Math.min(right, (x | (TILE - 1)) + 1);
        const tile = tileAt(this.on, x, y);
        let open: Open | null = null;
        for (; x < end; x++) {
          const px = x + 0.5;
          const ea = rowA - a.down * (px - a.x);
          const eb = rowB - b.down * (px - b.x);
          const ec = rowC - c.down * (px - c.x);
          if (ea < 0 || eb < 0 || ec < 0) continue;
          if ((ea === 0 && !a.own) || (eb === 0 && !b.own) || (ec === 0 && !c.own)) continue;
          const u = (us[0] * ea + us[1] * eb + us[2] * ec) * whole;
          const v = (vs[0] * ea + vs[1] * eb + vs[2] * ec) * whole;
          if (u * u + v * v > farthest) continue;
          const w = (ws[0] * ea + ws[1] * eb + ws[2] * ec) * whole;
          if (w > reach || w < -reach) continue;
          const cover = coverAt(form, u, v, texel) * taken;
          if (!(cover > 0)) continue;
          open ??= this.open(tile);
          if (this.put(open, wordAt(x, y), colour, cover)) changed.add(tile);
        }
      }
    }
  }

  private open(tile: number): Open {
    let layer = this.layer.get(tile);
    if (!layer) {
      layer = new Float32Array(TILE_WORDS);
      this.layer.set(tile, layer);
      this.before.set(tile, this.on.tiles.get(tile)?.slice() ?? null);
    }
    return { layer, was: this.before.get(tile) ?? null, words: touchTile(this.on, tile) };
  }

  /** Whether it changed the texel. */
  private put({ layer, was, words }: Open, at: number, colour: Linear, cover: number): boolean {
    const { overlaps, opacity, erases } = this.o;
    const even = overlaps === 'even';
    if (even && cover <= layer[at + 3]) return false;
    const kept = even ? 0 : 1 - cover;
    layer[at] = layer[at] * kept + colour[0] * cover;
    layer[at + 1] = layer[at + 1] * kept + colour[1] * cover;
    layer[at + 2] = layer[at + 2] * kept + colour[2] * cover;
    layer[at + 3] = layer[at + 3] * kept + cover;
    const under = 1 - layer[at + 3] * opacity;
    const over = erases ? 0 : opacity * FULL;
    for (let k = at; k < at + 4; k++) words[k] = (was ? was[k] : 0) * under + layer[k] * over + 0.5;
    return true;
  }
}

/** What is the same for all texels of a face. */
interface Face {
  form: PaintForm;
  /** Its width in radii. */
  texel: number;
  /** Share of the colour that it takes. */
  taken: number;
  colour: Linear;
  changed: Set<number>;
}

/** A tile that is painted on. */
interface Open {
  layer: Float32Array;
  was: Uint16Array | null;
  words: Uint16Array;
}

const beside = (of: readonly number[], most: number): boolean =>
  (of[0] > most && of[1] > most && of[2] > most) || (of[0] < -most && of[1] < -most && of[2] < -most);

/** Width of a texel on this face, body units. `twice` is the face’s area, doubled. */
function texelWidth(corners: Float32Array, t: number, twice: number): number {
  const k = t * 6;
  const [ax, ay] = [corners[k], corners[k + 1]];
  const texels = Math.abs(
    (corners[k + 2] - ax) * (corners[k + 5] - ay) - (corners[k + 3] - ay) * (corners[k + 4] - ax),
  );
  return texels > 0 ? Math.sqrt(twice / texels) : 0;
}

/** What the form covers at a place in radii, its rim softened over one texel. */
function coverAt({ falloff, square, picture, fit }: PaintForm, u: number, v: number, texel: number): number {
  const rho = square ? Math.max(Math.abs(u), Math.abs(v)) : Math.hypot(u, v);
  const rim = texel > 0 ? Math.min(1, (1 - rho) / texel + 0.5) : rho <= 1 ? 1 : 0;
  if (rim <= 0) return 0;
  const step = Math.min(1, rho) * FALLOFF_STEPS;
  const i = step | 0;
  const f = (falloff[i] + (falloff[i + 1] - falloff[i]) * (step - i)) * rim;
  if (!picture) return f;
  const [x, y] = [(u * fit + 1) / 2, (1 - v * fit) / 2];
  if (x < 0 || x > 1 || y < 0 || y > 1) return 0;
  const h = sample(picture.of, x, y);
  return f * (picture.from === 'bright' ? h : 1 - h);
}
