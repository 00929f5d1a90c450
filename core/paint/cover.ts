/**
 * What a dab covers of the texels of a tile: tone × falloff × tooth × (1 − mask), each as a dab of clay has it, with
 * its rim softened over a texel.
 *
 * A dab is laid once in space; every texel that lies in it, on whichever island, takes its share. Faces that are turned
 * away take none.
 */
import type { AlphaColours, DabFrame } from '#core/brush';
import { FALLOFF_STEPS } from '#core/falloff';
import { levelFor, type Picture, type Pyramid } from '#core/picture';
import type { TilePlaces } from './places';
import { readColours, readPicture, type Reading } from './reading';

export interface PaintForm {
  /** By ρ, as core/falloff makes it. */
  falloff: Float32Array;
  square: boolean;
  /** How far above and below the dab’s plane it paints, radii. */
  reach: number;
  /** What covers is its bright, or its dark; null covers by the falloff alone. */
  picture: { of: Pyramid; from: 'bright' | 'dark'; read: Reading } | null;
  /** Colours of the picture’s own: their cover counts, and where they are `laid` they take the brush’s place. */
  colours: { of: AlphaColours; read: Reading; laid: boolean } | null;
  tooth: { of: Pyramid; read: Reading; gain: number; base: number } | null;
  /** 0 leaves edges as soft as they are, 1 makes them as hard as a texel allows. */
  hardness: number;
  /** How much darker the rim dries, 0–1. */
  pooling: number;
}

export const PLAIN_FORM: Omit<PaintForm, 'falloff'> = {
  square: false,
  reach: 1,
  picture: null,
  colours: null,
  tooth: null,
  hardness: 0,
  pooling: 0,
};

/** Faces that are turned away by this much take no paint any more, and by this much less all of it. */
const LEAST_FACING = 0.02;
const WHOLE_FACING = 0.2;

/** What was covered last. Its arrays are used again by the next. */
export class Cover {
  count = 0;
  /** Which of the tile’s texels. */
  index = new Uint16Array(0);
  /** Places in the dab, radii. */
  u = new Float32Array(0);
  v = new Float32Array(0);
  amount = new Float32Array(0);
  /** How far it belongs to the rim that dries darker, 0–1; only where the form pools. */
  rim = new Float32Array(0);
  /** Red, green, blue in linear light; only where the form has colours of its own. */
  own = new Float32Array(0);

  room(count: number, form: PaintForm): void {
    if (this.amount.length < count) {
      this.index = new Uint16Array(count);
      this.u = new Float32Array(count);
      this.v = new Float32Array(count);
      this.amount = new Float32Array(count);
    }
    if (form.pooling > 0 && this.rim.length < count) this.rim = new Float32Array(count);
    if (form.colours && this.own.length < count * 3) this.own = new Float32Array(count * 3);
  }
}

/** Fills `out`; false where nothing of the tile is covered. O(texels of the tile). */
export function cover(places: TilePlaces, frame: DabFrame, form: PaintForm, out: Cover): boolean {
  out.room(places.count, form);
  if (gather(places, frame, form, out) === 0) return false;
  const { picture, tooth, colours } = form;
  if (picture) {
    const dark = picture.from === 'dark';
    readPicture(
      levelOf(picture.of, picture.read, frame, places),
      picture.read,
      places,
      out,
      dark ? -1 : 1,
      dark ? 1 : 0,
    );
  }
  if (tooth) readPicture(levelOf(tooth.of, tooth.read, frame, places), tooth.read, places, out, tooth.gain, tooth.base);
  if (colours) readColours(colours.of, colours.read, places, out);
  if (form.hardness > 0) harden(out, form.hardness, places.texel / frame.radius);
  if (form.pooling > 0) findRim(out, form.square);
  return true;
}

/** Texels in the dab, with its falloff, the mask and how far they are turned away. */
function gather(places: TilePlaces, frame: DabFrame, form: PaintForm, out: Cover): number {
  const { count, x, y, z, normals, free } = places;
  const { origin: o, normal: n, tangent: s, bitangent: b, radius } = frame;
  const { falloff, square, reach } = form;
  const texel = places.texel / radius;
  const by = 1 / radius;
  const [ox, oy, oz] = o;
  const [sx, sy, sz] = [s[0] * by, s[1] * by, s[2] * by];
  const [bx, by_, bz] = [b[0] * by, b[1] * by, b[2] * by];
  const [nx, ny, nz] = n;
  const { index, u: us, v: vs, amount } = out;
  const edge = 1 + texel / 2;
  const farthest = square ? 2 * edge * edge : edge * edge;
  const soft = texel > 0 ? 1 / texel : 1e6;
  const facingBy = 1 / (127 * (WHOLE_FACING - LEAST_FACING));
  const facingLess = LEAST_FACING / (WHOLE_FACING - LEAST_FACING);
  const depth = reach * radius;
  let found = 0;
  for (let i = 0; i < count; i++) {
    const dx = x[i] - ox;
    const dy = y[i] - oy;
    const dz = z[i] - oz;
    const u = dx * sx + dy * sy + dz * sz;
    const v = dx * bx + dy * by_ + dz * bz;
    const square2 = u * u + v * v;
    if (square2 > farthest) continue;
    const w = dx * nx + dy * ny + dz * nz;
    if (w > depth || w < -depth) continue;
    const facing = (normals[i * 3] * nx + normals[i * 3 + 1] * ny + normals[i * 3 + 2] * nz) * facingBy - facingLess;
    if (!(facing > 0)) continue;
    const au = u < 0 ? -u : u;
    const av = v < 0 ? -v : v;
    const rho = square ? (au > av ? au : av) : Math.sqrt(square2);
    const rim = (1 - rho) * soft + 0.5;
    if (rim <= 0) continue;
    const step = (rho < 1 ? rho : 1) * FALLOFF_STEPS;
    const k = step | 0;
    const f = falloff[k] + (falloff[k + 1] - falloff[k]) * (step - k);
    amount[found] = f * (rim < 1 ? rim : 1) * (facing < 1 ? facing : 1) * (free[i] / 255);
    index[found] = i;
    us[found] = u;
    vs[found] = v;
    found++;
  }
  out.count = found;
  return found;
}

/** As fine as texels can show it. */
function levelOf(of: Pyramid, read: Reading, { radius }: DabFrame, { texel }: TilePlaces): Picture {
  return levelFor(of, sideOf(read, radius) / of.levels[0].width, texel);
}

function sideOf(read: Reading, radius: number): number {
  switch (read.kind) {
    case 'flat':
      return (2 * radius) / read.fit;
    case 'repeated': {
      const [a, b] = read.map;
      return radius / (Math.hypot(a, b) || 1);
    }
    case 'wrapped':
      return read.side;
    case 'stencil':
      return read.side;
  }
}

/** What is over half covers, what is under it doesn’t, within a width that hardness leaves. */
function harden({ count, amount }: Cover, hardness: number, texel: number): void {
  const width = Math.max(1 - hardness, Math.min(1, 2 * texel));
  for (let i = 0; i < count; i++) {
    const hard = (amount[i] - 0.5) / width + 0.5;
    amount[i] = hard <= 0 ? 0 : hard >= 1 ? 1 : hard;
  }
}

/** Share of the radius that dries darker on a hard edge. */
const RIM = 0.16;

/** The rim is where cover falls off, and the last of the radius where it doesn’t. */
function findRim({ count, amount, u, v, rim }: Cover, square: boolean): void {
  for (let i = 0; i < count; i++) {
    const rho = square ? Math.max(Math.abs(u[i]), Math.abs(v[i])) : Math.sqrt(u[i] * u[i] + v[i] * v[i]);
    const band = Math.min(1, Math.max(0, (rho - 1 + RIM) / RIM));
    const fall = Math.max(0, 1 - Math.abs(amount[i] - 0.4) / 0.4);
    rim[i] = Math.max(band * Math.min(1, amount[i] * 2), fall);
  }
}
