/**
 * A texture while it is worked on: square, in tiles that are there once something touched them. A pixel is red, green
 * and blue in linear light, multiplied by its cover, and the cover, 16 bits each.
 */
import { toLinear, toSrgb } from '#core/colour';

export const TILE = 64;
export const TEXTURE_SIZES = [512, 1024, 2048, 4096, 8192] as const;
export const FULL = 65_535;
/** Words of a tile. */
export const TILE_WORDS = TILE * TILE * 4;

/** By column + row × tiles a side; one that isn’t there is clear. */
export type Tiles = Map<number, Uint16Array>;

export interface Texture {
  /** Texels a side. */
  size: number;
  tiles: Tiles;
}

export function texture(size: number): Texture {
  if (!(TEXTURE_SIZES as readonly number[]).includes(size))
    throw new Error(`A texture is ${TEXTURE_SIZES.join(', ')} texels a side; this one has ${size}.`);
  return { size, tiles: new Map() };
}

export const tilesAcross = ({ size }: Pick<Texture, 'size'>): number => size / TILE;

export function tileAt({ size }: Pick<Texture, 'size'>, x: number, y: number): number {
  return (y >> 6) * (size >> 6) + (x >> 6);
}

/** Where a texel’s words begin in its tile. */
export function wordAt(x: number, y: number): number {
  return ((y & (TILE - 1)) * TILE + (x & (TILE - 1))) * 4;
}

/** The tile, made clear where it wasn’t there. */
export function touchTile(of: Texture, tile: number): Uint16Array {
  let words = of.tiles.get(tile);
  if (!words) {
    words = new Uint16Array(TILE_WORDS);
    of.tiles.set(tile, words);
  }
  return words;
}

/** Red, green, blue as displayed and cover, 0–1; nothing where it is clear. */
export function texelAt(of: Texture, x: number, y: number): readonly [number, number, number, number] {
  const words = of.tiles.get(tileAt(of, x, y));
  const at = wordAt(x, y);
  const alpha = words ? words[at + 3] : 0;
  if (!words || alpha === 0) return [0, 0, 0, 0];
  const shown = (k: number): number => toSrgb(Math.min(1, words[at + k] / alpha));
  return [shown(0), shown(1), shown(2), alpha / FULL];
}

/** 8 bits a channel, not multiplied, row by row from the top: as a PNG holds it. */
export function bytesOf(of: Texture): Uint8Array {
  const { size } = of;
  const out = new Uint8Array(size * size * 4);
  const across = tilesAcross(of);
  for (const [tile, words] of of.tiles) {
    const [left, top] = [(tile % across) * TILE, Math.floor(tile / across) * TILE];
    for (let i = 0; i < TILE * TILE; i++) {
      const alpha = words[i * 4 + 3];
      const cover = Math.round((alpha / FULL) * 255);
      if (cover === 0) continue;
      const at = ((top + (i >> 6)) * size + left + (i & (TILE - 1))) * 4;
      for (let k = 0; k < 3; k++) out[at + k] = Math.round(toSrgb(Math.min(1, words[i * 4 + k] / alpha)) * 255);
      out[at + 3] = cover;
    }
  }
  return out;
}

/** A picture of its size, e.g. of a file, to go on with. Clear tiles aren’t made. */
export function textureOf(size: number, bytes: Uint8Array): Texture {
  const out = texture(size);
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) {
      const from = (y * size + x) * 4;
      const alpha = bytes[from + 3];
      if (alpha === 0) continue;
      const words = touchTile(out, tileAt(out, x, y));
      const at = wordAt(x, y);
      for (let k = 0; k < 3; k++) words[at + k] = Math.round(toLinear(bytes[from + k] / 255) * alpha * (FULL / 255));
      words[at + 3] = Math.round(alpha * (FULL / 255));
    }
  return out;
}
