/**
 * Layers seen as one: normal ones lie over each other in linear light, the others blend by the W3C’s Compositing and
 * Blending Level 1 in displayed colours, as it is written for.
 */
import { blended, toLinear, toSrgb, type BlendMode } from '#core/colour';
import type { Layer } from './layers';
import { FULL, TILE, TILE_WORDS, tilesAcross, type Texture } from './texture';

/** Colour in linear light times cover, and cover, 0–1, of the texels of a tile. */
export class Flattener {
  readonly out = new Float32Array(TILE_WORDS);
  private readonly base = new Float32Array(TILE * TILE);

  /** False where all of the tile is clear. O(layers that have the tile). */
  flatten(layers: readonly Layer[], tile: number): boolean {
    const { out, base } = this;
    let any = false;
    let hasBase = false;
    const clips = layers.some(({ clipped }) => clipped);
    for (const layer of layers) {
      const words = layer.tiles.get(tile);
      const seen = words && !layer.hidden && layer.opacity > 0;
      if (!layer.clipped) {
        hasBase = Boolean(seen);
        if (!seen) continue;
      } else if (!seen || !hasBase) continue;
      if (!any) out.fill(0);
      any = true;
      lay(out, layer, words, layer.mask?.get(tile) ?? null, clips ? base : null);
    }
    return any;
  }

  /** As `bytes`, of a tile; all clear where nothing covers. */
  bytesOf(layers: readonly Layer[], tile: number): Uint8Array {
    const [only, ...others] = layers.filter(({ hidden, opacity, tiles }) => !hidden && opacity > 0 && tiles.has(tile));
    const plain = only && others.length === 0 && only.opacity === 1 && !only.clipped && !only.mask?.has(tile);
    if (plain) return wordsShown(only.tiles.get(tile)!);
    return this.flatten(layers, tile) ? this.bytes() : new Uint8Array(TILE_WORDS);
  }

  /** As a card that knows sRGB holds it: displayed colours of light times cover, and cover, 8 bits each. */
  bytes(): Uint8Array {
    const { out } = this;
    const bytes = new Uint8Array(TILE_WORDS);
    for (let i = 0; i < TILE_WORDS; i += 4) {
      const alpha = out[i + 3];
      if (alpha === 0) continue;
      bytes[i] = SHOWN[(out[i] * STEPS + 0.5) | 0];
      bytes[i + 1] = SHOWN[(out[i + 1] * STEPS + 0.5) | 0];
      bytes[i + 2] = SHOWN[(out[i + 2] * STEPS + 0.5) | 0];
      bytes[i + 3] = alpha * 255 + 0.5;
    }
    return bytes;
  }

  /** As a tile of a texture holds it. */
  words(): Uint16Array {
    const { out } = this;
    const words = new Uint16Array(TILE_WORDS);
    for (let i = 0; i < TILE_WORDS; i++) words[i] = out[i] < 1 ? out[i] * FULL + 0.5 : FULL;
    return words;
  }
}

const STEPS = 16_383;
/** Displayed byte of each step of light. */
const SHOWN = Uint8Array.from({ length: STEPS + 1 }, (_, i) => Math.round(toSrgb(i / STEPS) * 255));

/** Displayed byte of each word. */
const SHOWN_WORDS = Uint8Array.from({ length: FULL + 1 }, (_, i) => Math.round(toSrgb(i / FULL) * 255));

function wordsShown(words: Uint16Array): Uint8Array {
  const out = new Uint8Array(TILE_WORDS);
  for (let i = 0; i < TILE_WORDS; i += 4) {
    out[i] = SHOWN_WORDS[words[i]];
    out[i + 1] = SHOWN_WORDS[words[i + 1]];
    out[i + 2] = SHOWN_WORDS[words[i + 2]];
    out[i + 3] = (words[i + 3] + 128) / 257;
  }
  return out;
}

/** All of it, as one texture. */
export function flattened(layers: readonly Layer[], size: number): Texture {
  const out: Texture = { size, tiles: new Map() };
  const flat = new Flattener();
  for (const tile of tilesOf(layers)) if (flat.flatten(layers, tile)) out.tiles.set(tile, flat.words());
  return out;
}

/** Every tile that a layer has, in order. */
export function tilesOf(layers: readonly Layer[]): number[] {
  return [...new Set(layers.flatMap(({ tiles }) => [...tiles.keys()]))].sort((a, b) => a - b);
}

/** Every tile there can be. */
export function allTiles(size: number): number[] {
  return Array.from({ length: tilesAcross({ size }) ** 2 }, (_, i) => i);
}

/**
 * One layer over what lies below; `base` is what the last one that wasn’t clipped covers, for those that are; null
 * where none is.
 */
function lay(
  out: Float32Array,
  { opacity, blend, clipped }: Layer,
  words: Uint16Array,
  hidden: Uint16Array | null,
  base: Float32Array | null,
): void {
  const by = opacity / FULL;
  const normal = blend === 'normal';
  if (normal && !hidden && !base) return layPlain(out, words, by);
  for (let i = 0, at = 0; at < TILE_WORDS; i++, at += 4) {
    let share = by;
    if (hidden) share *= 1 - hidden[at + 3] / FULL;
    if (clipped && base) share *= base[i];
    const alpha = words[at + 3] * share;
    if (base && !clipped) base[i] = alpha;
    if (alpha === 0) continue;
    if (normal || out[at + 3] === 0) {
      const under = 1 - alpha;
      out[at] = out[at] * under + words[at] * share;
      out[at + 1] = out[at + 1] * under + words[at + 1] * share;
      out[at + 2] = out[at + 2] * under + words[at + 2] * share;
      out[at + 3] = out[at + 3] * under + alpha;
    } else blendOver(out, at, blend, [words[at], words[at + 1], words[at + 2], words[at + 3]], alpha);
  }
}

/** A normal layer without a mask, where none is clipped. */
function layPlain(out: Float32Array, words: Uint16Array, by: number): void {
  for (let at = 0; at < TILE_WORDS; at += 4) {
    const alpha = words[at + 3] * by;
    if (alpha === 0) continue;
    const under = 1 - alpha;
    out[at] = out[at] * under + words[at] * by;
    out[at + 1] = out[at + 1] * under + words[at + 1] * by;
    out[at + 2] = out[at + 2] * under + words[at + 2] * by;
    out[at + 3] = out[at + 3] * under + alpha;
  }
}

function blendOver(
  out: Float32Array,
  at: number,
  mode: BlendMode,
  [r, g, b, a]: readonly [number, number, number, number],
  alpha: number,
): void {
  const below = out[at + 3];
  const shown = (light: number, cover: number): number => toSrgb(Math.min(1, light / cover));
  const under = [shown(out[at], below), shown(out[at + 1], below), shown(out[at + 2], below)] as const;
  const over = [shown(r, a), shown(g, a), shown(b, a)] as const;
  const mixed = blended(mode, under, over);
  const whole = alpha + below * (1 - alpha);
  for (let k = 0; k < 3; k++) {
    // W3C: αs·((1 − αb)·Cs + αb·B) + (1 − αs)·αb·Cb, of displayed colours.
    const source = (1 - below) * over[k] + below * mixed[k];
    const colour = (alpha * source + (1 - alpha) * below * under[k]) / whole;
    out[at + k] = toLinear(Math.min(1, Math.max(0, colour))) * whole;
  }
  out[at + 3] = whole;
}
