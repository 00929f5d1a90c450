/**
 * What a dab covers of the texels of a tile: tone × falloff × tooth × (1 − mask), each as a dab of clay has it, with
 * its rim softened over a texel.
 *
 * A dab is laid once in space; every texel that lies in it, on whichever island, takes its share. Faces that are turned
 * away take none.
 */
import type { AlphaColours, DabFrame } from '#core/brush';
import { levelFor, type Picture, type Pyramid } from '#core/picture';
import { dot, minus } from '#core/vector';
import type { TilePlaces } from './places';
import { readColours, readPicture, type Reading } from './reading';
import type { Connected } from './connected';
import type { TexelRoom } from './texelRoom';

export interface PaintForm {
  /** By ρ, as core/falloff makes it. */
  falloff: Float32Array;
  square: boolean;
  /** How far above and below the dab’s plane it paints, radii. */
  reach: number;
  /** Only what hangs together with the place it is set on; `triangle` is the one hit, null where that isn’t known. */
  connected: { triangle: number | null } | null;
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
  connected: null,
  picture: null,
  colours: null,
  tooth: null,
  hardness: 0,
  pooling: 0,
};

/** Cosines: faces that are turned away further than the least take no paint, those nearer than the whole all of it. */
const FACING = { least: 0.02, whole: 0.2 };

/** Finds what is covered; false where nothing of the tile is. `within` is what it may be. O(texels of the tile). */
export function cover(
  places: TilePlaces,
  frame: DabFrame,
  form: PaintForm,
  out: TexelRoom,
  within: Connected | null = null,
): boolean {
  if (isBeside(places, frame, form) || out.gather(places, frame, form, FACING) === 0) return false;
  if (within && keepWithin(places, within, out) === 0) return false;
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

/** Answers how many are left. */
function keepWithin({ triangle }: TilePlaces, within: Connected, out: TexelRoom): number {
  const { count, index, u, v, amount } = out;
  let left = 0;
  let [last, has] = [-1, false];
  for (let i = 0; i < count; i++) {
    const t = triangle[index[i]];
    if (t !== last) {
      last = t;
      has = within.has(t);
    }
    if (!has) continue;
    index[left] = index[i];
    u[left] = u[i];
    v[left] = v[i];
    amount[left] = amount[i];
    left++;
  }
  out.count = left;
  return left;
}

/** Whether the ball round a tile’s texels lies beside the dab. */
function isBeside(
  { centre, radius: around }: TilePlaces,
  { origin, normal, radius }: DabFrame,
  { square, reach }: PaintForm,
): boolean {
  const away = minus(centre, origin);
  const w = dot(away, normal);
  const aside = Math.sqrt(Math.max(0, dot(away, away) - w * w));
  return Math.abs(w) > reach * radius + around || aside > (square ? Math.SQRT2 : 1) * radius * 1.05 + around;
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
function harden({ count, amount }: TexelRoom, hardness: number, texel: number): void {
  const width = Math.max(1 - hardness, Math.min(1, 2 * texel));
  for (let i = 0; i < count; i++) {
    const hard = (amount[i] - 0.5) / width + 0.5;
    amount[i] = hard <= 0 ? 0 : hard >= 1 ? 1 : hard;
  }
}

/** Share of the radius that dries darker on a hard edge. */
const RIM = 0.16;

/** The rim is where cover falls off, and the last of the radius where it doesn’t. */
function findRim({ count, amount, u, v, rim }: TexelRoom, square: boolean): void {
  for (let i = 0; i < count; i++) {
    const rho = square ? Math.max(Math.abs(u[i]), Math.abs(v[i])) : Math.sqrt(u[i] * u[i] + v[i] * v[i]);
    const band = Math.min(1, Math.max(0, (rho - 1 + RIM) / RIM));
    const fall = Math.max(0, 1 - Math.abs(amount[i] - 0.4) / 0.4);
    rim[i] = Math.max(band * Math.min(1, amount[i] * 2), fall);
  }
}
